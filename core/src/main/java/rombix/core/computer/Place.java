package rombix.core.computer;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/**
 * A place for the pointer, as boards write it: {@code pointer}; {@code screen 2 at 120 340}, in the screen's own pixels
 * from its upper left corner; {@code window notes from lower-right at 20 12}, in pixels inwards from a corner of the
 * foremost window of an application. What was to be seen there may follow: {@code seen} and the id of a picture of the
 * board. Or {@code region 1 100 200 300 150}, a part of a screen by its upper left corner and its size; or a picture of the
 * board, wherever it is found: {@code picture ID in everywhere alike 90 take sole at middle wait 2000}.
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
            return "at the pointer";
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

    /** A part of a screen; for the pointer its middle. */
    record Region(int screen, int x, int y, int width, int height) implements Place {
        @Override
        public String words() {
            return "%d×%d at %d, %d of screen %d".formatted(width, height, x, y, screen);
        }

        @Override
        public @Nullable String seen() {
            return null;
        }

        @Override
        public String toString() {
            return "region %d %d %d %d %d".formatted(screen, x, y, width, height);
        }
    }

    /** Which of several places where a picture is found. */
    enum Which {
        SOLE("the only match"), CLOSEST("the match closest to the pointer"), BEST("the best match"), FIRST(
                "the topmost match"), EACH("every match in turn");

        private final String words;

        Which(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        public String id() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /**
     * Where a picture is found.
     *
     * @param picture the id of a picture of the board
     * @param within where it is looked for: {@code everywhere}, {@code screen 2}, {@code window notes} or a region
     * @param alike how much alike it must be, in percent
     * @param x the pixel of the picture that is meant, from its upper left corner; negative for its middle
     * @param y the same
     * @param millis for how long it may stay away
     */
    record OnPicture(String picture, String within, int alike, Which which, int x, int y, int millis) implements Place {
        static final Pattern WITHIN = Pattern
                .compile("everywhere|screen \\d{1,2}|window .+|region \\d{1,2}( -?\\d{1,6}){4}");

        public OnPicture {
            if (!WITHIN.matcher(within).matches() || alike < 50 || alike > 100) {
                throw new IllegalArgumentException(
                        "a picture is searched everywhere, on a screen, in a window or in a region, with a match of 50 to 100 %");
            }
        }

        /** How the picture of this id is looked for where nothing else is said. */
        public static OnPicture of(String picture) {
            return new OnPicture(picture, "everywhere", 90, Which.SOLE, -1, -1, 2000);
        }

        @Override
        public String words() {
            return "where a picture is found" + (within.equals("everywhere")
                    ? ""
                    : within.startsWith("window ") ? " in “" + within.substring(7) + "”" : " on " + within);
        }

        @Override
        public String seen() {
            return picture;
        }

        @Override
        public String toString() {
            return "picture %s in %s alike %d take %s at %s wait %d".formatted(picture, within, alike, which.id(), x < 0
                    ? "middle"
                    : x + " " + y, millis);
        }
    }

    Place HERE = new Here();

    /**
     * A way to write a place.
     *
     * @param example one that can be parsed
     */
    record Form(String example, String meaning) {
    }

    /** Each way to write a place, by an example. */
    List<Form> FORMS = List.of(new Form("pointer", "At the pointer."),
            new Form("screen 1 at 120 340", "Pixels from the top left corner of that screen."),
            new Form("screen 1 at 120 340 seen ID",
                    "With a picture of the board that shows what was there; also for windows."),
            new Form("window notes from lower-right at 20 12",
                    "Pixels inwards from a corner of an application's foremost window: upper-left, upper-right, lower-left or lower-right."),
            new Form("region 1 100 200 300 150", "Part of screen 1: left, top, width, height."),
            new Form("picture ID in everywhere alike 90 take sole at middle wait 2000",
                    "Where a picture of the board is found with a match of at least 90 %, within 2000 ms. In: everywhere, screen 1, window notes, or a region. Take: sole, closest (to the pointer), best (match), first or each. At: middle, or pixels from its top left corner, such as 12 8."));
    Pattern PICTURE = Pattern.compile(
            "picture (\\S+) in (.+) alike (\\d{1,3}) take (sole|closest|best|first|each) at (?:middle|(\\d{1,6}) (\\d{1,6})) wait"
                    + " (\\d{1,7})");
    Pattern REGION = Pattern.compile("region (\\d{1,2}) (-?\\d{1,6}) (-?\\d{1,6}) (\\d{1,6}) (\\d{1,6})");
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
        Matcher region = REGION.matcher(text.strip());
        if (region.matches()) {
            int[] n = IntStream.rangeClosed(1, 5).map(i -> Integer.parseInt(region.group(i))).toArray();
            return Optional.of(new Region(n[0], n[1], n[2], n[3], n[4]));
        }
        Matcher picture = PICTURE.matcher(text.strip());
        if (picture.matches() && OnPicture.WITHIN.matcher(picture.group(2)).matches()) {
            int alike = Integer.parseInt(picture.group(3));
            return alike < 50 || alike > 100
                    ? Optional.empty()
                    : Optional.of(new OnPicture(picture.group(1), picture.group(2), alike, Which.valueOf(picture.group(
                            4).toUpperCase(Locale.ROOT)), picture.group(5) == null
                                    ? -1
                                    : Integer.parseInt(picture.group(5)),
                            picture.group(6) == null
                                    ? -1
                                    : Integer.parseInt(picture.group(6)),
                            Integer.parseInt(picture.group(7))));
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
                "“%s” isn't a place: choose it on the screen again".formatted(text)));
    }
}
