package rombix.core.store;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** Tells parts of a board apart by what they are, wherever they stand and whatever they are called. */
public final class Fingerprint {
    private Fingerprint() {
    }

    /** The SHA-256 of something as it would stand in a board's file, in hexadecimal digits. */
    public static String of(Object part) {
        return of(Json.fingerprinted(part).getBytes(StandardCharsets.UTF_8));
    }

    /** The SHA-256 of bytes, in hexadecimal digits. */
    public static String of(byte[] bytes) {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e); // Every Java has it.
        }
    }
}
