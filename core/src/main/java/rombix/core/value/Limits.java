package rombix.core.value;

/**
 * How much is taken of what comes from outside: boards, cards, gear, other programs. What goes beyond is refused or cut
 * where it comes in, so that nobody outside decides how much memory or time Rombix takes.
 */
public final class Limits {
    /** Characters of what is put together from places for one message. */
    public static final int MADE_TEXT = 1 << 20;
    /** Characters of a text that a card's pattern is looked for in; what stands behind is not looked at. */
    public static final int SEARCHED_TEXT = 256 << 10;
    /** Instructions that a card's pattern compiles to. */
    public static final int PATTERN = 2000;
    /** Characters of the words that an error quotes from gear. */
    public static final int QUOTED = 160;
    /** Characters of an answer that are looked at for such words. */
    public static final int QUOTED_FROM = 4096;
    /** Characters of a login challenge. */
    public static final int CHALLENGE = 8192;
    /** Bytes of an HTTP answer; characters of a WebSocket message, or of an event of a stream. */
    public static final int MESSAGE = 4 << 20;
    /** Characters of one line of gear that sends lines. */
    public static final int LINE = 1 << 20;
    /** OSC bundles that wait until their time tag comes, of all gear and triggers together, and values in them. */
    public static final int BUNDLES_AHEAD = 1000;
    public static final int VALUES_AHEAD = 20_000;
    /** Readings of one gear, those of its lists included. */
    public static final int READINGS = 10_000;
    /** Characters of all readings of one gear, their names included. */
    public static final int READINGS_TEXT = 4 << 20;
    /** Items of a list that gear tells. */
    public static final int CHOICES = 10_000;
    /** Characters that are kept of all traffic together. */
    public static final int TRAFFIC = 8 << 20;
    /** Characters of a message that listening takes apart. */
    public static final int LISTENED = 4096;
    /** Bytes of a board, a card, or a file of patches. */
    public static final long FILE = 512L << 20;

    private Limits() {
    }

    /** The beginning of a text from outside, for an error that quotes it. */
    public static String quoted(String text) {
        return text.length() > QUOTED ? text.substring(0, QUOTED) + "…" : text;
    }

    /**
     * Checks how long a text has become that is put together.
     *
     * @throws IllegalArgumentException in plain words
     */
    public static void made(long length) {
        if (length > MADE_TEXT) {
            throw new IllegalArgumentException("the text is longer than " + (MADE_TEXT >> 20)
                    + " million characters");
        }
    }
}
