package rombix.core.event;

import org.jspecify.annotations.Nullable;
import rombix.core.value.TextPattern;

/** What was thrown, in words for people: no class is ever named. */
public final class Trouble {
    private static final String UNKNOWN = "internal error; see Rombix's own log";

    private static final TextPattern CLASS = new TextPattern("\\b[a-z]+(\\.[a-z0-9]+)+\\.[A-Z]");

    private Trouble() {
    }

    /** The words for something that was thrown. */
    public static String words(Throwable thrown) {
        return switch (thrown) {
            case StackOverflowError _ -> "its steps or formula are nested too deeply";
            case OutOfMemoryError _ -> "not enough memory";
            default -> readable(thrown.getMessage());
        };
    }

    /** A message that a person can be shown; a class in it, or none at all, says nothing to one. */
    private static String readable(@Nullable String message) {
        return message == null || message.isBlank() || CLASS.in(message).find()
                ? UNKNOWN
                : message;
    }
}
