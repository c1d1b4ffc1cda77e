package rombix.core.computer;

/** Something that a hand did at this computer, in whatever window. Times are nanoseconds of one clock. */
public sealed interface Input {
    long atNanos();

    /** A key goes down or up, by its name in {@link Keys}. */
    record Key(String key, boolean down, long atNanos) implements Input {
    }

    /** A key that went down has written a character. */
    record Typed(char letter, long atNanos) implements Input {
    }

    /** A button of the pointer goes down or up at a pixel of all screens together. */
    record Button(String button, boolean down, int x, int y, long atNanos) implements Input {
    }

    /** The wheel is turned by one click. */
    record Wheel(String way, int x, int y, long atNanos) implements Input {
    }
}
