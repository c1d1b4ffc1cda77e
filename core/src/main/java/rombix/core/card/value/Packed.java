package rombix.core.card.value;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonProperty;
import java.util.HexFormat;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import rombix.core.value.Value;

/**
 * A number as bytes, written in hexadecimal digits, both ways.
 *
 * @param bytes how many there are, from 1 to 8
 * @param as how the number stands in them; unsigned when absent
 * @param lowFirst whether the lowest byte comes first
 * @param fraction how many of the bits stand behind the point, from 0 to 32: 8 of two bytes make steps of 1/256
 */
@JsonInclude(JsonInclude.Include.NON_DEFAULT)
public record Packed(int bytes, @Nullable Kind as, @JsonProperty("low-first") boolean lowFirst, int fraction) {
    private static final int MOST_BYTES = 8;
    private static final int MOST_FRACTION = 32;

    /** How a number stands in bytes. */
    public enum Kind {
        @JsonProperty("unsigned")
        UNSIGNED(8),
        /** Two's complement. */
        @JsonProperty("signed")
        SIGNED(8),
        /** IEEE 754, of four bytes or eight. */
        @JsonProperty("float")
        FLOAT(8),
        /** Four bits in each byte, as in control protocols of cameras. */
        @JsonProperty("nibbles")
        NIBBLES(4),
        /** Seven bits in each byte, as in MIDI. */
        @JsonProperty("7-bit")
        SEVEN_BIT(7);

        private final int bits;

        Kind(int bits) {
            this.bits = bits;
        }
    }

    public Packed {
        if (bytes < 1 || bytes > MOST_BYTES) {
            throw new IllegalArgumentException("\"bytes\" are from 1 to " + MOST_BYTES);
        }
        if (fraction < 0 || fraction > MOST_FRACTION) {
            throw new IllegalArgumentException("\"fraction\" is a number of bits from 0 to " + MOST_FRACTION);
        }
        if (as == Kind.FLOAT && (bytes != 4 && bytes != 8 || fraction != 0)) {
            throw new IllegalArgumentException("a float has four bytes or eight, and no \"fraction\"");
        }
    }

    private Kind kind() {
        return as == null ? Kind.UNSIGNED : as;
    }

    /** The digits of a number; what is out of reach becomes the nearest that can be carried. */
    String out(double number) {
        if (kind() == Kind.FLOAT) {
            return ordered(bytes == 4 ? Float.floatToIntBits((float) number) : Double.doubleToLongBits(number));
        }
        int width = bytes * kind().bits;
        double scaled = Math.rint(number * Math.pow(2, fraction));
        double low = kind() == Kind.SIGNED ? -Math.pow(2, width - 1.0) : 0;
        double high = Math.pow(2, kind() == Kind.SIGNED ? width - 1.0 : width) - 1;
        double whole = Math.clamp(scaled, low, high);
        long bits = whole >= 0x1p63 ? (long) (whole - 0x1p63) | Long.MIN_VALUE : (long) whole;
        return ordered(bits);
    }

    private String ordered(long number) {
        byte[] all = new byte[bytes];
        int width = kind().bits;
        for (int i = 0; i < bytes; i++) {
            all[lowFirst ? i : bytes - 1 - i] = (byte) (number >>> i * width & (1 << width) - 1);
        }
        return HexFormat.of().formatHex(all);
    }

    /** The number that digits stand for; empty where they are too few, or none. */
    Optional<Value> in(String digits) {
        byte[] all;
        try {
            all = HexFormat.of().parseHex(digits.replace(" ", ""));
        } catch (IllegalArgumentException e) {
            return Optional.empty();
        }
        if (all.length < bytes) {
            return Optional.empty();
        }
        int width = kind().bits;
        long number = 0;
        for (int i = 0; i < bytes; i++) {
            number |= (all[lowFirst ? i : bytes - 1 - i] & (1L << width) - 1) << i * width;
        }
        return switch (kind()) {
            case FLOAT -> {
                double read = bytes == 4 ? Float.intBitsToFloat((int) number) : Double.longBitsToDouble(number);
                yield Double.isFinite(read) ? Optional.of(Value.of(read)) : Optional.empty();
            }
            case SIGNED -> {
                int unused = Long.SIZE - bytes * width;
                yield Optional.of(Value.of((number << unused >> unused) / Math.pow(2, fraction)));
            }
            default -> Optional.of(Value.of((number < 0 ? number + 0x1p64 : number) / Math.pow(2, fraction)));
        };
    }
}
