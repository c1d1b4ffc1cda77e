package rombix.core.diff;

import com.fasterxml.jackson.annotation.JsonInclude;
import org.jspecify.annotations.Nullable;

/**
 * One thing that is otherwise in one board than in another.
 *
 * @param page the name of the page, and so on; null where it is on none
 * @param chain in which chain, in words such as {@code long press}
 * @param words what is otherwise, as a sentence without its end
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
public record Change(@Nullable String page, @Nullable String button, @Nullable String state, @Nullable String chain,
        String words) {
    static Change of(String words) {
        return new Change(null, null, null, null, words);
    }

    /** As a line: {@code Clouded out: the fade takes 2 s instead of 1.4 s.} */
    public String line() {
        StringBuilder line = new StringBuilder();
        if (button != null) {
            line.append(button);
            if (state != null) {
                line.append(", ").append(state);
            }
            if (chain != null) {
                line.append(", ").append(chain);
            }
            line.append(": ");
        } else if (page != null) {
            line.append(page).append(": ");
        } else if (chain != null) {
            line.append(chain).append(": ");
        }
        return line.append(words).append('.').toString();
    }
}
