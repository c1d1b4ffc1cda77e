package rombix.links.cookbook;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.links.cookbook.CookbookStreamsTest.card;
import static rombix.links.link.GearUnderTest.soon;

import com.hivemq.client.mqtt.MqttClient;
import com.hivemq.client.mqtt.datatypes.MqttQos;
import com.hivemq.client.mqtt.mqtt3.Mqtt3BlockingClient;
import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.SocketAddress;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.parallel.ResourceLock;
import rombix.core.board.Board;
import rombix.core.board.Gear;
import rombix.core.board.Rig;
import rombix.core.card.Card;
import rombix.core.card.Protocol;
import rombix.core.event.Status.Phase;
import rombix.core.patch.Fixture;
import rombix.core.twin.Twin;
import rombix.core.value.Value;
import rombix.links.MachineClock;
import rombix.links.dmx.ArtNet;
import rombix.links.http.Http;
import rombix.links.irc.Irc;
import rombix.links.link.GearReport;
import rombix.links.link.GearUnderTest;
import rombix.links.link.Link;
import rombix.links.link.LinkType;
import rombix.links.link.StandInGear;
import rombix.links.link.Target;
import rombix.links.midi.Midi;
import rombix.links.mqtt.Mqtt;
import rombix.links.osc.Osc;
import rombix.links.websocket.WebSockets;
import rombix.standins.DemoLogin;
import rombix.standins.House;
import rombix.standins.midi.CableProvider;
import rombix.wire.dmx.ArtNetPacket;
import rombix.wire.osc.OscCodec;
import rombix.wire.osc.OscPacket;

/** The cards of the cookbook that speak in messages, each with a small gear of its kind. */
@Timeout(300)
@ResourceLock("MIDI ports")
class CookbookTest {
    private static GearUnderTest gear(LinkType type, String name, String address) throws Exception {
        return StandInGear.of(type, card(name), address, link -> link.withUser("booth").withSecret(DemoLogin.SECRET));
    }

    private static byte[] text(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    @Test
    void aSwitcherWithASaltedLogin() throws Exception {
        AtomicInteger scenes = new AtomicInteger(2);
        List<String> shown = new ArrayList<>();
        try (Peer peer = new Peer(Peer.Saying.WHOLE, () -> new WebSocketTalk("""
                {"hello": "switcher", "salt": "x7", "challenge": "q9"}""", asked -> {
            if (asked.contains("login")) {
                boolean in = asked.contains(proof());
                return List.of(in ? "{\"welcome\": true}" : "{\"welcome\": false, \"why\": \"wrong\"}");
            }
            String id = asked.replaceAll(".*\"id\":(\\d+).*", "$1");
            if (asked.contains("\"ask\"")) {
                StringBuilder all = new StringBuilder("{\"name\": \"Wide\"}");
                for (int i = 1; i < scenes.get(); i++) {
                    all.append(", {\"name\": \"Close ").append(i).append("\"}");
                }
                return List.of("{\"id\": " + id + ", \"ok\": true, \"reply\": {\"shown\": \"Wide\", \"scenes\": [" + all
                        + "]}}");
            }
            if (asked.contains("\"Nowhere\"")) {
                return List.of("{\"id\": " + id + ", \"ok\": false, \"code\": 3}");
            }
            if (asked.contains("\"key\"")) {
                return List.of("{\"id\": " + id + ", \"ok\": true}", "{\"event\": \"key-moved\", \"level\": " + asked
                        .replaceAll(".*\"level\":(\\d+).*", "$1") + "}");
            }
            shown.add(asked);
            return List.of("{\"event\": \"scene-shown\", \"scene\": \"Close 1\"}",
                    "{\"id\": " + id + ", \"ok\": true}");
        })); GearUnderTest gear = gear(new WebSockets(), "switcher", peer.address()).ready()) {
            soon(() -> gear.now("scene") instanceof Value.Choices c && c.choices().size() == 2);
            assertThat(gear.done("show", "scene", "Close 1")).isEqualTo("sent");
            soon(() -> Value.of("Close 1").equals(gear.now("on-air")));
            assertThat(gear.done("show", "scene", "Nowhere")).isEqualTo("Gear: refused: there is no such scene");
            assertThat(gear.done("key", "level", 50)).isEqualTo("sent");
            soon(() -> gear.now("key-level") != null && Math.abs(gear.now("key-level").asNumber() - 50.2) < 0.01);
            scenes.set(4);
            peer.tell(WebSocketTalk.frame("{\"event\": \"scenes-changed\"}"));
            soon(() -> gear.now("scene") instanceof Value.Choices c && c.choices().size() == 4);
            peer.tell(WebSocketTalk.frame("{\"event\": \"session-over\"}"));
            assertThat(gear.done("show", "scene", "Close 1")).isEqualTo("sent");
        }
    }

    private static String proof() {
        try {
            java.security.MessageDigest sha = java.security.MessageDigest.getInstance("SHA-256");
            String secret = DemoLogin.secret(DemoLogin.SECRET).orElseThrow();
            String salted = Base64.getEncoder().encodeToString(sha.digest(text(secret + "x7")));
            return Base64.getEncoder().encodeToString(sha.digest(text(salted + "q9")));
        } catch (java.security.GeneralSecurityException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Tells what it was asked, and what changes to those who have subscribed. */
    @Test
    void aMixerWithRenewalsAndAFaderLaw() throws Exception {
        Map<String, Object> values = new ConcurrentHashMap<>(Map.of("/ch/1/fader", 0.5f, "/ch/1/on", 1, "/ch/2/fader",
                0.25f, "/ch/2/on", 0));
        AtomicInteger subscribed = new AtomicInteger();
        try (DatagramSocket mixer = new DatagramSocket(0, InetAddress.getLoopbackAddress())) {
            Thread.startVirtualThread(() -> serve(mixer, values, subscribed));
            try (GearUnderTest gear = gear(new Osc(), "mixer", "127.0.0.1:" + mixer.getLocalPort()).ready()) {
                soon(() -> Value.of(-10).equals(gear.now("level/host"))
                        && Value.of(-30).equals(gear.now("level/guest")));
                soon(() -> Value.of(false).equals(gear.now("on/guest")));
                soon(() -> subscribed.get() > 0);
                gear.done("level", "channel", "host", "level", 0);
                soon(() -> Float.valueOf(0.75f).equals(values.get("/ch/1/fader")));
                soon(() -> Value.of(0).equals(gear.now("level/host")));
                gear.done("mute", "channel", "host");
                soon(() -> Value.of(false).equals(gear.now("on/host")));
            }
        }
    }

    private static void serve(DatagramSocket mixer, Map<String, Object> values, AtomicInteger subscribed) {
        DatagramPacket in = new DatagramPacket(new byte[1500], 1500);
        while (!mixer.isClosed()) {
            try {
                mixer.receive(in);
                OscPacket.Message m = (OscPacket.Message) OscCodec
                        .decode(ByteBuffer.wrap(in.getData(), 0, in.getLength()));
                if (m.address().equals("/subscribe")) {
                    subscribed.incrementAndGet();
                    continue;
                }
                if (!m.args().isEmpty()) {
                    values.put(m.address(), m.args().getFirst());
                }
                ByteBuffer out = ByteBuffer.allocate(200);
                OscCodec.encode(new OscPacket.Message(m.address(), values.getOrDefault(m.address(), 0)), out);
                SocketAddress to = in.getSocketAddress();
                mixer.send(new DatagramPacket(out.array(), out.position(), to));
            } catch (IOException | rombix.wire.Malformed e) {
                // Closed.
            }
        }
    }

    @Test
    void aHubWithATokenThatExpiresAndEvents() throws Exception {
        AtomicInteger token = new AtomicInteger();
        AtomicInteger valid = new AtomicInteger();
        Map<String, Boolean> lamps = new ConcurrentHashMap<>(Map.of("desk", true));
        BlockingQueue<String> events = new LinkedBlockingQueue<>();
        CountDownLatch over = new CountDownLatch(1);
        ExecutorService threads = Executors.newVirtualThreadPerTaskExecutor();
        HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.setExecutor(threads);
        server.createContext("/token", x -> {
            String asked = new String(x.getRequestBody().readAllBytes(), StandardCharsets.UTF_8);
            boolean in = asked.contains("booth") && asked.contains(DemoLogin.secret(DemoLogin.SECRET).orElseThrow());
            valid.set(token.incrementAndGet());
            answer(x, in ? 200 : 403, in ? "{\"token\": \"t" + token.get() + "\"}" : "who are you?");
        });
        server.createContext("/lamps", x -> {
            if (!("Bearer t" + valid.get()).equals(x.getRequestHeaders().getFirst("Authorization"))) {
                answer(x, 401, "expired");
                return;
            }
            String path = x.getRequestURI().getPath();
            if (x.getRequestMethod().equals("PUT")) {
                String body = new String(x.getRequestBody().readAllBytes(), StandardCharsets.UTF_8);
                lamps.put(path.substring(7), body.contains("true"));
                events.add("{\"lamp\": \"" + path.substring(7) + "\", \"on\": " + body.contains("true") + "}");
                answer(x, 200, "{}");
                return;
            }
            answer(x, 200, "[" + String.join(", ", lamps.entrySet().stream().map(e -> "{\"id\": \"" + e.getKey()
                    + "\", \"name\": \"The " + e.getKey() + "\", \"on\": " + e.getValue() + "}").toList()) + "]");
        });
        server.createContext("/events", x -> {
            x.sendResponseHeaders(200, 0);
            try (OutputStream out = x.getResponseBody()) {
                while (over.getCount() > 0) {
                    String next = events.poll(20, TimeUnit.MILLISECONDS);
                    out.write(text(next == null ? ": still here\n" : "data: " + next + "\n\n"));
                    out.flush();
                }
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        });
        server.start();
        try (GearUnderTest gear = gear(new Http(), "hub", "127.0.0.1:" + server.getAddress().getPort()).ready()) {
            soon(() -> Value.of(true).equals(gear.now("on/desk")));
            assertThat(gear.done("switch", "lamp", "desk", "on", false)).isEqualTo("sent");
            soon(() -> Value.of(false).equals(gear.now("on/desk")));
            valid.set(-1);
            assertThat(gear.done("switch", "lamp", "desk", "on", true)).isEqualTo("sent");
            soon(() -> Value.of(true).equals(gear.now("on/desk")));
            lamps.put("dome", false);
            events.add("{\"changed\": \"lamps\"}");
            soon(() -> Value.of(false).equals(gear.now("on/dome")));
            assertThat(gear.status().phase()).isEqualTo(Phase.READY);
        } finally {
            over.countDown();
            server.stop(0);
            threads.shutdownNow();
        }
    }

    private static void answer(HttpExchange x, int status, String text) throws IOException {
        byte[] bytes = text(text);
        x.getRequestBody().readAllBytes();
        x.sendResponseHeaders(status, bytes.length);
        x.getResponseBody().write(bytes);
        x.close();
    }

    @Test
    void bulbsWithColourOverABroker() throws Exception {
        try (House house = new House(0)) {
            Mqtt3BlockingClient bulb = MqttClient.builder().useMqttVersion3().serverHost("127.0.0.1").serverPort(house
                    .port()).simpleAuth().username("booth")
                    .password(text(DemoLogin.secret(DemoLogin.SECRET).orElseThrow()))
                    .applySimpleAuth().buildBlocking();
            bulb.connect();
            BlockingQueue<String> told = new LinkedBlockingQueue<>();
            bulb.toAsync().subscribeWith().topicFilter("bulbs/+/set").callback(p -> told.add(p.getTopic() + " "
                    + new String(p.getPayloadAsBytes(), StandardCharsets.UTF_8))).send().join();
            bulb.toAsync().subscribeWith().topicFilter("bulbs/+/get").callback(p -> bulb.toAsync().publishWith().topic(p
                    .getTopic().toString().replace("get", "state")).payload(text(
                            "{\"color\": {\"h\": 120, \"s\": 100}, \"brightness\": 127}"))
                    .send()).send().join();
            bulb.publishWith().topic("bulbs/porch/about").qos(MqttQos.AT_LEAST_ONCE).retain(true)
                    .payload(text("{\"name\": \"Porch\"}")).send();
            try (GearUnderTest gear = gear(new Mqtt(), "bulbs", "127.0.0.1:" + house.port()).ready()) {
                soon(() -> Value.of("#00FF00").equals(gear.now("colour/porch")) && Value.of(50).equals(gear.now(
                        "level/porch")));
                assertThat(gear.done("colour", "bulb", "porch", "colour", "#FF8000")).isEqualTo("sent");
                assertThat(told.poll(10, TimeUnit.SECONDS)).isEqualTo(
                        "bulbs/porch/set {\"color\":{\"h\":30,\"s\":100}}");
                bulb.publishWith().topic("bulbs/porch/state").payload(text("{\"color\": {\"h\": 240, \"s\": 100}}"))
                        .send();
                soon(() -> Value.of("#0000FF").equals(gear.now("colour/porch")));
                assertThat(gear.done("level", "bulb", "porch", "level", 100)).isEqualTo("sent");
                assertThat(told.poll(10, TimeUnit.SECONDS)).isEqualTo("bulbs/porch/set {\"brightness\":254}");
            } finally {
                bulb.disconnect();
            }
        }
    }

    @Test
    void aFixtureOverArtNet() throws Exception {
        Card card = card("fixture");
        try (DatagramSocket node = new DatagramSocket(0, InetAddress.getLoopbackAddress())) {
            Gear.Link link = new Gear.Link(Protocol.of("artnet"), "127.0.0.1:" + node.getLocalPort(), Map.of());
            Board board = Board.empty("B")
                    .withGear(List.of(new Gear("lamps", "Lamps", "fixtures", link, Map.of(), Map.of())
                            .withPatch(List.of(new Fixture("wash", "Wash", card.id(), 0, 11)))));
            Map<String, Card> cards = new java.util.HashMap<>(rombix.core.store.CardLibrary.shipped());
            cards.put(card.id(), card);
            Twin twin = Rig.of(board, cards).twins().get("lamps");
            try (Link lamps = new ArtNet().open(new GearReport(twin, new MachineClock(), _ -> {
            }), new Target(link.address(), link, StandInGear.KEYS, Path::of))) {
                twin.card().commands().stream().filter(c -> c.id().equals("colour") || c.title().toString().contains(
                        "colour")).findFirst().ifPresent(c -> lamps.send(1, twin.order(c, GearUnderTest.with(
                                c.params()
                                        .getFirst().id(),
                                "wash", "colour", "#FF8040"), Twin.Readings.NONE)));
                DatagramPacket in = new DatagramPacket(new byte[1500], 1500);
                byte[] levels = {};
                for (int i = 0; i < 100 && (levels.length < 16 || levels[12] == 0); i++) {
                    node.receive(in);
                    levels = ArtNetPacket
                            .decode(ByteBuffer.wrap(in.getData(), 0, in.getLength())) instanceof ArtNetPacket.Dmx d
                                    ? d.levels()
                                    : levels;
                }
                assertThat(List.of(levels[12] & 0xFF, levels[13] & 0xFF, levels[14] & 0xFF)).containsExactly(0xFF, 0x80,
                        0x40);
            }
        }
    }

    @Test
    void aChatBot() throws Exception {
        BlockingQueue<String> heard = new LinkedBlockingQueue<>();
        try (ServerSocket server = new ServerSocket(0, 9, InetAddress.getLoopbackAddress())) {
            CompletableFuture<Socket> guest = new CompletableFuture<>();
            Thread.startVirtualThread(() -> chat(server, heard, guest));
            try (GearUnderTest gear = StandInGear.of(new Irc(), card("chat-bot"), "127.0.0.1:" + server.getLocalPort(),
                    link -> link).ready()) {
                assertThat(gear.done("say", "room", "cookbook", "text", "the soup is on")).isEqualTo("sent");
                soon(() -> heard.contains("PRIVMSG #cookbook :the soup is on"));
                guest.join().getOutputStream().write(text(":ann!a@b PRIVMSG #cookbook :!recipe please\r\n"));
                soon(() -> Value.of("recipe").equals(gear.now("asked")));
                guest.join().getOutputStream().write(text(":ann!a@b MODE #cookbook +m\r\n"));
                soon(() -> Value.of(true).equals(gear.now("moderated")));
            }
        }
    }

    private static void chat(ServerSocket server, BlockingQueue<String> heard, CompletableFuture<Socket> guest) {
        try (Socket s = server.accept()) {
            InputStream in = s.getInputStream();
            OutputStream out = s.getOutputStream();
            for (byte[] m = Peer.until(in, '\n'); m != null; m = Peer.until(in, '\n')) {
                String line = new String(m, StandardCharsets.UTF_8).strip();
                heard.add(line);
                if (line.startsWith("USER")) {
                    out.write(text(":chat 001 rombix :welcome\r\n"));
                } else if (line.startsWith("PING")) {
                    out.write(text(":chat PONG chat " + line.substring(5) + "\r\n"));
                } else if (line.startsWith("MODE #cookbook")) {
                    out.write(text(":chat 324 rombix #cookbook +n\r\n"));
                    guest.complete(s);
                }
            }
        } catch (IOException e) {
            // Closed.
        }
    }

    @Test
    void aSynthWithAChecksum() throws Exception {
        try (ServerSocket far = new ServerSocket(0, 9, InetAddress.getLoopbackAddress())) {
            CableProvider.plug(CableProvider.PADS, new InetSocketAddress(far.getInetAddress(), far.getLocalPort()));
            CompletableFuture<Socket> plugged = CompletableFuture.supplyAsync(() -> {
                try {
                    return far.accept();
                } catch (IOException e) {
                    throw new java.io.UncheckedIOException(e);
                }
            });
            try (GearUnderTest gear = StandInGear.of(new Midi(), card("synth"), CableProvider.PADS, link -> link)
                    .ready();
                    Socket synth = plugged.join()) {
                assertThat(gear.done("cutoff", "value", 300)).isEqualTo("sent");
                // 0x40 + 0x02 + 0x2C is 0x6E, and 0x12 brings that to 0x80.
                assertThat(HexFormat.of().formatHex(synth.getInputStream().readNBytes(9))).isEqualTo(
                        "f07d100140022c12f7");
                synth.getOutputStream().write(HexFormat.of().parseHex("f07d1001400f7f32f7"));
                soon(() -> Value.of(0x0F << 7 | 0x7F).equals(gear.now("cutoff")));
            }
        }
    }
}
