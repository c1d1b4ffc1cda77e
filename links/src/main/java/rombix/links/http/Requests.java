package rombix.links.http;

import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.BiConsumer;
import java.util.stream.Collectors;
import javax.net.ssl.SSLException;
import org.jspecify.annotations.Nullable;
import rombix.core.twin.Order;
import rombix.core.value.Limits;
import rombix.core.value.Value;
import rombix.links.link.GearPlaces;
import rombix.links.link.HostPort;
import rombix.links.link.LineInput;
import rombix.links.link.Secure;
import rombix.links.link.Target;
import rombix.links.link.Web;
import rombix.wire.Malformed;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Requests to one gear: who we are, where they go, and what comes back. Safe to use from any thread. */
final class Requests implements AutoCloseable {
    private static final int REDIRECTS = 5;
    private static final int NOT_MODIFIED = 304;
    private static final int UNAUTHORIZED = 401;
    private static final int FORBIDDEN = 403;
    private static final Duration POLL_TIMEOUT = Duration.ofMillis(2500);
    private static final long STREAM_MILLIS = 10_000;
    private static final int MOST_TAGS = 1000;
    private static final String TYPE = "Content-Type";
    private static final String FORM = "application/x-www-form-urlencoded";
    private static final JsonMapper JSON = new JsonMapper();

    private final Target target;
    private final boolean byCard;
    private final Login login;
    private final Duration timeout;
    /** How long a question may take that is asked again and again: gear that hangs is noticed soon. */
    private final Duration patience;
    /** The tag of what was got last from a path, so that it need not come again (RFC 9110, 13.1.2). */
    private final Map<String, String> tags = new ConcurrentHashMap<>();
    /** Guarded by this. */
    private @Nullable Over present;

    /** It did not answer: it is not there, or not any more. */
    static final class Unreached extends IOException {
        private static final long serialVersionUID = 1;

        Unreached(String why, @Nullable Throwable cause) {
            super(why, cause);
        }

        /** Whether it was there, and only said nothing. */
        boolean silent() {
            return getCause() instanceof TimeoutException;
        }
    }

    /** It no longer takes the login that a greeting left. */
    static final class Expired extends IOException {
        private static final long serialVersionUID = 1;

        Expired(String why) {
            super(why);
        }
    }

    /**
     * What came back.
     *
     * @param changed whether it is something else than the last time, as far as the server says
     */
    record Answer(int status, String text, boolean changed) {
        String firstWords() {
            String begin = text.substring(0, Math.min(text.length(), Limits.QUOTED_FROM));
            return Limits.quoted(begin.strip().lines().findFirst().orElse("").replaceAll("<[^<>]*>", " ").strip());
        }
    }

    /** @param byCard whether the card's greeting logs in, so that what it got may run out */
    Requests(Target target, GearPlaces places, boolean byCard) {
        this.target = target;
        this.byCard = byCard;
        this.login = new Login(places.text(Http.LOGIN).equals(Http.BEARER));
        this.timeout = Duration.ofMillis((long) places.number(Http.TIMEOUT, Http.USUAL_TIMEOUT));
        this.patience = timeout.compareTo(POLL_TIMEOUT) < 0 ? timeout : POLL_TIMEOUT;
    }

    /**
     * Sends a request and waits for the answer.
     *
     * @param poll whether it is a question that is asked again and again
     * @throws Unreached where none came
     * @throws Expired where it is told that nobody is logged in
     * @throws IOException in plain words, where it was refused
     */
    Answer send(Order.Outgoing packet, boolean poll) throws IOException, InterruptedException {
        HttpResponse<byte[]> response = exchange(packet, HttpResponse.BodyHandlers.limiting(HttpResponse.BodyHandlers
                .ofByteArray(), Limits.MESSAGE), poll ? patience : timeout, false);
        Answer answer = new Answer(response.statusCode(), new String(response.body(), StandardCharsets.UTF_8), response
                .statusCode() != NOT_MODIFIED);
        if (response.statusCode() >= 400) {
            String words = answer.firstWords();
            throw new IOException(response.statusCode() == FORBIDDEN
                    ? "refused (403): check the user and the secret" + (words.isEmpty() ? "" : "; it says " + words)
                    : "refused: " + response.statusCode() + (words.isEmpty() ? "" : " " + words));
        }
        response.headers().firstValue("ETag").filter(tag -> tags.size() < MOST_TAGS || tags.containsKey(packet
                .address())).ifPresent(tag -> tags.put(packet.address(), tag));
        return answer;
    }

    /**
     * Follows a stream of events until it ends (HTML, 9.2).
     *
     * @param opened run when it is open
     * @param each takes the name and the data of each
     */
    void events(Order.Outgoing packet, Runnable opened, BiConsumer<String, String> each)
            throws IOException, InterruptedException {
        HttpResponse<InputStream> response = exchange(packet, HttpResponse.BodyHandlers.ofInputStream(), Duration
                .ofMillis(STREAM_MILLIS), true);
        try (InputStream body = response.body()) {
            if (response.statusCode() != 200) {
                throw new Unreached("has no event stream there: " + response.statusCode(), null);
            }
            opened.run();
            LineInput in = new LineInput(body, Limits.LINE);
            StringBuilder data = new StringBuilder();
            String name = "message";
            for (String line = next(in); line != null; line = next(in)) {
                if (line.isEmpty()) {
                    if (!data.isEmpty()) {
                        each.accept(name, data.substring(0, data.length() - 1));
                    }
                    data.setLength(0);
                    name = "message";
                } else if (line.startsWith("data:")) {
                    data.append(line.startsWith("data: ") ? line.substring(6) : line.substring(5)).append('\n');
                    if (data.length() > Limits.MESSAGE) {
                        throw new IOException("its event stream has an unfinished event");
                    }
                } else if (line.startsWith("event:")) {
                    name = line.substring(6).strip();
                }
            }
        }
    }

    private static @Nullable String next(LineInput in) throws IOException {
        try {
            return in.next();
        } catch (Malformed e) {
            throw new IOException("its event stream has " + e.getMessage(), e);
        }
    }

    /** Logs in where it is asked to, and follows redirects as long as they stay on the host. */
    private <T> HttpResponse<T> exchange(Order.Outgoing packet, HttpResponse.BodyHandler<T> body, Duration within,
            boolean events)
            throws IOException, InterruptedException {
        String secret = target.secret();
        HostPort.resolved(target.hostPort()); // Before the lock: whoever closes must not wait for a name.
        Over over = over();
        String host = (over.secure() == null ? "http://" : "https://") + HostPort.words(target.hostPort());
        String method = events ? "GET" : packet.address().substring(0, packet.address().indexOf(' '));
        URI to = uri(host + packet.address().substring(packet.address().indexOf(' ') + 1));
        boolean said = false;
        for (int way = 0; way < REDIRECTS; way++) {
            String who = login.says(method, to, target.user(), secret);
            said = said || who != null;
            HttpResponse<T> response = send(over, request(packet, method, to, who, events), body, within);
            Optional<String> elsewhere = response.headers().firstValue("Location");
            if (response.statusCode() == UNAUTHORIZED) {
                left(response);
                if (byCard) {
                    throw new Expired("refused: " + UNAUTHORIZED);
                }
                if (secret == null || !login.asked(response.headers().allValues("WWW-Authenticate"), said)) {
                    throw Web.unknown(target);
                }
                said = true;
            } else if (response.statusCode() == FORBIDDEN && secret == null) {
                left(response);
                throw Web.unknown(target);
            } else if (elsewhere.isPresent() && response.statusCode() / 100 == 3
                    && response.statusCode() != NOT_MODIFIED) {
                left(response);
                URI next = to.resolve(elsewhere.get());
                if (!to.getHost().equalsIgnoreCase(next.getHost()) || to.getPort() != next.getPort() || !to.getScheme()
                        .equals(next.getScheme())) {
                    throw new IOException("it redirects to another host, " + next.getHost()
                            + "; if that is correct, set it as the address");
                }
                method = response.statusCode() < 307 && !method.equals("HEAD") ? "GET" : method;
                to = next;
            } else {
                return response;
            }
        }
        throw new IOException("it redirects in a circle");
    }

    private static void left(HttpResponse<?> response) throws IOException {
        if (response.body() instanceof InputStream in) {
            in.close();
        }
    }

    private static URI uri(String text) throws IOException {
        try {
            return URI.create(text);
        } catch (IllegalArgumentException e) {
            throw new IOException("“" + text + "” isn't an address: it contains an invalid character", e);
        }
    }

    private HttpRequest request(Order.Outgoing packet, String method, URI to, @Nullable String who, boolean events) {
        HttpRequest.Builder request = HttpRequest.newBuilder(to);
        packet.head().forEach((name, value) -> request.header(name, value.toString()));
        String body = packet.args().stream().map(Value::toString).collect(Collectors.joining());
        Optional<String> type = packet.head().entrySet().stream().filter(e -> e.getKey().equalsIgnoreCase(TYPE)).map(
                e -> e.getValue().toString()).findFirst();
        if (type.isEmpty() && !body.isEmpty()) {
            request.header(TYPE, body.startsWith("{") || body.startsWith("[")
                    ? "application/json"
                    : "text/plain; charset=utf-8");
        } else if (type.filter(t -> t.toLowerCase(Locale.ROOT).startsWith(FORM)).isPresent()) {
            body = form(body);
        }
        if (who != null) {
            request.header("Authorization", who);
        }
        String tag = method.equals("GET") ? tags.get(packet.address()) : null;
        if (events) {
            request.header("Accept", "text/event-stream");
        } else if (tag != null) {
            request.header("If-None-Match", tag);
        }
        return request.method(method, body.isEmpty()
                ? HttpRequest.BodyPublishers.noBody()
                : HttpRequest.BodyPublishers.ofString(body)).build();
    }

    /** The members of a JSON object as a form; any other text as it is. */
    private static String form(String body) {
        try {
            JsonNode tree = JSON.readTree(body);
            return tree.isObject()
                    ? tree.properties().stream().map(e -> encoded(e.getKey()) + "=" + encoded(e.getValue().isString()
                            ? e.getValue().stringValue()
                            : e.getValue().toString())).collect(Collectors.joining("&"))
                    : body;
        } catch (JacksonException e) {
            return body;
        }
    }

    private static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8);
    }

    private <T> HttpResponse<T> send(Over over, HttpRequest request, HttpResponse.BodyHandler<T> body, Duration within)
            throws IOException, InterruptedException {
        String at = HostPort.words(target.hostPort());
        CompletableFuture<HttpResponse<T>> coming = over.client().sendAsync(request, body);
        try {
            HttpResponse<T> response = coming.get(within.toMillis(), TimeUnit.MILLISECONDS);
            if (over.secure() != null) {
                over.secure().shaken();
            }
            return response;
        } catch (TimeoutException e) {
            coming.cancel(true);
            throw new Unreached("no response from " + at + " in time", e);
        } catch (ExecutionException e) {
            for (Throwable why = e; why != null && over.secure() != null; why = why.getCause()) {
                if (why instanceof SSLException) {
                    close(); // What was not trusted may be trusted next time.
                    throw over.secure().refused(why);
                }
            }
            throw new Unreached("no response from " + at, e.getCause());
        }
    }

    /** A client, and how its connections are kept from others. */
    private record Over(HttpClient client, @Nullable Secure secure) {
    }

    private synchronized Over over() throws IOException {
        Over known = present;
        if (known == null) {
            Secure secure = target.secure();
            known = new Over(Web.client(secure), secure);
            present = known;
        }
        return known;
    }

    @Override
    public synchronized void close() {
        Over known = present;
        present = null;
        if (known != null) {
            known.client().shutdownNow();
        }
    }
}
