package rombix.wire.osc;

import java.time.Instant;
import java.util.List;

/** What an OSC datagram holds (OSC 1.0 specification, "OSC Packets"). */
public sealed interface OscPacket {

    /**
     * A message.
     *
     * @param args Integer (i), Long (h), Float (f), Double (d), String (s), Symbol (S), byte[] (b), Boolean (T, F),
     *            Character (c), {@link Nil} (N), {@link Impulse} (I), {@link TimeTag} (t), {@link Rgba} (r),
     *            {@link Midi} (m), or a List of these for an array
     */
    record Message(String address, List<Object> args) implements OscPacket {
        public Message {
            args = List.copyOf(args);
        }

        public Message(String address, Object... args) {
            this(address, List.of(args));
        }
    }

    /** Packets that take effect together, at a time. */
    record Bundle(TimeTag time, List<OscPacket> packets) implements OscPacket {
        public Bundle {
            packets = List.copyOf(packets);
        }
    }

    /** Seconds since 1900 in the upper 32 bits, fractions of a second in the lower; the value 1 means at once. */
    record TimeTag(long bits) {
        public static final TimeTag IMMEDIATELY = new TimeTag(1);
        /** From 1900 to 1970. */
        private static final long TO_EPOCH_SECONDS = 2_208_988_800L;
        private static final double FRACTIONS = 1L << 32;

        /** The tag of a moment. */
        public static TimeTag of(Instant moment) {
            return new TimeTag(moment.getEpochSecond() + TO_EPOCH_SECONDS << 32 | (long) (moment.getNano() / 1e9
                    * FRACTIONS) & 0xFFFF_FFFFL);
        }

        /** How long until then, in milliseconds; 0 where that is now or was before. */
        public long millisFrom(Instant now) {
            if (bits == IMMEDIATELY.bits) {
                return 0;
            }
            double then = ((bits >>> 32) - TO_EPOCH_SECONDS) + (bits & 0xFFFF_FFFFL) / FRACTIONS;
            return Math.max(0, Math.round((then - now.getEpochSecond()) * 1000 - now.getNano() / 1e6));
        }
    }

    /** No value. */
    record Nil() {
    }

    /** An event without a value. */
    record Impulse() {
    }

    /** An alternate kind of string. */
    record Symbol(String text) {
    }

    /** A colour, eight bits each of red, green, blue and alpha, from the top. */
    record Rgba(int bits) {
    }

    /** Port, status and two data bytes, from the top. */
    record Midi(int bits) {
    }
}
