package rombix.bench.web;

import java.lang.management.ManagementFactory;
import java.net.InetAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.WebSocket;
import java.nio.file.Files;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CompletionStage;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.locks.LockSupport;
import java.util.function.LongConsumer;
import org.jspecify.annotations.Nullable;
import rombix.bench.measure.BenchGear;
import rombix.bench.measure.Figure;
import rombix.bench.measure.Measured;
import rombix.bench.measure.Rounds;
import rombix.core.board.Board.BoardValue;
import rombix.core.board.Rig;
import rombix.core.chain.Chain;
import rombix.core.edit.Edits;
import rombix.core.event.Mode;
import rombix.core.touch.DeckPort;
import rombix.core.value.Value;
import rombix.running.RunningDeck;
import rombix.web.WebServer;
import rombix.web.access.AccessList;
import rombix.web.access.Right;

/**
 * From a press on a device to its datagram, and from a value to the message that shows it, against a bare socket in the
 * same process; what fifty devices cost a press at the desk; and what a device costs at rest.
 */
public final class Browsers implements Measured {
    private static final int CROWD = 50;
    private static final int VALUES_A_SECOND = 200;
    private static final long APART_NANOS = 40_000_000L;
    /** More than 600 messages a second would end the connection. */
    private static final long HAND_NANOS = 4_000_000L;
    private static final long REST_NANOS = 10_000_000_000L;

    private final HttpClient http = HttpClient.newHttpClient();

    @Override
    public List<Figure> measure() throws Exception {
        try (BenchGear gear = new BenchGear(); BareSockets bare = new BareSockets(gear.socketAddress())) {
            Rig plain = BenchGear.osc(List.of(gear.address()), Chain.of(BenchGear.go(0, 7)));
            Rig rig = plain.with(Edits.button(plain.board(), "b", b -> b.withStates(List.of(b.states().getFirst()
                    .withFace(b.states().getFirst().face().withLabel("{n}")))))
                    .withValues(List.of(new BoardValue("n", "n",
                            Value.of(0)))));
            try (RunningDeck deck = new RunningDeck(Map.of(), null);
                    WebServer server = WebServer.open(deck, new AccessList(Files.createTempDirectory("bench").resolve(
                            "devices")), InetAddress.getLoopbackAddress(), 0, _ -> {
                            })) {
                deck.load(rig);
                deck.mode(Mode.LIVE, false);
                LockSupport.parkNanos(2_000_000_000L);
                return measured(gear, bare, deck, server);
            }
        }
    }

    private List<Figure> measured(BenchGear gear, BareSockets bare, RunningDeck deck, WebServer server)
            throws Exception {
        Client device = device(server);
        Client plain = new Client();
        plain.open(bare.address(), "", "");
        List<Figure> figures = new ArrayList<>(
                new Rounds(1500, 8, 200, HAND_NANOS).figures("web-press", gear, () -> press(device),
                        () -> press(plain), 3));
        AtomicLong n = new AtomicLong();
        DeckPort values = deck.port("values");
        figures.addAll(new Rounds(50, 10, 20, APART_NANOS).figures("web-shown", arrived -> {
            device.told = arrived;
            plain.told = arrived;
        }, () -> values.set("", "n", Value.of(n.incrementAndGet())), () -> bare.push("{\"now\":1,\"faces\":{\"b\":{"
                + "\"label\":\"" + n.incrementAndGet() + "\"}}}"), 2));
        device.told = _ -> {
        };
        figures.add(rest(deck, server));
        figures.add(crowd(gear, deck, server));
        return figures;
    }

    private static void press(Client by) {
        by.say("{\"do\":\"press\",\"b\":\"b\"}");
        by.say("{\"do\":\"release\",\"b\":\"b\"}");
    }

    /** Processor time of the server's thread with a device at rest, against none. */
    private static Figure rest(RunningDeck deck, WebServer server) {
        LockSupport.parkNanos(3_000_000_000L);
        long before = webThread();
        LockSupport.parkNanos(REST_NANOS);
        return new Figure("web-rest-cpu", (webThread() - before) / 1e6, 10, (webThread() - before) / 1e7, "ms", 1);
    }

    private static long webThread() {
        var threads = ManagementFactory.getThreadMXBean();
        long all = 0;
        for (Thread t : Thread.getAllStackTraces().keySet()) {
            if (t.getName().equals("web")) {
                all += Math.max(0, threads.getThreadCpuTime(t.threadId()));
            }
        }
        return all;
    }

    /** A press at the desk with fifty devices that follow two hundred values a second, against the same without them. */
    private Figure crowd(BenchGear gear, RunningDeck deck, WebServer server) throws Exception {
        DeckPort desk = deck.port("mouse");
        Rounds.Way press = () -> {
            desk.press("b");
            desk.release("b");
        };
        double alone = new Rounds(2000, 4, 500).figures("alone", gear, press, press, 0).getLast().rombix();
        List<Client> crowd = new ArrayList<>();
        for (int i = 0; i < CROWD; i++) {
            crowd.add(device(server));
        }
        DeckPort values = deck.port("values");
        Thread feeder = Thread.ofPlatform().daemon().start(() -> {
            for (long i = 0; !Thread.currentThread().isInterrupted(); i++) {
                values.set("", "n", Value.of(i));
                LockSupport.parkNanos(1_000_000_000L / VALUES_A_SECOND);
            }
        });
        double together = new Rounds(500, 4, 500).figures("together", gear, press, press, 0).getLast().rombix();
        feeder.interrupt();
        crowd.forEach(Client::close);
        return Figure.of("web-crowd-p99", together, alone, "µs", 1.2);
    }

    private Client device(WebServer server) throws Exception {
        String address = server.address();
        String origin = address.substring(0, address.length() - 1);
        String code = server.invitations().open(Set.of(), Set.of(Right.PRESS)).code();
        HttpResponse<Void> joined = http.send(HttpRequest.newBuilder(URI.create(address + "join")).header("Origin",
                origin).POST(HttpRequest.BodyPublishers.ofString("{\"code\":\"" + code + "\",\"name\":\"bench\"}"))
                .build(), HttpResponse.BodyHandlers.discarding());
        Client made = new Client();
        made.open(address.replace("http", "ws") + "live", origin,
                joined.headers().firstValue("set-cookie").orElseThrow()
                        .split(";")[0]);
        return made;
    }

    private final class Client implements WebSocket.Listener {
        private volatile LongConsumer told = _ -> {
        };
        private @Nullable WebSocket socket;

        void open(String address, String origin, String cookie) {
            WebSocket.Builder builder = http.newWebSocketBuilder();
            if (!cookie.isEmpty()) {
                builder.header("Origin", origin).header("Cookie", cookie);
            }
            socket = builder.buildAsync(URI.create(address), this).join();
        }

        void say(String text) {
            java.util.Objects.requireNonNull(socket).sendText(text, true).join();
        }

        @Override
        public @Nullable CompletionStage<?> onText(WebSocket from, CharSequence data, boolean last) {
            if (data.length() > 60 || data.toString().contains("faces")) { // Not a greeting.
                told.accept(System.nanoTime());
            }
            from.request(1);
            return null;
        }

        void close() {
            java.util.Objects.requireNonNull(socket).abort();
        }
    }
}
