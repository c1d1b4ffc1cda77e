package rombix.core.chain;

import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rombix.core.value.Extra;
import rombix.core.value.Value;

/**
 * Something about a reading that is so or not: that it {@code is} a value, is {@code above} or is {@code below} a
 * number. Where nothing is given, that it is yes. Where several are given, all of them.
 */
@JsonInclude(JsonInclude.Include.NON_EMPTY)
public record Condition(String gear, String reading, @Nullable Value is, @Nullable Double above, @Nullable Double below,
        @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Test {
    public Condition {
        Objects.requireNonNull(gear, "a condition needs a \"gear\"");
        Objects.requireNonNull(reading, "a condition needs a \"reading\"");
        extra = Extra.kept(extra);
    }

    /** That a reading is a value. */
    public static Condition is(String gear, String reading, Value value) {
        return new Condition(gear, reading, value, null, null, Map.of());
    }

    /** Whether it holds for the reading's present value; a value that never came makes nothing true. */
    public boolean holds(@Nullable Value now) {
        if (now == null) {
            return false;
        }
        if (is == null && above == null && below == null) {
            return now.asFlag();
        }
        return (is == null || is.matches(now)) && (above == null || now.asNumber() > above)
                && (below == null || now.asNumber() < below);
    }
}
