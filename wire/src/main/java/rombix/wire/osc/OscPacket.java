package rombix.wire.osc;

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
