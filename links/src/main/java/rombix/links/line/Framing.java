package rombix.links.line;

import java.util.Arrays;
import java.util.HexFormat;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import rombix.links.link.GearPlaces;
import rombix.wire.Malformed;

/** Takes a stream of bytes apart into messages, as is set for a gear, however the stream is split. One thread's. */
final class Framing {
    private static final int LONGEST = 65_536;
    private static final int BYTE = 8;

    /** How the end of a message is known. */
    private enum Kind {
        CHUNKS, TERMINATOR, LENGTH, SIZE, GAP
    }

    private final Kind kind;
    private final byte[] terminator;
    private final int lengthAt;
    private final int lengthSize;
    private final boolean lowFirst;
    private final boolean whole;
    private final int uncounted;
    private final int size;
    private final long gapNanos;
    private byte[] rest = {};
    /** How many of the rest belong to a message that is over. */
    private int over;
    private long heard;

    /** @throws IllegalArgumentException in plain words, where what is set cannot be */
    Framing(GearPlaces places) {
        kind = !places.text(Line.MESSAGES).equals(Line.BYTES) ? Kind.CHUNKS : switch (places.text(Line.FRAMING)) {
            case Line.TERMINATOR_FRAMING -> Kind.TERMINATOR;
            case Line.LENGTH_FRAMING -> Kind.LENGTH;
            case Line.SIZE_FRAMING -> Kind.SIZE;
            case Line.GAP_FRAMING -> Kind.GAP;
            default -> Kind.CHUNKS;
        };
        terminator = bytes(places.text(Line.TERMINATOR));
        lengthAt = (int) places.number(Line.LENGTH_AT, 0);
        lengthSize = (int) places.number(Line.LENGTH_SIZE, 1);
        lowFirst = places.text(Line.LENGTH_ORDER).equals(Line.LOW_FIRST);
        whole = places.text(Line.LENGTH_COUNTS).equals(Line.WHOLE);
        uncounted = (int) places.number(Line.UNCOUNTED, 0);
        size = (int) places.number(Line.SIZE, 1);
        gapNanos = TimeUnit.MILLISECONDS.toNanos((long) places.number(Line.GAP, 20));
        if (kind == Kind.TERMINATOR && terminator.length == 0) {
            throw new IllegalArgumentException("no terminator is set");
        }
    }

    private static byte[] bytes(String digits) {
        try {
            return HexFormat.of().parseHex(digits.replaceAll("[\\s:-]", ""));
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException("the terminator “" + digits + "” isn't a sequence of hexadecimal bytes",
                    e);
        }
    }

    /** After how long without a byte it should be asked again, in milliseconds. */
    int lookMillis(int otherwise) {
        return kind == Kind.GAP ? (int) Math.clamp(TimeUnit.NANOSECONDS.toMillis(gapNanos), 1, otherwise) : otherwise;
    }

    /** Takes bytes that came just now. */
    void take(byte[] bytes, int count) {
        long now = System.nanoTime();
        if (kind == Kind.GAP && now - heard > gapNanos) {
            over = rest.length;
        }
        heard = now;
        byte[] all = Arrays.copyOf(rest, rest.length + count);
        System.arraycopy(bytes, 0, all, rest.length, count);
        rest = all;
    }

    /** Nothing came for a while. */
    void quiet() {
        if (kind == Kind.GAP && System.nanoTime() - heard > gapNanos) {
            over = rest.length;
        }
    }

    /**
     * The next whole message; null where there is none yet.
     *
     * @throws Malformed where what came cannot be one; it was passed over
     */
    byte @Nullable [] next() throws Malformed {
        int length = switch (kind) {
            case CHUNKS -> rest.length;
            case TERMINATOR -> terminated();
            case LENGTH -> counted();
            case SIZE -> rest.length < size ? 0 : size;
            case GAP -> over;
        };
        if (length > LONGEST || length == 0 && rest.length > LONGEST) {
            rest = new byte[0];
            over = 0;
            throw new Malformed("a message of more than " + LONGEST + " bytes");
        }
        if (length == 0 || length > rest.length) {
            return null;
        }
        byte[] message = Arrays.copyOf(rest, length);
        rest = Arrays.copyOfRange(rest, length, rest.length);
        over = 0;
        return message;
    }

    private int terminated() {
        for (int i = 0; i + terminator.length <= rest.length; i++) {
            if (Arrays.equals(rest, i, i + terminator.length, terminator, 0, terminator.length)) {
                return i + terminator.length;
            }
        }
        return 0;
    }

    private int counted() {
        int head = lengthAt + lengthSize;
        if (rest.length < head) {
            return 0;
        }
        long said = 0;
        for (int i = 0; i < lengthSize; i++) {
            int at = lengthAt + (lowFirst ? lengthSize - 1 - i : i);
            said = said << BYTE | rest[at] & 0xFF;
        }
        long all = said + uncounted + (whole ? 0 : head);
        return (int) Math.clamp(all, head, LONGEST + 1L);
    }
}
