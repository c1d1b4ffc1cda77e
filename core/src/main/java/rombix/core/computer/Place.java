package rombix.core.computer;

import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * A place for the pointer, as boards write it: {@code pointer}; {@code screen 2 at 120 340}, in the screen's own pixels
 * from its upper left corner; {@code window notes from lower-right at 20 12}, in pixels inwards from a corner of the
 * foremost window of an application. What was to be seen there may follow: {@code seen} and the id of a picture of the
 * board.
 */
public sealed interface Place {
    /** What people read. */
    String words();

    /** The id of the picture of what was there; null where none was kept. */
    @Nullable
    String seen();

    /** Where the pointer is. */
    record Here() implements Place {
        @Override
        public String words() {
            return "where the pointer is";
        }

        @Override
        public @Nullable String seen() {
            return null;
        }

        @Override
        public String toString() {
            return "pointer";
        }
    }

    /** A point of a screen; screens count from 1. */
    record OnScreen(int screen, int x, int y, @Nullable String seen) implements Place {
        @Override
        public String words() {
            return "%d, %d of screen %d".formatted(x, y, screen);
        }

        @Override
        public String toString() {
            return "screen %d at %d %d%s".formatted(screen, x, y, tail(seen));
        }
    }

    /** A corner of a window. */
    enum Corner {
        UPPER_LEFT, UPPER_RIGHT, LOWER_LEFT, LOWER_RIGHT;

        public String id() {
            return name().toLowerCase(Locale.ROOT).replace('_', '-');
        }

        public boolean right() {
            return this == UPPER_RIGHT || this == LOWER_RIGHT;
        }

        public boolean lower() {
            return this == LOWER_LEFT || this == LOWER_RIGHT;
        }
    }

    /** A point of an application's window, so many pixels inwards from a corner. */
    record InWindow(String application, Corner corner, int x, int y, @Nullable String seen) implements Place {
        @Override
        public String words() {
            return "%d, %d from the %s of “%s”".formatted(x, y, corner.id().replace('-', ' '), application);
        }

        @Override
        public String toString() {
            return "window %s from %s at %d %d%s".formatted(application, corner.id(), x, y, tail(seen));
        }
    }

    Place HERE = new Here();
    Pattern SCREEN = Pattern.compile("screen (\\d{1,2}) at (-?\\d{1,6}) (-?\\d{1,6})(?: seen (\\S+))?");
    Pattern WINDOW = Pattern.compile(
            "window (.+) from (upper|lower)-(left|right) at (-?\\d{1,6}) (-?\\d{1,6})(?: seen (\\S+))?");

    private static String tail(@Nullable String seen) {
        return seen == null ? "" : " seen " + seen;
    }

    /** The place that is written so; empty where it is none. */
    static Optional<Place> parse(String text) {
        if (text.isBlank() || text.strip().equals("pointer")) {
            return Optional.of(HERE);
        }
        Matcher screen = SCREEN.matcher(text.strip());
        if (screen.matches()) {
            return Optional.of(new OnScreen(Integer.parseInt(screen.group(1)), Integer.parseInt(screen.group(2)),
                    Integer.parseInt(screen.group(3)), screen.group(4)));
        }
        Matcher window = WINDOW.matcher(text.strip());
        if (window.matches()) {
            Corner corner = Arrays.stream(Corner.values()).filter(c -> c.id().equals(window.group(2) + "-" + window
                    .group(3))).findFirst().orElseThrow();
            return Optional.of(new InWindow(window.group(1), corner, Integer.parseInt(window.group(4)), Integer
                    .parseInt(window.group(5)), window.group(6)));
        }
        return Optional.empty();
    }

    /**
     * The place that is written so.
     *
     * @throws IllegalArgumentException in plain words, where it is none
     */
    static Place of(String text) {
        return parse(text).orElseThrow(() -> new IllegalArgumentException(
                "“%s” is no place: show it on the screen anew".formatted(text)));
    }
}
