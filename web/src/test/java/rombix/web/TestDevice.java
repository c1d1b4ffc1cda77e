package rombix.web;

import static org.awaitility.Awaitility.await;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.WebSocket;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.CompletionStage;
import java.util.concurrent.CopyOnWriteArrayList;
import org.jspecify.annotations.Nullable;
import rombix.web.json.WebJson;
import tools.jackson.databind.JsonNode;

/** A browser, as far as the server sees one. */
final class TestDevice implements AutoCloseable {
    static final HttpClient CLIENT = HttpClient.newHttpClient();

    private final String address;
    private final String origin;
    /** What came, in the order in which it came. */
    private final List<JsonNode> messages = new CopyOnWriteArrayList<>();
    private @Nullable WebSocket socket;
    volatile int closedWith = -1;
    String cookie = "";

    TestDevice(String address) {
        this.address = address;
        origin = address.substring(0, address.length() - 1);
    }

    HttpResponse<String> get(String path) throws Exception {
        return CLIENT.send(request(path).GET().build(), HttpResponse.BodyHandlers.ofString());
    }

    HttpRequest.Builder request(String path) {
        HttpRequest.Builder made = HttpRequest.newBuilder(URI.create(address + path.substring(1))).timeout(Duration
                .ofSeconds(20));
        return cookie.isEmpty() ? made : made.header("Cookie", cookie);
    }

    HttpResponse<String> join(String code, String name) throws Exception {
        HttpResponse<String> answer = CLIENT.send(request("/join").header("Origin", origin).POST(
                HttpRequest.BodyPublishers.ofString(WebJson.text(Map.of("code", code, "name", name)))).build(),
                HttpResponse.BodyHandlers.ofString());
        answer.headers().firstValue("set-cookie").ifPresent(c -> cookie = c.split(";")[0]);
        return answer;
    }

    TestDevice open() {
        return open(origin);
    }

    TestDevice open(String from) {
        WebSocket.Builder builder = CLIENT.newWebSocketBuilder().connectTimeout(Duration.ofSeconds(10)).header("Origin",
                from);
        if (!cookie.isEmpty()) {
            builder.header("Cookie", cookie);
        }
        socket = builder.buildAsync(URI.create(address.replace("http", "ws") + "live"), new Heard()).join();
        return this;
    }

    private final class Heard implements WebSocket.Listener {
        private final StringBuilder text = new StringBuilder();

        @Override
        public @Nullable CompletionStage<?> onText(WebSocket from, CharSequence data, boolean last) {
            text.append(data);
            if (last) {
                messages.add(WebJson.MAPPER.readTree(text.toString()));
                text.setLength(0);
            }
            from.request(1);
            return null;
        }

        @Override
        public @Nullable CompletionStage<?> onClose(WebSocket from, int status, String reason) {
            closedWith = status;
            return null;
        }

        @Override
        public void onError(WebSocket from, Throwable error) {
            closedWith = 0;
        }
    }

    void say(Map<String, ?> message) {
        say(WebJson.text(message));
    }

    void say(String text) {
        java.util.Objects.requireNonNull(socket).sendText(text, true).join();
    }

    /** Ends the connection without a word, as a network that is pulled does, as far as one process can. */
    void abort() {
        java.util.Objects.requireNonNull(socket).abort();
    }

    /** All faces as they are by now. */
    Map<String, JsonNode> faces() {
        Map<String, JsonNode> faces = new HashMap<>();
        messages.forEach(m -> m.path("faces").properties().forEach(f -> faces.put(f.getKey(), f.getValue())));
        return faces;
    }

    int count() {
        return messages.size();
    }

    /** What came after the first so many messages, as text. */
    String since(int from) {
        return messages.subList(from, messages.size()).toString();
    }

    /** The last message's part of a kind; a missing node where none came. */
    JsonNode last(String part) {
        return messages.stream().map(m -> m.path(part)).filter(p -> !p.isMissingNode()).reduce((_, b) -> b).orElse(
                WebJson.MAPPER.missingNode());
    }

    List<String> pages() {
        List<String> pages = new ArrayList<>();
        last("board").path("pages").forEach(p -> pages.add(p.path("id").asString()));
        return pages;
    }

    static void soon(Callable<Boolean> so) {
        await().atMost(Duration.ofSeconds(30)).pollInterval(Duration.ofMillis(5)).until(so);
    }

    @Override
    public void close() {
        if (socket != null) {
            socket.abort();
        }
    }
}
