package rombix.standins;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * The head of the gate camera, over HTTP with a digest login: {@code GET /state} and {@code /presets},
 * {@code POST /presets/ID/recall}, {@code PUT /position}, {@code /zoom} and {@code /tracking}; {@code /events} is a
 * stream of its state. Its state has a tag, so that it need not be sent twice.
 */
public final class CameraHead implements AutoCloseable {
    private static final JsonMapper JSON = new JsonMapper();
    private static final Map<String, double[]> PRESETS = presets();
    public static final Map<String, String> NAMES = new TreeMap<>(
            Map.of("1", "Gate", "2", "Walkway", "3", "Dome door", "4",
                    "Car park"));
    private static final Pattern RECALL = Pattern.compile("/presets/([^/]+)/recall");
    private static final String NONCE = "b1f7-larkmoor";

    /** Where it describes itself for whoever searches. */
    public static final String DESCRIPTION = "/description.xml";
    private static final String ABOUT = """
            <?xml version="1.0"?>
            <root xmlns="urn:schemas-upnp-org:device-1-0"><device>
              <friendlyName>Gate camera head</friendlyName>
              <manufacturer>Larkmoor workshop</manufacturer>
              <modelName>stand-in</modelName>
            </device></root>
            """;

    private final HttpServer server;
    private final Received came = new Received();
    private final ExecutorService threads = Executors.newVirtualThreadPerTaskExecutor();
    private final List<BlockingQueue<String>> watching = new CopyOnWriteArrayList<>();
    private double pan;
    private double tilt = -5;
    private double zoom = 1;
    private boolean tracking;
    private String preset = "1";
    private int requests;

    /** @param port 0 for any free one */
    public CameraHead(int port) throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), port), 0);
        server.createContext("/", this::serve);
        server.setExecutor(threads);
        server.start();
    }

    private static Map<String, double[]> presets() {
        Map<String, double[]> all = new LinkedHashMap<>();
        all.put("1", new double[]{0, -5, 1});
        all.put("2", new double[]{42, -12, 2});
        all.put("3", new double[]{-88.5, 4, 3.5});
        all.put("4", new double[]{120, -20, 1.5});
        return all;
    }

    public int port() {
        return server.getAddress().getPort();
    }

    public synchronized String preset() {
        return preset;
    }

    public synchronized double pan() {
        return pan;
    }

    public synchronized boolean tracking() {
        return tracking;
    }

    /** What came. */
    public Received received() {
        return came;
    }

    public synchronized double tilt() {
        return tilt;
    }

    public synchronized double zoom() {
        return zoom;
    }

    /** Works it by hand, with a request of its own kind. */
    public void work(String method, String path, String body) {
        if (changed(method, path, body) == null) {
            tell();
        }
    }

    /** How many requests were let in. */
    public synchronized int requests() {
        return requests;
    }

    /** Turns it by hand. */
    public void turn(double to) {
        synchronized (this) {
            pan = to;
            preset = "";
        }
        tell();
    }

    private void serve(HttpExchange exchange) throws IOException {
        try (exchange) {
            if (exchange.getRequestURI().getPath().equals(DESCRIPTION)) {
                answer(exchange, 200, ABOUT);
                return;
            }
            if (!known(exchange)) {
                exchange.getResponseHeaders().add("WWW-Authenticate",
                        "Digest realm=\"camera head\", nonce=\"" + NONCE + "\", qop=\"auth\", algorithm=MD5");
                answer(exchange, 401, "{\"why\": \"who is there?\"}");
                return;
            }
            synchronized (this) {
                requests++;
            }
            String path = exchange.getRequestURI().getPath();
            came.add(exchange.getRequestMethod() + " " + path);
            switch (exchange.getRequestMethod() + " " + path) {
                case "GET /state" -> state(exchange);
                case "GET /presets" -> answer(exchange, 200, listed());
                case "GET /events" -> events(exchange);
                default -> change(exchange, path);
            }
        }
    }

    private static boolean known(HttpExchange exchange) {
        String said = exchange.getRequestHeaders().getFirst("Authorization");
        if (said == null || !said.startsWith("Digest ")) {
            return false;
        }
        Map<String, String> params = new LinkedHashMap<>();
        Matcher m = Pattern.compile("(\\w+)=\"?([^\",]*)\"?").matcher(said);
        while (m.find()) {
            params.put(m.group(1), m.group(2));
        }
        String first = DemoLogin.md5(DemoLogin.USER + ":camera head:" + DemoLogin.WORD);
        String second = DemoLogin.md5(exchange.getRequestMethod() + ":" + params.get("uri"));
        String expected = DemoLogin
                .md5(first + ":" + NONCE + ":" + params.get("nc") + ":" + params.get("cnonce") + ":auth:"
                        + second);
        return NONCE.equals(params.get("nonce")) && expected.equals(params.get("response"));
    }

    private synchronized String text() {
        return "{\"preset\": \"%s\", \"pan\": %s, \"tilt\": %s, \"zoom\": %s, \"tracking\": %s}".formatted(preset, pan,
                tilt, zoom, tracking);
    }

    private static String listed() {
        List<String> all = new ArrayList<>();
        PRESETS.keySet().forEach(id -> all.add("{\"id\": \"%s\", \"name\": \"%s\"}".formatted(id, NAMES.get(id))));
        return "{\"presets\": [" + String.join(", ", all) + "]}";
    }

    private void state(HttpExchange exchange) throws IOException {
        String text = text();
        String tag = "\"" + Integer.toHexString(text.hashCode()) + "\"";
        exchange.getResponseHeaders().add("ETag", tag);
        if (tag.equals(exchange.getRequestHeaders().getFirst("If-None-Match"))) {
            exchange.sendResponseHeaders(304, -1);
        } else {
            answer(exchange, 200, text);
        }
    }

    private void events(HttpExchange exchange) throws IOException {
        BlockingQueue<String> changes = new LinkedBlockingQueue<>();
        watching.add(changes);
        exchange.getResponseHeaders().add("Content-Type", "text/event-stream");
        exchange.sendResponseHeaders(200, 0);
        try (OutputStream out = exchange.getResponseBody()) {
            for (String next = text(); !threads.isShutdown(); next = changes.poll(2, TimeUnit.SECONDS)) {
                out.write((next == null ? ": still here\n\n" : "event: state\ndata: " + next + "\n\n").getBytes(
                        StandardCharsets.UTF_8));
                out.flush();
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        } finally {
            watching.remove(changes);
        }
    }

    private synchronized void tell() {
        String now = text();
        watching.forEach(w -> w.add(now));
    }

    private void change(HttpExchange exchange, String path) throws IOException {
        String body = new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8);
        String why = changed(exchange.getRequestMethod(), path, body);
        if (why == null) {
            tell();
            answer(exchange, 200, text());
        } else {
            answer(exchange, why.startsWith("no ") ? 404 : 400, why);
        }
    }

    private synchronized @Nullable String changed(String method, String path, String body) {
        Matcher recall = RECALL.matcher(path);
        if (method.equals("POST") && recall.matches()) {
            double[] to = PRESETS.get(recall.group(1));
            if (to == null) {
                return "no preset " + recall.group(1);
            }
            pan = to[0];
            tilt = to[1];
            zoom = to[2];
            preset = recall.group(1);
            return null;
        }
        try {
            JsonNode tree = JSON.readTree(body);
            switch (method + " " + path) {
                case "PUT /position" -> {
                    pan = Math.clamp(tree.path("pan").asDouble(pan), -170, 170);
                    tilt = Math.clamp(tree.path("tilt").asDouble(tilt), -30, 90);
                    preset = "";
                }
                case "PUT /zoom" -> zoom = Math.clamp(tree.path("zoom").asDouble(zoom), 1, 12);
                case "PUT /tracking" -> tracking = tree.path("on").asBoolean(tracking);
                default -> {
                    return "no such path";
                }
            }
            return null;
        } catch (JacksonException e) {
            return "that isn't JSON";
        }
    }

    private static void answer(HttpExchange exchange, int status, String text) throws IOException {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        exchange.getResponseHeaders().add("Content-Type", "application/json");
        exchange.sendResponseHeaders(status, bytes.length);
        exchange.getResponseBody().write(bytes);
    }

    @Override
    public void close() {
        server.stop(0);
        threads.shutdownNow();
    }
}
