package rombix.wire.osc;

import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.net.SocketTimeoutException;
import java.nio.ByteBuffer;
import java.util.Arrays;
import org.jspecify.annotations.Nullable;
import rombix.wire.Malformed;

/**
 * How packets are told apart in a stream: each with its length before it (OSC 1.0), or each between two END bytes, as
 * SLIP has it (RFC 1055; OSC 1.1).
 */
public enum OscFraming {
    LENGTH, SLIP;

    private static final int LARGEST = 1 << 20;
    private static final int END = 0xC0;
    private static final int ESCAPE = 0xDB;
    private static final int ESCAPED_END = 0xDC;
    private static final int ESCAPED_ESCAPE = 0xDD;

    /** A packet as it stands in the stream. */
    public byte[] frame(byte[] packet) {
        if (this == LENGTH) {
            return ByteBuffer.allocate(packet.length + 4).putInt(packet.length).put(packet).array();
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream(packet.length + 8);
        out.write(END);
        for (byte b : packet) {
            switch (b & 0xFF) {
                case END -> out.writeBytes(new byte[]{(byte) ESCAPE, (byte) ESCAPED_END});
                case ESCAPE -> out.writeBytes(new byte[]{(byte) ESCAPE, (byte) ESCAPED_ESCAPE});
                default -> out.write(b);
            }
        }
        out.write(END);
        return out.toByteArray();
    }

    /** Reads packets from a stream; a read that times out loses nothing of what came. One thread's. */
    public final class Reader {
        private final DataInputStream in;
        private byte[] held = new byte[1024];
        private int count;
        private boolean escaped;

        private Reader(InputStream in) {
            this.in = new DataInputStream(in);
        }

        /**
         * The next packet; null where there are no more.
         *
         * @throws SocketTimeoutException where none came for a while
         * @throws Malformed where the stream cannot be read any further
         */
        public byte @Nullable [] next() throws IOException, Malformed {
            while (true) {
                int b = in.read();
                if (b < 0) {
                    if (count > 0) {
                        throw new EOFException("it broke off within a packet");
                    }
                    return null;
                }
                byte[] whole = OscFraming.this == LENGTH ? counted(b) : slipped(b);
                if (whole != null) {
                    return whole;
                }
            }
        }

        private byte @Nullable [] counted(int b) throws Malformed {
            put(b);
            if (count < 4) {
                return null;
            }
            int length = ByteBuffer.wrap(held).getInt();
            if (length < 0 || length > LARGEST) {
                throw new Malformed("a packet of %d bytes; is its framing the same?".formatted(length));
            }
            return count == length + 4 ? taken(4) : null;
        }

        private byte @Nullable [] slipped(int b) throws Malformed {
            if (b == END) {
                escaped = false;
                return count == 0 ? null : taken(0);
            }
            if (escaped) {
                escaped = false;
                put(b == ESCAPED_END ? END : b == ESCAPED_ESCAPE ? ESCAPE : b);
            } else if (b == ESCAPE) {
                escaped = true;
            } else {
                put(b);
            }
            return null;
        }

        private void put(int b) throws Malformed {
            if (count > LARGEST + 4) {
                throw new Malformed("a packet of more than " + LARGEST + " bytes; is its framing the same?");
            }
            if (count == held.length) {
                held = Arrays.copyOf(held, held.length * 2);
            }
            held[count++] = (byte) b;
        }

        private byte[] taken(int from) {
            byte[] whole = Arrays.copyOfRange(held, from, count);
            count = 0;
            return whole;
        }
    }

    public Reader reader(InputStream in) {
        return new Reader(in);
    }
}
