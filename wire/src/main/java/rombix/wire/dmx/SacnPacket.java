package rombix.wire.dmx;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.UUID;
import rombix.wire.Malformed;

/**
 * An E1.31 data packet (ANSI E1.31-2018, table 4-1): the levels of one universe.
 *
 * @param source the sender's identity (CID)
 * @param sourceName the sender's name
 * @param priority from 0 to 200; 100 is usual
 * @param sequence counts up from 0 to 255 and begins again
 * @param ended whether the sender has stopped sending this universe
 * @param universe from 1 to 63999
 * @param sync the address of the packet that has the levels shown; 0 where they are at once
 * @param levels one byte a slot, at most 512; the first is slot 1
 */
public record SacnPacket(UUID source, String sourceName, int priority, int sequence, boolean ended, int universe,
        int sync, byte[] levels) {
    /** The port of the standard. */
    public static final int PORT = 5568;
    public static final int SLOTS = 512;
    static final byte[] IDENTIFIER = {'A', 'S', 'C', '-', 'E', '1', '.', '1', '7', 0, 0, 0};
    private static final int HEAD = 126;
    private static final int NAME = 64;

    public SacnPacket {
        if (universe < 1 || universe > 63_999) {
            throw new IllegalArgumentException("universes count from 1 to 63999, not " + universe);
        }
        if (levels.length > SLOTS) {
            throw new IllegalArgumentException("a universe has at most 512 slots, not " + levels.length);
        }
    }

    /** One whose levels are shown at once. */
    public SacnPacket(UUID source, String sourceName, int priority, int sequence, boolean ended, int universe,
            byte[] levels) {
        this(source, sourceName, priority, sequence, ended, universe, 0, levels);
    }

    /** The packet as bytes. */
    public byte[] encode() {
        int size = HEAD + levels.length;
        ByteBuffer out = ByteBuffer.allocate(size).order(ByteOrder.BIG_ENDIAN);
        out.putShort((short) 0x10).putShort((short) 0).put(IDENTIFIER);
        out.putShort(flagged(size - 16)).putInt(4);
        out.putLong(source.getMostSignificantBits()).putLong(source.getLeastSignificantBits());
        out.putShort(flagged(size - 38)).putInt(2);
        byte[] name = sourceName.getBytes(StandardCharsets.UTF_8);
        out.put(Arrays.copyOf(Arrays.copyOf(name, Math.min(name.length, NAME - 1)), NAME));
        out.put((byte) priority).putShort((short) sync).put((byte) sequence).put((byte) (ended ? 0x40 : 0));
        out.putShort((short) universe);
        out.putShort(flagged(size - 115)).put((byte) 2).put((byte) 0xA1).putShort((short) 0).putShort((short) 1);
        out.putShort((short) (levels.length + 1)).put((byte) 0).put(levels);
        return out.array();
    }

    private static short flagged(int length) {
        return (short) (0x7000 | length);
    }

    /**
     * Reads a packet.
     *
     * @throws Malformed with the reason
     */
    public static SacnPacket decode(ByteBuffer bytes) throws Malformed {
        ByteBuffer in = bytes.slice().order(ByteOrder.BIG_ENDIAN);
        if (in.remaining() < HEAD) {
            throw new Malformed("%d bytes, fewer than the %d of a head".formatted(in.remaining(), HEAD));
        }
        byte[] id = new byte[IDENTIFIER.length];
        in.get(4, id);
        if (in.getShort(0) != 0x10 || !Arrays.equals(id, IDENTIFIER)) {
            throw new Malformed("no ACN packet");
        }
        if (in.getInt(18) != 4 || in.getInt(40) != 2 || in.get(117) != 2 || in.get(118) != (byte) 0xA1) {
            throw new Malformed("an ACN packet of another kind");
        }
        int count = (in.getShort(123) & 0xFFFF) - 1;
        if (count < 0 || count > SLOTS || HEAD + count > in.limit()) {
            throw new Malformed("claims %d slots where %d bytes are left".formatted(count, in.limit() - HEAD));
        }
        if (in.get(125) != 0) {
            throw new Malformed("a start code that is not for levels");
        }
        int universe = in.getShort(113) & 0xFFFF;
        if (universe < 1 || universe > 63_999) {
            throw new Malformed("a universe of " + universe);
        }
        byte[] name = new byte[NAME];
        in.get(44, name);
        int end = 0;
        while (end < NAME && name[end] != 0) {
            end++;
        }
        byte[] levels = new byte[count];
        in.get(HEAD, levels);
        return new SacnPacket(new UUID(in.getLong(22), in.getLong(30)),
                new String(name, 0, end, StandardCharsets.UTF_8), in.get(108) & 0xFF, in.get(111) & 0xFF,
                (in.get(112) & 0x40) != 0, universe, in.getShort(109) & 0xFFFF, levels);
    }
}
