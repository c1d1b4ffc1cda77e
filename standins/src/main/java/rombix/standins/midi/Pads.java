package rombix.standins.midi;

import java.io.IOException;
import java.util.HexFormat;
import rombix.standins.Received;

/**
 * A controller with pads, knobs and faders, as a box of MIDI sockets: the MIDI bytes that one end sends reach all the
 * others. Whoever connects can press its pads ({@code printf '\220\044\177' | nc 127.0.0.1 9106} presses the first) and
 * sees its lamps and motors set.
 */
public final class Pads implements AutoCloseable {
    /** The first pad's note; the others follow. */
    public static final int FIRST_PAD = 36;

    private final Sockets ends;
    private final Received came = new Received();

    /** @param port where ends connect; any free one when 0 */
    public Pads(int port) throws IOException {
        ends = new Sockets("pads", port);
        ends.serve(from -> (bytes, length) -> {
            came.add(HexFormat.ofDelimiter(" ").formatHex(bytes, 0, length));
            ends.send(bytes, length, from);
        });
    }

    public int port() {
        return ends.port();
    }

    /** What came. */
    public Received received() {
        return came;
    }

    /** How many ends are plugged in. */
    public int ends() {
        return ends.count();
    }

    /** Sends MIDI bytes to all ends, as if its controls were worked. */
    public void play(int... bytes) {
        byte[] out = new byte[bytes.length];
        for (int i = 0; i < bytes.length; i++) {
            out[i] = (byte) bytes[i];
        }
        ends.send(out, out.length, null);
    }

    @Override
    public void close() throws IOException {
        ends.close();
    }
}
