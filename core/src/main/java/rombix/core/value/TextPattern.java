package rombix.core.value;

import com.google.re2j.Matcher;
import com.google.re2j.Pattern;
import com.google.re2j.PatternSyntaxException;
import java.util.Map;

/**
 * A regular expression of a card, a trigger or a board: searching takes time in proportion to the text, whatever both
 * say. There are no look-arounds and no back-references. Immutable; safe to use from any thread.
 */
public final class TextPattern {
    private final Pattern pattern;

    /** @throws IllegalArgumentException in plain words, where it is none or needs what can't be had */
    public TextPattern(String regex) {
        Pattern read;
        try {
            read = Pattern.compile(regex.replaceAll("\\(\\?<(?=[A-Za-z])", "(?P<"), Pattern.DOTALL);
        } catch (PatternSyntaxException | StackOverflowError e) {
            throw new IllegalArgumentException(
                    "\"pattern\" can't be used: %s in “%s”. Look-ahead, look-behind, back-references and possessive repeats aren't supported, because they can take for ever."
                            .formatted(e instanceof PatternSyntaxException s ? s.getDescription() : "too deep",
                                    Limits.quoted(regex)),
                    e);
        }
        if (read.programSize() > Limits.PATTERN) {
            throw new IllegalArgumentException("\"pattern\" is too large: it has %d parts with its repeats, %d at most"
                    .formatted(read.programSize(), Limits.PATTERN));
        }
        pattern = read;
    }

    /** A text that is to stand for itself in a pattern. */
    public static String quote(String text) {
        return Pattern.quote(text);
    }

    /** Looks for it in a text, of which only the beginning counts where it is very long. */
    public Matcher in(String text) {
        return pattern.matcher(text.length() > Limits.SEARCHED_TEXT ? text.substring(0, Limits.SEARCHED_TEXT) : text);
    }

    /** The numbers of the groups that have names. */
    public Map<String, Integer> groups() {
        return pattern.namedGroups();
    }
}
