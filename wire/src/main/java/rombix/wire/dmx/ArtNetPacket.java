package rombix.wire.dmx;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import rombix.wire.Malformed;

/** A packet of Art-Net 4 (the specification of 2016 and later; Art-Net is a protocol that is free for all to use). */
public sealed interface ArtNetPacket {
    /** The port of the protocol. */
    int PORT = 6454;
    int LAST_UNIVERSE = 32_767;

    /**
     * The levels of a universe.
     *
     * @param sequence from 1 to 255, and begins again
     * @param universe from 0 to 32767: net, sub-net and universe in one
     * @param levels one byte a slot, at most 512
     */
    record Dmx(int sequence, int universe, byte[] levels) implements ArtNetPacket {
        public Dmx {
            if (universe < 0 || universe > LAST_UNIVERSE || levels.length > SacnPacket.SLOTS) {
                throw new IllegalArgumentException("universes count from 0 to 32767 and have at most 512 slots");
            }
        }
    }

    /** Asks who is there. */
    record Poll() implements ArtNetPacket {
    }

    /**
     * Says that a node is there.
     *
     * @param universes those that it puts out
     */
    record PollReply(byte[] ip, String shortName, String longName, List<Integer> universes) implements ArtNetPacket {
        public PollReply {
            universes = List.copyOf(universes);
        }
    }

    /** That all the levels that were sent are to be shown now. */
    record Sync() implements ArtNetPacket {
    }

    /** Of another kind. */
    record Other(int code) implements ArtNetPacket {
    }

    /** @return the packet as bytes */
    static byte[] encode(ArtNetPacket packet) {
        return switch (packet) {
            case Dmx d -> {
                int length = Math.max(2, d.levels().length + 1 & ~1);
                ByteBuffer out = head(Layout.DMX, 18 + length);
                out.put((byte) d.sequence()).put((byte) 0).put((byte) d.universe()).put((byte) (d.universe() >> 8));
                yield out.putShort((short) length).put(d.levels()).array();
            }
            case Poll _ -> head(Layout.POLL, 14).put((byte) 0x02).put((byte) 0x10).array();
            case Sync _ -> head(Layout.SYNC, 14).array();
            case PollReply r -> {
                ByteBuffer out = ByteBuffer.allocate(Layout.REPLY_LENGTH).put(Layout.ID).order(ByteOrder.LITTLE_ENDIAN)
                        .putShort((short) Layout.POLL_REPLY).put(Arrays.copyOf(r.ip(), 4)).putShort((short) PORT);
                out.put(26, Arrays.copyOf(r.shortName().getBytes(StandardCharsets.ISO_8859_1), 17));
                out.put(44, Arrays.copyOf(r.longName().getBytes(StandardCharsets.ISO_8859_1), 63));
                Layout.ports(out, r.universes());
                yield out.array();
            }
            case Other _ -> throw new IllegalArgumentException("unknown");
        };
    }

    private static ByteBuffer head(int code, int size) {
        ByteBuffer out = ByteBuffer.allocate(size).put(Layout.ID).order(ByteOrder.LITTLE_ENDIAN).putShort((short) code);
        return out.order(ByteOrder.BIG_ENDIAN).putShort((short) Layout.VERSION);
    }

    /**
     * Reads a packet.
     *
     * @throws Malformed with the reason
     */
    static ArtNetPacket decode(ByteBuffer bytes) throws Malformed {
        ByteBuffer in = bytes.slice().order(ByteOrder.BIG_ENDIAN);
        byte[] id = new byte[Layout.ID.length];
        if (in.remaining() < 10) {
            throw new Malformed("%d bytes, fewer than a head has".formatted(in.remaining()));
        }
        in.get(0, id);
        if (!Arrays.equals(id, Layout.ID)) {
            throw new Malformed("no Art-Net packet");
        }
        int code = (in.get(8) & 0xFF) | (in.get(9) & 0xFF) << 8;
        return switch (code) {
            case Layout.DMX -> dmx(in);
            case Layout.POLL -> new Poll();
            case Layout.SYNC -> new Sync();
            case Layout.POLL_REPLY -> reply(in);
            default -> new Other(code);
        };
    }

    private static Dmx dmx(ByteBuffer in) throws Malformed {
        if (in.limit() < 18) {
            throw new Malformed("levels cut short");
        }
        int length = in.getShort(16) & 0xFFFF;
        if (length > SacnPacket.SLOTS || 18 + length > in.limit()) {
            throw new Malformed("claims %d slots where %d bytes are left".formatted(length, in.limit() - 18));
        }
        byte[] levels = new byte[length];
        in.get(18, levels);
        return new Dmx(in.get(12) & 0xFF, (in.get(14) & 0xFF) | (in.get(15) & 0x7F) << 8, levels);
    }

    private static PollReply reply(ByteBuffer in) throws Malformed {
        if (in.limit() < 108) {
            throw new Malformed("a reply cut short");
        }
        byte[] ip = new byte[4];
        in.get(10, ip);
        return new PollReply(ip, text(in, 26, 18), text(in, 44, 64), Layout.ports(in));
    }

    private static String text(ByteBuffer in, int at, int room) {
        byte[] bytes = new byte[room];
        in.get(at, bytes);
        int end = 0;
        while (end < room && bytes[end] != 0) {
            end++;
        }
        return new String(bytes, 0, end, StandardCharsets.ISO_8859_1).replaceAll("\\p{Cntrl}", " ");
    }

    /** Figures of the specification. */
    final class Layout {
        static final byte[] ID = {'A', 'r', 't', '-', 'N', 'e', 't', 0};
        static final int VERSION = 14;
        static final int POLL = 0x2000;
        static final int POLL_REPLY = 0x2100;
        static final int DMX = 0x5000;
        static final int SYNC = 0x5200;
        static final int REPLY_LENGTH = 239;
        private static final int NET = 18;
        private static final int SUB_NET = 19;
        private static final int PORTS = 173;
        private static final int PORT_TYPES = 174;
        private static final int OUTPUTS = 190;
        private static final int MOST_PORTS = 4;
        private static final int PUTS_OUT = 0x80;

        private Layout() {
        }

        /** The universes of a reply's ports: a net and a sub-net are common to them. */
        private static void ports(ByteBuffer reply, List<Integer> universes) {
            List<Integer> some = universes.subList(0, Math.min(MOST_PORTS, universes.size()));
            reply.put(PORTS, (byte) some.size());
            for (int i = 0; i < some.size(); i++) {
                reply.put(NET, (byte) (some.get(i) >> 8)).put(SUB_NET, (byte) (some.get(i) >> 4 & 0xF));
                reply.put(PORT_TYPES + i, (byte) PUTS_OUT).put(OUTPUTS + i, (byte) (some.get(i) & 0xF));
            }
        }

        private static List<Integer> ports(ByteBuffer reply) {
            List<Integer> universes = new ArrayList<>();
            if (reply.limit() >= OUTPUTS + MOST_PORTS) {
                int above = (reply.get(NET) & 0x7F) << 8 | (reply.get(SUB_NET) & 0xF) << 4;
                for (int i = 0; i < Math.min(MOST_PORTS, reply.get(PORTS)); i++) {
                    if ((reply.get(PORT_TYPES + i) & PUTS_OUT) != 0) {
                        universes.add(above | reply.get(OUTPUTS + i) & 0xF);
                    }
                }
            }
            return universes;
        }
    }
}
