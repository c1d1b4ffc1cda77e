package rombix.links;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.links.link.GearUnderTest.soon;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ExecutionMode;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import rombix.core.board.Gear;
import rombix.core.card.Card;
import rombix.core.card.Protocol;
import rombix.core.card.value.As;
import rombix.core.event.Event;
import rombix.core.store.BadFile;
import rombix.core.store.CardLibrary;
import rombix.core.twin.Order;
import rombix.core.twin.Twin;
import rombix.core.value.Limits;
import rombix.core.value.Value;
import rombix.links.http.Http;
import rombix.links.line.Line;
import rombix.links.link.GearReport;
import rombix.links.link.GearUnderTest;
import rombix.links.link.Keyring;
import rombix.links.link.LinkType;
import rombix.links.link.StandInGear;
import rombix.links.websocket.WebSockets;

/** Gear that sends as much as it can, or what nobody can read: each of these held a thread or the memory for ever. */
@Timeout(300)
@Execution(ExecutionMode.CONCURRENT)
class HostileGearTest {
    private interface Answering {
        void answer(HttpExchange to) throws IOException;
    }

    private static HttpServer server(Answering answering) throws IOException {
        HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext("/", exchange -> {
            try (exchange) {
                answering.answer(exchange);
            }
        });
        server.setExecutor(Executors.newVirtualThreadPerTaskExecutor());
        server.start();
        return server;
    }

    private static GearUnderTest gear(LinkType type, String inner, int port, UnaryOperator<Gear.Link> set)
            throws BadFile {
        Card card = CardLibrary.read(Path.of("x.json"),
                "{\"card\": 2, \"id\": \"x\", \"title\": \"X\", " + inner + "}");
        return StandInGear.of(type, card, "127.0.0.1:" + port, set);
    }

    private static final String GET = "\"commands\": [{\"id\": \"get\", \"send\": {\"http\": [{\"to\": \"GET /\"}]}}]";

    @ParameterizedTest
    @ValueSource(strings = {"<", "a", " "})
    void anErrorOfFourMillionLettersIsQuotedShortly(String letter) throws Exception {
        byte[] body = letter.repeat(Limits.MESSAGE - 1).getBytes(StandardCharsets.US_ASCII);
        HttpServer server = server(to -> {
            to.sendResponseHeaders(500, body.length);
            to.getResponseBody().write(body);
        });
        try (GearUnderTest gear = gear(new Http(), GET, server.getAddress().getPort(), l -> l)) {
            assertThat(gear.done("get")).startsWith("Gear: refused: 500").hasSizeLessThan(300);
        } finally {
            server.stop(0);
        }
    }

    @Test
    void aLoginChallengeOfAnyLengthIsAnsweredOrRefused() throws Exception {
        String long1 = "Digest realm=\"" + "\\a".repeat(80_000) + "\", nonce=\"n\"";
        HttpServer server = server(to -> {
            to.getResponseHeaders().add("WWW-Authenticate", long1);
            to.sendResponseHeaders(401, -1);
        });
        try (GearUnderTest gear = gear(new Http(), GET, server.getAddress().getPort(),
                l -> l.withUser("booth").withSecret(
                        "wrong"))) {
            assertThat(gear.done("get")).contains("connected, but the login was refused");
        } finally {
            server.stop(0);
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"lichén-and-granite", "lichen-and-granite"})
    void aTokenIsNeitherInTheFaultNorInAReadingThoughGearEchoesIt(String token) throws Exception {
        HttpServer server = server(to -> {
            String said = "{\"you\": \"" + to.getRequestHeaders().getFirst("Authorization") + "\"}";
            to.sendResponseHeaders(to.getRequestURI().getPath().equals("/bad") ? 500 : 200, said.length());
            to.getResponseBody().write(said.getBytes(StandardCharsets.US_ASCII));
        });
        Keyring keys = new Keyring() {
            @Override
            public Optional<String> secret(String name) {
                return Optional.of(token);
            }

            @Override
            public Optional<String> firstSeen(String address) {
                return Optional.empty();
            }

            @Override
            public void seen(String address, String fingerprint) {
                // Nothing is kept.
            }
        };
        Card card = CardLibrary.read(Path.of("x.json"),
                """
                        {"card": 2, "id": "x", "title": "X",
                         "readings": [{"id": "you", "type": "text", "arrives": {"http": {"from": "/good", "at": "/you"}}}],
                         "commands": [{"id": "bad", "send": {"http": [{"to": "GET /bad"}]}}, {"id": "good", "send": {"http": [{"to": "GET /good"}]}}]}""");
        try (GearUnderTest gear = new GearUnderTest(new Http(), card, "127.0.0.1:" + server.getAddress().getPort(), Map
                .of(), keys, l -> l.withSecret("desk").withSetting("login", Value.of("bearer token")))) {
            assertThat(gear.done("bad")).doesNotContain("granite").startsWith("Gear: ");
            if (gear.done("good").equals("sent")) {
                soon(() -> gear.now("you") != null);
                assertThat(gear.now("you")).hasToString("Bearer (secret “desk”)");
            } else {
                assertThat(gear.done("good")).contains("a bearer token can't have");
            }
        } finally {
            server.stop(0);
        }
    }

    @Test
    void aStreamWithAnEventThatNeverEndsIsLeft() throws Exception {
        AtomicInteger asked = new AtomicInteger();
        HttpServer server = server(to -> {
            asked.incrementAndGet();
            to.sendResponseHeaders(200, 0);
            byte[] line = ("data: " + "x".repeat(100_000) + "\n").getBytes(StandardCharsets.US_ASCII);
            for (int i = 0; i < 100; i++) {
                to.getResponseBody().write(line);
            }
        });
        try (GearUnderTest gear = gear(new Http(),
                "\"greeting\": {\"http\": [{\"to\": \"events /e\"}]}, \"readings\": [{\"id\": \"r\", \"type\": \"text\", \"arrives\": {\"http\": {\"from\": \"events /e\"}}}]",
                server.getAddress().getPort(), l -> l)) {
            soon(() -> asked.get() > 1);
            assertThat(gear.now("r")).isNull();
        } finally {
            server.stop(0);
        }
    }

    @Test
    void ofAMillionReadingsOneGearKeepsAsManyAsThereIsRoomFor() throws Exception {
        Card card = CardLibrary.read(Path.of("x.json"),
                """
                        {"card": 2, "id": "x", "title": "X",
                         "readings": [{"id": "n", "type": "list", "arrives": {"osc": {"from": "/n"}}}, {"id": "r/{n}", "type": "text", "arrives": {"osc": {"from": "/r/{n}"}}}]}""");
        AtomicInteger came = new AtomicInteger();
        GearReport report = new GearReport(new Twin("x", "X", card, Protocol.of("osc"), Map.of()), new MachineClock(),
                e -> {
                    if (e instanceof Event.Came) {
                        came.incrementAndGet();
                    }
                });
        for (int i = 0; i < 3 * Limits.READINGS; i++) {
            report.landed("/r/" + i, List.of(Value.of("x")));
        }
        assertThat(came.get()).isEqualTo(Limits.READINGS);
        assertThat(report.status().ignored()).isEqualTo(2 * Limits.READINGS);
        report.landed("/r/1", List.of(Value.of("y")));
        assertThat(came.get()).isEqualTo(Limits.READINGS + 1);
        report.landed("/r/1", List.of(Value.of("y".repeat(Limits.READINGS_TEXT))));
        assertThat(came.get()).isEqualTo(Limits.READINGS + 1);
    }

    /** A message in pieces came as several. */
    @Test
    void aBinaryMessageInPiecesIsOne() throws Exception {
        try (ServerSocket listening = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            Thread server = Thread.ofVirtual().start(() -> {
                try (Socket deck = listening.accept()) {
                    shake(deck);
                    deck.getOutputStream().write(new byte[]{0x02, 2, 0x7d, 0x01, 0x00, 1, 0x05, (byte) 0x80, 1, 0x06});
                    deck.getOutputStream().flush();
                    deck.getInputStream().readAllBytes();
                } catch (IOException e) {
                    // The deck has gone.
                }
            });
            try (GearUnderTest gear = gear(new WebSockets(),
                    "\"readings\": [{\"id\": \"r\", \"type\": \"text\", \"arrives\": {\"websocket\": {\"from\": \"bytes\"}}}]",
                    listening.getLocalPort(), l -> l)) {
                soon(() -> Value.of("7d010506").equals(gear.now("r")));
            }
            listening.close();
            server.join();
        }
    }

    private static void shake(Socket deck) throws IOException {
        InputStream in = deck.getInputStream();
        StringBuilder request = new StringBuilder();
        while (!request.toString().endsWith("\r\n\r\n")) {
            request.append((char) in.read());
        }
        String key = request.toString().lines().filter(l -> l.toLowerCase(java.util.Locale.ROOT).startsWith(
                "sec-websocket-key:")).findFirst().orElseThrow().substring(18).strip();
        try {
            String accept = Base64.getEncoder().encodeToString(MessageDigest.getInstance("SHA-1").digest((key
                    + "258EAFA5-E914-47DA-95CA-C5AB0DC85B11").getBytes(StandardCharsets.US_ASCII))); // RFC 6455, 1.3
            OutputStream out = deck.getOutputStream();
            out.write(
                    ("HTTP/1.1 101 Switching Protocols\r\nUpgrade: websocket\r\nConnection: Upgrade\r\nSec-WebSocket-Accept: "
                            + accept + "\r\n\r\n").getBytes(StandardCharsets.US_ASCII));
            out.flush();
        } catch (java.security.NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }

    private static Order throwing(String address) {
        Card.Command command = new Card.Command("c", new rombix.core.value.Template("c"), List.of(), List.of(),
                Map.of(),
                List.of(), null, null, null, null, List.of());
        return new Order("gear", command, Map.of(), "c",
                List.of(new Order.Outgoing(address, List.of(Value.of("x")), List
                        .of(As.PLAIN), Map.of(), 0, null, _ -> {
                            throw new StackOverflowError();
                        })),
                Map.of(), Set.of());
    }

    /** The step waited for ever, and with it all that was to be sent behind it. */
    @Test
    void whateverIsThrownAsAnOrderGoesOutEndsItWithAFaultAndTheNextOneGoes() throws Exception {
        HttpServer server = server(to -> to.sendResponseHeaders(200, -1));
        try (GearUnderTest gear = gear(new Http(), GET, server.getAddress().getPort(), l -> l)) {
            gear.link().send(1000, throwing("GET /"));
            assertThat(gear.answer(1000)).contains("nested too deeply");
            assertThat(gear.done("get")).isEqualTo("sent");
        } finally {
            server.stop(0);
        }
        try (ServerSocket listening = new ServerSocket(0, 1, InetAddress.getLoopbackAddress());
                GearUnderTest gear = gear(new Line(),
                        "\"commands\": [{\"id\": \"go\", \"send\": {\"line\": [{\"to\": \"line\", \"args\": [\"GO\"]}]}}]",
                        listening.getLocalPort(), l -> l);
                Socket deck = listening.accept()) {
            gear.ready();
            gear.link().send(1000, throwing("line"));
            assertThat(gear.answer(1000)).contains("nested too deeply");
            assertThat(gear.done("go")).isEqualTo("sent");
            assertThat(deck.isConnected()).isTrue();
        }
    }
}
