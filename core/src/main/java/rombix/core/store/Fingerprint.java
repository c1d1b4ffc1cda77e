package rombix.core.store;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** Tells parts of a board apart by what they are, wherever they stand and whatever they are called. */
public final class Fingerprint {
    private static final int CHUNK = 1 << 16;

    private Fingerprint() {
    }

    /** The SHA-256 of something as it would stand in a board's file, in hexadecimal digits. */
    public static String of(Object part) {
        return of(Json.fingerprinted(part).getBytes(StandardCharsets.UTF_8));
    }

    /** The SHA-256 of bytes, in hexadecimal digits. */
    public static String of(byte[] bytes) {
        return HexFormat.of().formatHex(sha256().digest(bytes));
    }

    /** The SHA-256 of what comes from a stream, which is passed on, but no more than so many bytes of it. */
    public static String of(InputStream in, OutputStream also, long most) throws IOException {
        MessageDigest digest = sha256();
        byte[] some = new byte[CHUNK];
        int n;
        for (long left = most; left > 0 && (n = in.read(some, 0, (int) Math.min(CHUNK, left))) >= 0; left -= n) {
            digest.update(some, 0, n);
            also.write(some, 0, n);
        }
        return HexFormat.of().formatHex(digest.digest());
    }

    private static MessageDigest sha256() {
        try {
            return MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e); // Every Java has it.
        }
    }
}
