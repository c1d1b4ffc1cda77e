package rombix.core.card.value;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonProperty;
import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.util.Base64;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;
import org.jspecify.annotations.Nullable;
import rombix.core.value.Limits;
import rombix.core.value.Value;

/**
 * A value computed for a login: what gear asks for in place of the secret itself. In cards only.
 *
 * @param over what it is computed over, as UTF-8
 * @param key the key of an HMAC (RFC 2104)
 * @param written how the bytes are written; in hexadecimal digits when absent
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
public record Computed(Way compute, WireValue over, @Nullable WireValue key,
        @JsonProperty("form") @Nullable Form written) implements WireValue {
    /** What is computed. */
    public enum Way {
        @JsonProperty("text")
        TEXT, @JsonProperty("md5")
        MD5, @JsonProperty("sha-1")
        SHA_1, @JsonProperty("sha-256")
        SHA_256, @JsonProperty("hmac-sha-1")
        HMAC_SHA_1, @JsonProperty("hmac-sha-256")
        HMAC_SHA_256;

        private boolean keyed() {
            return this == HMAC_SHA_1 || this == HMAC_SHA_256;
        }

        private byte[] of(byte[] over, byte[] key) throws GeneralSecurityException {
            return switch (this) {
                case TEXT -> over;
                case MD5 -> MessageDigest.getInstance("MD5").digest(over);
                case SHA_1 -> MessageDigest.getInstance("SHA-1").digest(over);
                case SHA_256 -> MessageDigest.getInstance("SHA-256").digest(over);
                case HMAC_SHA_1 -> mac("HmacSHA1", over, key);
                case HMAC_SHA_256 -> mac("HmacSHA256", over, key);
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
            byte[] made = compute.of(text.toString().getBytes(StandardCharsets.UTF_8), keyed.toString().getBytes(
                    StandardCharsets.UTF_8));
            return Value.of(written == Form.BASE64
                    ? Base64.getEncoder().encodeToString(made)
                    : HexFormat.of().formatHex(made));
        } catch (GeneralSecurityException | IllegalArgumentException e) {
            throw new IllegalArgumentException("the login cannot be computed: " + e.getMessage(), e);
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
