package rombix.torture;

import com.sun.net.httpserver.HttpServer;
import java.io.File;
import java.io.IOException;
import java.io.OutputStream;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import rombix.wire.osc.OscCodec;
import rombix.wire.osc.OscPacket;
import rombix.wire.osc.OscPacket.TimeTag;

/**
 * A whole Rombix with 300 MB of memory, and gear over five protocols that sends as much as it can, and another program
 * that floods its port for triggers: it stays, it answers commands of a shell, and it ends when it is told to.
 */
final class Floods implements Trial {
    private static final long ROUND_SECONDS = 40;
    private static final long LONGEST_SECONDS = 600;
    private static final String CARD = """
            {"card": 2, "id": "flood", "title": "Flood",
             "readings": [
              {"id": "n", "type": "list", "arrives": {"osc": {"from": "/n"}, "http": {"from": "/list", "at": "/all"}}},
              {"id": "r/{n}", "type": "text", "arrives": {"osc": {"from": "/r/{n}"}}},
              {"id": "last", "type": "text", "arrives": {"line": {"from": "line"}, "websocket": {"from": "text"}, "http": {"from": "/big"}}}],
             "greeting": {"osc": [{"to": "/hello"}], "http": [{"to": "events /endless"}]},
             "polls": {"http": [{"every": 50, "ask": {"to": "GET /big"}}, {"every": 50, "ask": {"to": "GET /list"}}, {"every": 50, "ask": {"to": "GET /error"}}]}}
            """;

    private final AtomicLong sent = new AtomicLong();
    private volatile boolean over;

    @Override
    public String name() {
        return "floods-in-300-mb";
    }

    @Override
    public long whole() {
        return 1;
    }

    @Override
    public double share() {
        return 8;
    }

    @Override
    public Outcome suffer(Budget budget) throws Exception {
        Path folder = Files.createTempDirectory("floods");
        Files.writeString(Files.createDirectory(folder.resolve("cards")).resolve("flood.json"), CARD);
        long seconds = Math.clamp(TimeUnit.NANOSECONDS.toSeconds(budget.leftNanos()), ROUND_SECONDS, LONGEST_SECONDS);
        budget.take();
        over = false;
        List<Thread> floods = new ArrayList<>();
        try (DatagramSocket osc = new DatagramSocket(0, InetAddress.getLoopbackAddress());
                ServerSocket lines = new ServerSocket(0, 5, InetAddress.getLoopbackAddress());
                ServerSocket frames = new ServerSocket(0, 5, InetAddress.getLoopbackAddress())) {
            HttpServer http = http();
            floods.add(started(() -> osc(osc)));
            floods.add(started(() -> serve(lines, this::lines)));
            floods.add(started(() -> serve(frames, this::frames)));
            int triggers = free();
            floods.add(started(() -> triggers(triggers)));
            Path board = board(folder, triggers, Map.of("osc", osc.getLocalPort(), "line", lines.getLocalPort(),
                    "websocket", frames.getLocalPort(), "http", http.getAddress().getPort()));
            run(budget, folder, board, seconds);
            over = true;
            http.stop(0);
        }
        for (Thread t : floods) {
            t.join(TimeUnit.SECONDS.toMillis(5));
        }
        return budget.outcome("%d s, %d MB sent".formatted(seconds, sent.get() >> 20));
    }

    private static void run(Budget budget, Path folder, Path board, long seconds) throws Exception {
        File out = folder.resolve("out.txt").toFile();
        Process whole = rombix(folder, out, "-Xmx300m", "open", board.toString(), "--trust", "--live", "--for", seconds
                + "s");
        try {
            long until = System.nanoTime() + TimeUnit.SECONDS.toNanos(seconds);
            int asked = 0;
            while (whole.isAlive() && System.nanoTime() - until < 0) {
                if (whole.waitFor(10, TimeUnit.SECONDS)) {
                    break;
                }
                Process status = rombix(folder, folder.resolve("status.txt").toFile(), "-Xmx100m", "status", board
                        .toString());
                if (!status.waitFor(60, TimeUnit.SECONDS)) {
                    budget.breach("no answer to a command of a shell for a minute");
                    status.destroyForcibly();
                }
                asked++;
            }
            if (!whole.waitFor(120, TimeUnit.SECONDS)) {
                budget.breach("it did not end after its time");
            } else if (whole.exitValue() != 0 || asked == 0) {
                budget.breach("it ended with " + whole.exitValue() + " after " + asked + " looks: " + tail(out));
            }
            if (Files.readString(out.toPath()).contains("OutOfMemory")) {
                budget.breach("it ran out of memory: " + tail(out));
            }
        } finally {
            whole.destroyForcibly();
        }
    }

    private static String tail(File out) throws IOException {
        String text = Files.readString(out.toPath());
        return text.substring(Math.max(0, text.length() - 800));
    }

    private static Process rombix(Path folder, File out, String memory, String... args) throws IOException {
        List<String> command = new ArrayList<>(List.of(ProcessHandle.current().info().command().orElseThrow(), memory,
                "-Xss16m", "-XX:+UseSerialGC", "--enable-native-access=ALL-UNNAMED",
                "--sun-misc-unsafe-memory-access=allow", "-Dglass.platform=Headless", "-Dprism.order=sw",
                "-Djava.awt.headless=true", "-Drombix.settings=" + folder.resolve("home/settings.properties"), "-cp",
                System
                        .getProperty("java.class.path"),
                "rombix.app.Main"));
        command.addAll(Arrays.asList(args));
        ProcessBuilder builder = new ProcessBuilder(command).redirectErrorStream(true).redirectOutput(out);
        builder.environment().remove("DISPLAY");
        builder.environment().put("XDG_RUNTIME_DIR", folder.toString());
        return builder.start();
    }

    private static Path board(Path folder, int triggers, Map<String, Integer> ports) throws IOException {
        StringBuilder gear = new StringBuilder();
        ports.forEach((protocol, port) -> gear.append(gear.isEmpty() ? "" : ",").append(
                "{\"id\": \"%s\", \"name\": \"%s\", \"card\": \"flood\", \"link\": {\"protocol\": \"%s\", \"address\": \"127.0.0.1:%d\"}}"
                        .formatted(protocol, protocol, protocol, port)));
        return Files.writeString(folder.resolve("b.json"),
                """
                        {"rombix": 1, "name": "B", "oscPort": %d, "gear": [%s], "pages": [{"id": "p", "name": "P", "buttons": [
                         {"id": "b", "name": "B", "column": 0, "row": 0, "triggers": [{"trigger": "osc", "address": "/b"}],
                          "states": [{"id": "s", "name": "S"}]}]}]}"""
                        .formatted(triggers, gear));
    }

    private interface Flood {
        void run() throws Exception;
    }

    private Thread started(Flood flood) {
        return Thread.ofPlatform().daemon().start(() -> {
            try {
                flood.run();
            } catch (Exception e) {
                // The flooded process has ended.
            }
        });
    }

    private static int free() throws IOException {
        try (DatagramSocket socket = new DatagramSocket(0, InetAddress.getLoopbackAddress())) {
            return socket.getLocalPort();
        }
    }

    /** Answers a greeting with readings under new names, as fast as possible. */
    private void osc(DatagramSocket socket) throws IOException {
        byte[] in = new byte[2000];
        ByteBuffer out = ByteBuffer.allocate(60_000);
        String long1 = "x".repeat(8000);
        DatagramPacket hello = new DatagramPacket(in, in.length);
        socket.receive(hello);
        for (long i = 0; !over; i++) {
            out.clear();
            OscCodec.encode(new OscPacket.Message("/r/" + i, i % 10 == 0 ? long1 : "v" + i), out);
            socket.send(new DatagramPacket(out.array(), out.position(), hello.getSocketAddress()));
            sent.addAndGet(out.position());
            if (i % 100_000 == 0) {
                socket.setSoTimeout(50);
                try {
                    socket.receive(hello); // It may have connected anew.
                } catch (IOException e) {
                    // It has not.
                }
            }
        }
    }

    /** Bundles that are dated ahead, for the port where any program of this computer may press buttons. */
    private void triggers(int port) throws IOException {
        ByteBuffer out = ByteBuffer.allocate(60_000);
        List<OscPacket> many = new ArrayList<>();
        for (int i = 0; i < 500; i++) {
            many.add(new OscPacket.Message("/b", "x".repeat(80)));
        }
        try (DatagramSocket socket = new DatagramSocket()) {
            while (!over) {
                out.clear();
                OscCodec.encode(new OscPacket.Bundle(TimeTag.of(Instant.now().plusSeconds(3000)), many), out);
                try {
                    socket.send(new DatagramPacket(out.array(), out.position(), new InetSocketAddress(InetAddress
                            .getLoopbackAddress(), port)));
                } catch (IOException e) {
                    Thread.yield(); // It does not listen yet.
                }
                sent.addAndGet(out.position());
            }
        }
    }

    private interface Serving {
        void to(Socket deck) throws IOException;
    }

    private void serve(ServerSocket at, Serving serving) throws IOException {
        while (!over) {
            Socket deck = at.accept();
            Thread.ofVirtual().start(() -> {
                try (deck) {
                    serving.to(deck);
                } catch (IOException e) {
                    // It has gone.
                }
            });
        }
    }

    private void write(OutputStream out, byte[] bytes) throws IOException {
        out.write(bytes);
        sent.addAndGet(bytes.length);
    }

    private void lines(Socket deck) throws IOException {
        byte[] line = ("=a".repeat(8000) + "\r\n").getBytes(StandardCharsets.US_ASCII);
        byte[] endless = "y".repeat(1 << 20).getBytes(StandardCharsets.US_ASCII);
        for (int i = 0; !over; i++) {
            write(deck.getOutputStream(), i % 1000 == 999 ? endless : line);
        }
    }

    /** Frames of a megabyte (RFC 6455), text and binary in turn. */
    private void frames(Socket deck) throws IOException {
        StringBuilder request = new StringBuilder();
        while (!request.toString().endsWith("\r\n\r\n")) {
            request.append((char) deck.getInputStream().read());
        }
        String key = request.toString().lines().filter(l -> l.toLowerCase(java.util.Locale.ROOT).startsWith(
                "sec-websocket-key:")).findFirst().orElse("").replaceFirst("[^:]*:", "").strip();
        try {
            String accept = Base64.getEncoder().encodeToString(MessageDigest.getInstance("SHA-1").digest((key
                    + "258EAFA5-E914-47DA-95CA-C5AB0DC85B11").getBytes(StandardCharsets.US_ASCII)));
            write(deck.getOutputStream(),
                    ("HTTP/1.1 101 Switching Protocols\r\nUpgrade: websocket\r\nConnection: Upgrade\r\nSec-WebSocket-Accept: "
                            + accept + "\r\n\r\n").getBytes(StandardCharsets.US_ASCII));
        } catch (GeneralSecurityException e) {
            throw new IOException(e);
        }
        ByteBuffer frame = ByteBuffer.allocate((1 << 20) + 10);
        for (int i = 0; !over; i++) {
            frame.clear();
            frame.put((byte) (i % 2 == 0 ? 0x81 : 0x82)).put((byte) 127).putLong(1 << 20);
            Arrays.fill(frame.array(), 10, frame.capacity(), (byte) 'z');
            write(deck.getOutputStream(), frame.array());
        }
    }

    private HttpServer http() throws IOException {
        HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        byte[] big = "<".repeat((4 << 20) - 1).getBytes(StandardCharsets.US_ASCII);
        AtomicLong number = new AtomicLong();
        server.createContext("/", exchange -> {
            try (exchange) {
                String path = exchange.getRequestURI().getPath();
                if (path.equals("/endless")) {
                    exchange.sendResponseHeaders(200, 0);
                    byte[] line = ("data: " + "x".repeat(100_000) + "\n").getBytes(StandardCharsets.US_ASCII);
                    while (!over) {
                        write(exchange.getResponseBody(), line);
                    }
                } else if (path.equals("/list")) {
                    StringBuilder all = new StringBuilder("{\"all\": [");
                    for (int i = 0; i < 50_000; i++) {
                        all.append(i == 0 ? "" : ",").append("\"item ").append(number.incrementAndGet()).append('"');
                    }
                    byte[] bytes = all.append("]}").toString().getBytes(StandardCharsets.US_ASCII);
                    exchange.sendResponseHeaders(200, bytes.length);
                    write(exchange.getResponseBody(), bytes);
                } else {
                    exchange.sendResponseHeaders(path.equals("/error") ? 500 : 200, big.length);
                    write(exchange.getResponseBody(), big);
                }
            }
        });
        server.setExecutor(Executors.newVirtualThreadPerTaskExecutor());
        server.start();
        return server;
    }
}
