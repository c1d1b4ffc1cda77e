package rombix.links.http;

import com.google.re2j.Matcher;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.security.SecureRandom;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rombix.links.link.Web;
import rombix.core.value.Limits;
import rombix.core.value.TextPattern;

/**
 * Who we are to a server: basic (RFC 7617) or digest (RFC 7616: MD5, SHA-256, their {@code -sess} forms, {@code qop}
 * none or {@code auth}) as it asks, or a bearer token (RFC 6750). What it asked is kept, so that it need not ask each
 * time. Safe to use from any thread.
 */
final class Login {
    private static final TextPattern PARAM = new TextPattern("([a-zA-Z-]+)=(?:\"((?:[^\"\\\\]|\\\\.)*)\"|([^\\s,]+))");
    private static final SecureRandom RANDOM = new SecureRandom();
    private static final int NONCE_BYTES = 8;

    private final boolean bearer;
    /** What the server asked for last. Guarded by this. */
    private @Nullable Map<String, String> digest;
    private boolean basic;
    private int count;

    Login(boolean bearer) {
        this.bearer = bearer;
    }

    /** What to say with a request; null where nothing is asked for, as far as is known. */
    synchronized @Nullable String says(String method, URI to, String user, @Nullable String secret) {
        if (secret == null) {
            return null;
        }
        if (bearer) {
            if (secret.chars().anyMatch(c -> c < '!' || c > '~')) {
                throw new IllegalArgumentException(
                        "its token contains a character that a bearer token can't have, such as a space or an accented letter");
            }
            return "Bearer " + secret;
        }
        Map<String, String> asked = digest;
        if (asked != null) {
            byte[] nonce = new byte[NONCE_BYTES];
            RANDOM.nextBytes(nonce);
            String path = to.getRawPath() + (to.getRawQuery() == null ? "" : "?" + to.getRawQuery());
            return answer(asked, method, path, user, secret, HexFormat.of().formatHex(nonce), ++count);
        }
        return basic ? Web.basic(user, secret) : null;
    }

    /** Takes what a server asks for; whether it can be had, and has not just been refused. */
    synchronized boolean asked(List<String> challenges, boolean said) {
        for (String challenge : challenges) {
            if (challenge.length() > Limits.CHALLENGE) {
                continue; // Nobody who means well has so much to say.
            }
            if (challenge.toLowerCase(Locale.ROOT).startsWith("digest ")) {
                Map<String, String> params = params(challenge);
                boolean known = params.getOrDefault("algorithm", "MD5").toUpperCase(Locale.ROOT).matches(
                        "(MD5|SHA-256)(-SESS)?");
                if (known) {
                    boolean again = said && !"true".equalsIgnoreCase(params.get("stale"));
                    digest = params;
                    count = 0;
                    return !again;
                }
            }
        }
        if (challenges.stream().anyMatch(c -> c.toLowerCase(Locale.ROOT).startsWith("basic"))) {
            basic = true;
            return !said;
        }
        return false;
    }

    private static Map<String, String> params(String challenge) {
        Map<String, String> params = new HashMap<>();
        Matcher m = PARAM.in(challenge);
        while (m.find()) {
            params.put(m.group(1).toLowerCase(Locale.ROOT), m.group(2) != null
                    ? m.group(2).replaceAll("\\\\(.)", "$1")
                    : m.group(3));
        }
        return params;
    }

    /** RFC 7616, 3.4. */
    static String answer(Map<String, String> asked, String method, String path, String user, String secret,
            String nonce, int count) {
        String algorithm = asked.getOrDefault("algorithm", "MD5");
        String realm = asked.getOrDefault("realm", "");
        String theirs = asked.getOrDefault("nonce", "");
        boolean auth = List.of(asked.getOrDefault("qop", "").split("[\\s,]+")).contains("auth");
        String nc = "%08x".formatted(count);
        String first = hash(algorithm, user + ":" + realm + ":" + secret);
        if (algorithm.toLowerCase(Locale.ROOT).endsWith("-sess")) {
            first = hash(algorithm, first + ":" + theirs + ":" + nonce);
        }
        String second = hash(algorithm, method + ":" + path);
        String response = hash(algorithm, first + ":" + theirs + ":" + (auth
                ? nc + ":" + nonce + ":auth:"
                : "") + second);
        StringBuilder said = new StringBuilder(
                "Digest username=\"%s\", realm=\"%s\", nonce=\"%s\", uri=\"%s\", response=\"%s\", algorithm=%s"
                        .formatted(quoted(user), quoted(realm), quoted(theirs), path, response, algorithm));
        if (asked.containsKey("opaque")) {
            said.append(", opaque=\"").append(quoted(asked.getOrDefault("opaque", ""))).append('"');
        }
        if (auth) {
            said.append(", qop=auth, nc=").append(nc).append(", cnonce=\"").append(nonce).append('"');
        }
        return said.toString();
    }

    private static String quoted(String text) {
        return text.replace("\\", "\\\\").replace("\"", "\\\"");
    }

    private static String hash(String algorithm, String of) {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance(algorithm.toUpperCase(Locale.ROOT).startsWith(
                    "SHA-256") ? "SHA-256" : "MD5").digest(of.getBytes(StandardCharsets.UTF_8)));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e); // Every JDK has both.
        }
    }
}
