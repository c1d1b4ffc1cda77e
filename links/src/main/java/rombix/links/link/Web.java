package rombix.links.link;

import java.io.IOException;
import java.net.http.HttpClient;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Base64;
import org.jspecify.annotations.Nullable;
import rombix.core.event.Cause;

/** What gear that is reached over HTTP has in common, WebSocket with it. */
public final class Web {
    private static final Duration CONNECT = Duration.ofSeconds(4);

    private Web() {
    }

    /** A client of one gear's own. Redirects are not followed by it. */
    public static HttpClient client(@Nullable Secure secure) throws IOException {
        HttpClient.Builder builder = HttpClient.newBuilder().version(HttpClient.Version.HTTP_1_1)
                .connectTimeout(CONNECT)
                .followRedirects(HttpClient.Redirect.NEVER);
        if (secure != null) {
            builder.sslContext(secure.context());
        }
        return builder.build();
    }

    /** Who we are, as basic authentication says it (RFC 7617). */
    public static String basic(String user, String secret) {
        return "Basic " + Base64.getEncoder().encodeToString((user + ":" + secret).getBytes(StandardCharsets.UTF_8));
    }

    /** That it does not want us, and what to do. */
    public static Refused unknown(Target target) {
        String secret = target.link().secret();
        return secret == null ? new Refused(Cause.LOGIN_WANTED) : new Refused(Cause.LOGIN_WRONG, secret);
    }
}
