package rombix.links.sound;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.RandomAccessFile;
import java.io.SequenceInputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;

/**
 * Where the sound of a file begins and ends in what its decoder makes of it: packed sound comes in whole blocks, and the
 * file says what of them is its own. Ogg: the granule position of its last page (RFC 3533). MP3: the delay and the
 * padding in the information frame that encoders write first.
 *
 * @param skip how many frames at the beginning are not the file's
 * @param frames how many are, from there on; all where that is not said
 */
record Ends(long skip, long frames) {
    private static final Ends ALL = new Ends(0, Long.MAX_VALUE);
    private static final int TAIL = 1 << 16;
    private static final int HEAD = 1 << 12;
    /** The decoder of the packed sound reads blocks of this length, and drops what is in a last one that is not full. */
    private static final int PAD = 1 << 14;

    private static final int GRANULE = 6;
    private static final int MP3_BLOCK = 1152;
    private static final int MP3_DECODER = 529;
    private static final int INFO_FRAMES = 8;
    private static final int INFO_DELAY = 141;

    static Ends of(Path file) throws IOException {
        try (RandomAccessFile in = new RandomAccessFile(file.toFile(), "r")) {
            byte[] head = part(in, 0, HEAD);
            if (starts(head, 0, "OggS")) {
                return ogg(part(in, Math.max(0, in.length() - TAIL), TAIL));
            }
            for (int i = 0; i + INFO_DELAY + 3 < head.length; i++) {
                if (starts(head, i, "Info") || starts(head, i, "Xing")) {
                    return mp3(head, i);
                }
            }
            return ALL;
        }
    }

    private static byte[] part(RandomAccessFile in, long from, int most) throws IOException {
        byte[] part = new byte[(int) Math.min(most, in.length() - from)];
        in.seek(from);
        in.readFully(part);
        return part;
    }

    private static boolean starts(byte[] bytes, int at, String with) {
        return at + with.length() <= bytes.length && new String(bytes, at, with.length(), StandardCharsets.US_ASCII)
                .equals(with);
    }

    private static Ends ogg(byte[] tail) {
        for (int i = tail.length - GRANULE - Long.BYTES; i >= 0; i--) {
            if (starts(tail, i, "OggS")) {
                long frames = ByteBuffer.wrap(tail, i + GRANULE, Long.BYTES).order(ByteOrder.LITTLE_ENDIAN).getLong();
                return frames > 0 ? new Ends(0, frames) : ALL;
            }
        }
        return ALL;
    }

    private static Ends mp3(byte[] head, int at) {
        long blocks = ByteBuffer.wrap(head, at + INFO_FRAMES, Integer.BYTES).getInt();
        int ends = (head[at + INFO_DELAY] & 0xFF) << 16 | (head[at + INFO_DELAY + 1] & 0xFF) << 8 | head[at + INFO_DELAY
                + 2] & 0xFF;
        int delay = ends >> 12;
        int padding = ends & 0xFFF;
        long frames = blocks * MP3_BLOCK - delay - padding;
        return delay == 0 || frames <= 0 ? ALL : new Ends(MP3_BLOCK + delay + MP3_DECODER, frames);
    }

    /** A file as its decoder wants it. */
    static InputStream padded(InputStream file) {
        return new SequenceInputStream(file, new ByteArrayInputStream(new byte[PAD]));
    }
}
