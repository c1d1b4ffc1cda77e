package rombix.links.dmx;

import rombix.core.card.value.As;
import rombix.core.twin.Order;
import rombix.core.value.Value;

/** A value as the levels of slots. */
final class Slots {
    private Slots() {
    }

    /** From 0 to 255 each, as many as its form has slots. */
    static int[] of(Value value, As form) {
        return switch (form) {
            case RGB -> new int[]{part(value, 16), part(value, 8), part(value, 0)};
            case RGBW -> {
                int white = Math.min(part(value, 16), Math.min(part(value, 8), part(value, 0)));
                yield new int[]{part(value, 16) - white, part(value, 8) - white, part(value, 0) - white, white};
            }
            case WORD -> {
                int word = word(value);
                yield new int[]{word >> 8, word & 0xFF};
            }
            case COARSE -> new int[]{word(value) >> 8};
            case FINE -> new int[]{word(value) & 0xFF};
            default -> new int[]{(int) Math.clamp(Math.round(value.asNumber()), 0, 255)};
        };
    }

    /** One of the plain levels that a packet carries, from 0 to 255. */
    static double level(Order.Outgoing packet, int arg) {
        return Math.clamp(packet.args().get(arg).asNumber(), 0, 255);
    }

    private static int word(Value value) {
        return (int) Math.clamp(Math.round(value.asNumber()), 0, 65_535);
    }

    private static int part(Value colour, int shift) {
        String digits = colour.toString();
        return digits.matches("#[0-9A-Fa-f]{6}") ? Integer.parseInt(digits.substring(1), 16) >> shift & 0xFF : 0;
    }
}
