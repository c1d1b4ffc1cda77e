package rombix.standins;

import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.util.Base64;
import java.util.HexFormat;
import java.util.Map;
import java.util.Optional;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;

/** The login that all stand-ins accept. */
public final class DemoLogin {
    /** The name that boards know the secret by. */
    public static final String SECRET = "larkmoor-stand-ins";
    static final String USER = "booth";
    static final String WORD = "moss-and-granite";

    private DemoLogin() {
    }

    /** The secret with a name, where it is that of the stand-ins. */
    public static Optional<String> secret(String name) {
        return Optional.ofNullable(Map.of(SECRET, WORD).get(name));
    }

    static String md5(String text) {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance("MD5").digest(text.getBytes(
                    StandardCharsets.UTF_8)));
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException(e); // Every JDK has it.
        }
    }

    static String proof(String challenge) {
        try {
            Mac mac = Mac.getInstance("HmacSHA256");
            mac.init(new SecretKeySpec(WORD.getBytes(StandardCharsets.UTF_8), "HmacSHA256"));
            return Base64.getEncoder().encodeToString(mac.doFinal(challenge.getBytes(StandardCharsets.UTF_8)));
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException(e); // Every JDK has it.
        }
    }
}
