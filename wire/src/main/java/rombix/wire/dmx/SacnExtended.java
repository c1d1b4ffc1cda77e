package rombix.wire.dmx;

import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.UUID;

/** The extended packets of E1.31 that a source sends beside its levels: synchronisation and discovery (section 6.3, 8). */
public final class SacnExtended {
    /** Where a source tells which universes it sends. */
    public static final String DISCOVERY_GROUP = "239.255.250.214";
    private static final int EXTENDED = 8;
    private static final int MOST = 512;

    private SacnExtended() {
    }

    /** Says that what was sent with this synchronisation address is to be shown now. */
    public static byte[] sync(UUID source, int sequence, int address) {
        ByteBuffer out = root(source, 49);
        out.putShort((short) (0x7000 | 49 - 38)).putInt(1).put((byte) sequence).putShort((short) address).putShort(
                (short) 0);
        return out.array();
    }

    /** Tells which universes are sent; the first 512 of them, in order. */
    public static byte[] discovery(UUID source, String name, List<Integer> universes) {
        List<Integer> told = universes.stream().sorted().limit(MOST).toList();
        int size = 120 + 2 * told.size();
        ByteBuffer out = root(source, size);
        out.putShort((short) (0x7000 | size - 38)).putInt(2).put(Arrays.copyOf(Arrays.copyOf(name.getBytes(
                StandardCharsets.UTF_8), 63), 64)).putInt(0);
        out.putShort((short) (0x7000 | size - 112)).putInt(1).put((byte) 0).put((byte) 0);
        told.forEach(u -> out.putShort(u.shortValue()));
        return out.array();
    }

    private static ByteBuffer root(UUID source, int size) {
        return ByteBuffer.allocate(size).putShort((short) 0x10).putShort((short) 0).put(SacnPacket.IDENTIFIER).putShort(
                (short) (0x7000 | size - 16)).putInt(EXTENDED).putLong(source.getMostSignificantBits()).putLong(source
                        .getLeastSignificantBits());
    }
}
