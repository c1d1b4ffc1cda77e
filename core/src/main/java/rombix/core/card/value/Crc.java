package rombix.core.card.value;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonProperty;
import org.jspecify.annotations.Nullable;

/**
 * A cyclic redundancy check by its parameters, in hexadecimal digits, as catalogues of CRCs give them.
 *
 * @param polynomial without its highest term: {@code 1021}
 * @param start what it begins with; 0 when absent
 * @param reflected whether bits go in and out lowest first
 * @param xor what the result is XORed with; 0 when absent
 * @param lowFirst whether the lower byte is written first
 */
@JsonInclude(JsonInclude.Include.NON_DEFAULT)
public record Crc(String polynomial, @Nullable String start, boolean reflected, @Nullable String xor,
        @JsonProperty("low-first") boolean lowFirst) {
    public Crc {
        if (polynomial == null) {
            throw new IllegalArgumentException("a \"crc\" needs its \"polynomial\", in hexadecimal digits");
        }
        number(polynomial);
        number(start);
        number(xor);
    }

    private static int number(@Nullable String digits) {
        try {
            return digits == null ? 0 : Integer.parseInt(digits, 16);
        } catch (NumberFormatException e) {
            throw new IllegalArgumentException("“" + digits + "” isn't a number in hexadecimal digits", e);
        }
    }

    /** @param width of how many bits it is, 8 or 16 */
    byte[] of(byte[] over, int width) {
        int mask = (1 << width) - 1;
        int poly = number(polynomial) & mask;
        int crc = number(start) & mask;
        for (byte b : over) {
            int in = b & 0xFF;
            crc ^= (reflected ? reversed(in, 8) : in) << width - 8;
            for (int i = 0; i < 8; i++) {
                crc = ((crc & 1 << width - 1) != 0 ? crc << 1 ^ poly : crc << 1) & mask;
            }
        }
        int made = ((reflected ? reversed(crc, width) : crc) ^ number(xor)) & mask;
        if (width == 8) {
            return new byte[]{(byte) made};
        }
        byte high = (byte) (made >> 8);
        byte low = (byte) made;
        return lowFirst ? new byte[]{low, high} : new byte[]{high, low};
    }

    private static int reversed(int bits, int width) {
        return Integer.reverse(bits) >>> Integer.SIZE - width;
    }
}
