package rombix.links.osc;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import rombix.core.card.value.As;
import rombix.core.twin.Order;
import rombix.core.value.Value;
import rombix.wire.osc.OscPacket;

/** What a packet carries as the arguments of an OSC message, each in the type that its card says. */
final class OscArguments {
    private OscArguments() {
    }

    /** A packet as it goes out: at once, or in a bundle that is to be done some time ahead. */
    static OscPacket packet(Order.Outgoing packet, long aheadMillis) {
        OscPacket.Message message = new OscPacket.Message(packet.address(), of(packet));
        return aheadMillis <= 0
                ? message
                : new OscPacket.Bundle(OscPacket.TimeTag.of(Instant.now().plusMillis(aheadMillis)), List.of(message));
    }

    /** @throws IllegalArgumentException in plain words, where a value cannot have its type */
    static List<Object> of(Order.Outgoing packet) {
        return from(packet, new int[]{0});
    }

    /** Those from a place on, up to the end of the array that it stands in. */
    private static List<Object> from(Order.Outgoing packet, int[] at) {
        List<Object> args = new ArrayList<>(packet.args().size());
        while (at[0] < packet.args().size()) {
            int i = at[0]++;
            As as = packet.forms().get(i);
            if (as == As.END) {
                return args;
            }
            args.add(as == As.BEGIN ? from(packet, at) : argument(packet.args().get(i), as));
        }
        return args;
    }

    private static Object argument(Value value, As as) {
        return switch (as) {
            case INT, WORD -> (int) Math.rint(value.asNumber());
            case LONG -> (long) Math.rint(value.asNumber());
            case FLOAT -> (float) value.asNumber();
            case DOUBLE -> value.asNumber();
            case TEXT -> value.toString();
            case SYMBOL -> new OscPacket.Symbol(value.toString());
            case CHAR -> value.toString().isEmpty() ? ' ' : value.toString().charAt(0);
            case FLAG -> value.asFlag();
            case BLOB -> bytes(value);
            case TIME -> OscPacket.TimeTag.of(Instant.ofEpochMilli((long) value.asNumber()));
            case MIDI -> new OscPacket.Midi((int) number(value, 4));
            case IMPULSE -> new OscPacket.Impulse();
            case NIL -> new OscPacket.Nil();
            case RGB, RGBW -> new OscPacket.Rgba((int) (Long.parseLong(value.toString().substring(1), 16) << 8 | 0xFF));
            default -> switch (value) {
                case Value.Num n -> (float) n.number();
                case Value.Flag f -> f.on();
                case Value v -> v.toString();
            };
        };
    }

    private static byte[] bytes(Value value) {
        try {
            return HexFormat.of().parseHex(value.toString().replace(" ", ""));
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException("“" + value + "” isn't a sequence of hexadecimal bytes", e);
        }
    }

    private static long number(Value value, int bytes) {
        byte[] all = bytes(value);
        long number = 0;
        for (int i = 0; i < bytes; i++) {
            number = number << 8 | (i < all.length ? all[i] & 0xFF : 0);
        }
        return number;
    }
}
