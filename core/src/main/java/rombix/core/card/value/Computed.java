package rombix.core.card.value;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonProperty;
import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.util.Base64;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;
import org.jspecify.annotations.Nullable;
import rombix.core.value.Limits;
import rombix.core.value.Value;

/**
 * A value computed from others: what gear asks for in place of a secret, or a checksum. In cards only.
 *
 * @param over what it is computed over, as UTF-8; of a checksum bytes in hexadecimal digits
 * @param key the key of an HMAC (RFC 2104)
 * @param written how the bytes are written; in hexadecimal digits when absent
 * @param crc the parameters of a CRC
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
public record Computed(Way compute, WireValue over, @Nullable WireValue key,
        @JsonProperty("form") @Nullable Form written, @Nullable Crc crc) implements WireValue {
    /** What is computed. */
    public enum Way {
        @JsonProperty("text")
        TEXT, @JsonProperty("md5")
        MD5, @JsonProperty("sha-1")
        SHA_1, @JsonProperty("sha-256")
        SHA_256, @JsonProperty("hmac-sha-1")
        HMAC_SHA_1, @JsonProperty("hmac-sha-256")
        HMAC_SHA_256,
        /** The lowest byte of the sum of all bytes. */
        @JsonProperty("sum")
        SUM,
        /** What brings the sum of all bytes to a multiple of 128: the checksum of system exclusive messages. */
        @JsonProperty("sum-7")
        SUM_7,
        /** All bytes XORed. */
        @JsonProperty("xor")
        XOR, @JsonProperty("crc-8")
        CRC_8, @JsonProperty("crc-16")
        CRC_16;

        /** Whether it is computed over bytes in hexadecimal digits. */
        public boolean checks() {
            return compareTo(SUM) >= 0;
        }

        private boolean cyclic() {
            return this == CRC_8 || this == CRC_16;
        }

        private static int sum(byte[] over) {
            int sum = 0;
            for (byte b : over) {
                sum += b & 0xFF;
            }
            return sum;
        }

        private static byte xor(byte[] over) {
            byte all = 0;
            for (byte b : over) {
                all ^= b;
            }
            return all;
        }

        /** Whether it takes a key, as an HMAC does. */
        public boolean keyed() {
            return this == HMAC_SHA_1 || this == HMAC_SHA_256;
        }

        private byte[] of(byte[] over, byte[] key, @Nullable Crc crc) throws GeneralSecurityException {
            return switch (this) {
                case TEXT -> over;
                case MD5 -> MessageDigest.getInstance("MD5").digest(over);
                case SHA_1 -> MessageDigest.getInstance("SHA-1").digest(over);
                case SHA_256 -> MessageDigest.getInstance("SHA-256").digest(over);
                case HMAC_SHA_1 -> mac("HmacSHA1", over, key);
                case HMAC_SHA_256 -> mac("HmacSHA256", over, key);
                case SUM -> new byte[]{(byte) sum(over)};
                case SUM_7 -> new byte[]{(byte) (-sum(over) & 0x7F)};
                case XOR -> new byte[]{xor(over)};
                case CRC_8 -> Objects.requireNonNull(crc).of(over, 8);
                case CRC_16 -> Objects.requireNonNull(crc).of(over, 16);
            };
        }
    }

    /** How bytes are written. */
    public enum Form {
        @JsonProperty("hex")
        HEX, @JsonProperty("base64")
        BASE64
    }

    public Computed {
        if (compute.keyed() != (key != null)) {
            throw new IllegalArgumentException(compute.keyed()
                    ? "an HMAC needs a \"key\""
                    : "a \"key\" belongs to an HMAC only");
        }
        if (compute.cyclic() != (crc != null)) {
            throw new IllegalArgumentException(compute.cyclic()
                    ? "a CRC needs its parameters: \"crc\": {\"polynomial\": \"1021\", \"start\": \"ffff\"}"
                    : "\"crc\" belongs to a CRC only");
        }
    }

    @Override
    public @Nullable Value out(Function<String, @Nullable Value> values) {
        Value text = over.out(values);
        Value keyed = key == null ? Value.of("") : key.out(values);
        if (text == null || keyed == null) {
            return null;
        }
        Limits.made(text.toString().length() * 2L); // Each of several that stand in a row writes more than it reads.
        try {
            byte[] made = compute.of(compute.checks()
                    ? HexFormat.of().parseHex(text.toString().replaceAll("[\\s:-]", ""))
                    : text.toString().getBytes(StandardCharsets.UTF_8),
                    keyed.toString().getBytes(
                            StandardCharsets.UTF_8),
                    crc);
            return Value.of(written == Form.BASE64
                    ? Base64.getEncoder().encodeToString(made)
                    : HexFormat.of().formatHex(made));
        } catch (GeneralSecurityException | IllegalArgumentException e) {
            throw new IllegalArgumentException((compute.checks()
                    ? "the checksum can't be computed: "
                    : "the login can't be computed: ") + e.getMessage(), e);
        }
    }

    private static byte[] mac(String way, byte[] over, byte[] key) throws GeneralSecurityException {
        Mac mac = Mac.getInstance(way);
        mac.init(new SecretKeySpec(key, way));
        return mac.doFinal(over);
    }

    @Override
    public Optional<Value> in(Value wire) {
        return Optional.empty(); // Nobody computes back.
    }

    @Override
    public Set<String> places() {
        Set<String> all = new HashSet<>(over.places());
        if (key != null) {
            all.addAll(key.places());
        }
        return all;
    }
}
