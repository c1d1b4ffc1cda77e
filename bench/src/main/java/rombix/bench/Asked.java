package rombix.bench;

import com.sun.net.httpserver.HttpServer;
import io.netty.channel.Channel;
import io.netty.channel.nio.NioEventLoopGroup;
import io.netty.handler.codec.http.websocketx.TextWebSocketFrame;
import io.netty.util.concurrent.DefaultThreadFactory;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.function.LongConsumer;
import rombix.bench.measure.Figure;
import rombix.bench.measure.Measured;
import rombix.bench.measure.Rounds;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Face;
import rombix.core.board.Gear;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.card.Protocol;
import rombix.core.chain.Chain;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.engine.Conductor;
import rombix.core.event.Event;
import rombix.core.event.Happening;
import rombix.core.event.Status.Phase;
import rombix.core.store.BadFile;
import rombix.core.store.CardLibrary;
import rombix.core.value.Value;
import rombix.links.Links;
import rombix.links.MachineClock;

/**
 * From a press to its message received on loopback, beside a poll that the gear never answers, against the same gear
 * without the poll.
 */
final class Asked implements Measured {
    private static final int REACH = 2;
    private static final int MESSAGE = 6;
    private static final String CARD = """
            {"card": 3, "id": "%s", "title": "Bench", "commands": [
              {"id": "go", "title": "Go", "send": {"line": [{"to": "line", "args": ["GO 7"]}],
                "osc": [{"to": "/go", "args": [7]}], "http": [{"to": "PUT /go", "args": ["7"]}],
                "websocket": [{"to": "text", "args": ["go"]}]}}],
             "polls": {"line": [%s], "osc": [%s], "http": [%s], "websocket": [%s]}}
            """;
    private static final String LINE = """
            {"every": 100, "ask": {"to": "line", "args": ["HEAT"], "reply": {"is": {"pattern": "^NEVER$"}}}}""";
    private static final String OSC = """
            {"every": 100, "ask": {"to": "/a", "args": [7], "reply": {"is": {"from": "/never"}}}}""";
    private static final String HTTP = """
            {"every": 100, "ask": {"to": "GET /never"}}, {"every": 100, "ask": {"to": "GET /ever"}}""";

    private static final String WEBSOCKET = """
            {"every": 100, "ask": {"to": "text", "args": ["heat"], "reply": {"is": {"pattern": "^never$"}}}}""";

    private volatile LongConsumer arrived = _ -> {
    };

    /** A far end that hears all there is, on a free port. */
    private record Far(int port, AutoCloseable server) {
    }

    @Override
    public List<Figure> measure() throws Exception {
        List<Figure> all = new ArrayList<>();
        Far line = bytes(MESSAGE, 'G', "tick\r\n".getBytes(StandardCharsets.US_ASCII));
        compare("line-asked", "line", line, Map.of(), new Rounds(), all);
        byte[] tick = {0, 0, 0, 12, '/', 't', 0, 0, ',', 'f', 0, 0, 0x40, (byte) 0xE0, 0, 0};
        Far osc = bytes(tick.length, '/', tick);
        compare("osc-tcp-asked", "osc", osc, Map.of("over", Value.of("tcp, length first")), new Rounds(), all);
        compare("websocket-asked", "websocket", webSocket(), Map.of(), new Rounds(), all);
        compare("http-asked", "http", http(), Map.of(), new Rounds(1500, 10, 200), all);
        return all;
    }

    /**
     * Reads messages of so many bytes: one that begins so is an order, any other a question, to which it says something
     * that is no answer.
     */
    private Far bytes(int size, char order, byte[] tick) throws IOException {
        ServerSocket server = new ServerSocket(0, 9, InetAddress.getLoopbackAddress());
        Thread.ofPlatform().daemon().start(() -> {
            while (!server.isClosed()) {
                try {
                    Socket socket = server.accept();
                    Thread.ofPlatform().daemon().start(() -> serve(socket, size, order, tick));
                } catch (IOException e) {
                    // Closed.
                }
            }
        });
        return new Far(server.getLocalPort(), server);
    }

    private void serve(Socket socket, int size, char order, byte[] tick) {
        try (InputStream in = socket.getInputStream()) {
            for (byte[] one = in.readNBytes(size); one.length == size; one = in.readNBytes(size)) {
                boolean go = order == '/' ? one[5] == 'g' : one[0] == order;
                if (go) {
                    arrived.accept(System.nanoTime());
                } else {
                    socket.getOutputStream().write(tick);
                }
            }
        } catch (IOException e) {
            // Gone.
        }
    }

    private Far webSocket() throws InterruptedException {
        NioEventLoopGroup loop = new NioEventLoopGroup(1, new DefaultThreadFactory("far", true));
        Channel server = Wires.webSockets(loop, (from, text) -> {
            if (text.equals("go")) {
                arrived.accept(System.nanoTime());
            } else {
                from.writeAndFlush(new TextWebSocketFrame("tick"));
            }
        });
        return new Far(((InetSocketAddress) server.localAddress()).getPort(), () -> {
            server.close().sync();
            loop.shutdownGracefully(0, 1, TimeUnit.SECONDS);
        });
    }

    private Far http() throws IOException {
        HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        CountDownLatch over = new CountDownLatch(1);
        ExecutorService threads = Executors.newVirtualThreadPerTaskExecutor();
        server.setExecutor(threads);
        server.createContext("/", exchange -> {
            if (exchange.getRequestURI().getPath().equals("/go")) {
                arrived.accept(System.nanoTime());
            } else if (exchange.getRequestURI().getPath().equals("/never")) {
                try {
                    over.await();
                } catch (InterruptedException e) {
                    Thread.currentThread().interrupt();
                }
            }
            exchange.getRequestBody().readAllBytes();
            exchange.sendResponseHeaders(204, -1);
            exchange.close();
        });
        server.start();
        return new Far(server.getAddress().getPort(), () -> {
            over.countDown();
            server.stop(0);
            threads.shutdownNow();
        });
    }

    private static Rig rig(String protocol, int port, Map<String, Value> settings) {
        Gear.Link link = new Gear.Link(Protocol.of(protocol), "127.0.0.1:" + port, null, null, null, settings,
                Map.of());
        List<Gear> gear = List.of(new Gear("asked", "Asked", "asked", link, Map.of(), Map.of()),
                new Gear("calm", "Calm",
                        "calm", link, Map.of(), Map.of()));
        List<Button> buttons = gear.stream().map(g -> new Button(g.id(), g.id(), g.id().equals("calm") ? 1 : 0, 0, 1, 1,
                Button.Busy.OVERLAP, List.of(new State("s", "s", Face.PLAIN, State.STAY, null, Map.of(Gesture.PRESS,
                        Chain.of(new GearStep.Do(g.id(), "go", Map.of()))), Map.of())),
                Map.of())).toList();
        try {
            return Rig.of(new Board(1, "Bench", gear, List.of(new Page("p", "P", 6, 4, buttons, Map.of())), Map.of()),
                    Map
                            .of("asked",
                                    CardLibrary.read(Path.of("asked.json"),
                                            CARD.formatted("asked", LINE, OSC, HTTP, WEBSOCKET)),
                                    "calm",
                                    CardLibrary.read(Path.of("calm.json"), CARD.formatted("calm", "", "", "", ""))));
        } catch (BadFile e) {
            throw new IllegalStateException(e);
        }
    }

    private void compare(String name, String protocol, Far far, Map<String, Value> settings, Rounds rounds,
            List<Figure> figures) throws Exception {
        Rig rig = rig(protocol, far.port(), settings);
        LinkedBlockingQueue<Object> ready = new LinkedBlockingQueue<>();
        Links[] links = new Links[1];
        try (AutoCloseable _ = far.server();
                Conductor conductor = new Conductor(new MachineClock(), new SplittableRandom(1), post -> {
                    links[0] = new Links(new MachineClock(), post);
                    return links[0];
                }, h -> {
                    if (h instanceof Happening.Linked l && l.status().phase() == Phase.READY) {
                        ready.add(l);
                    }
                })) {
            conductor.post(new Event.Load(rig));
            links[0].connect(rig, Map.of());
            ready.take();
            ready.take();
            figures.addAll(rounds.figures(name, to -> arrived = to, () -> conductor.post(new Event.Perform("asked",
                    Gesture.PRESS, "bench")), () -> conductor.post(new Event.Perform("calm", Gesture.PRESS, "bench")),
                    REACH));
        } finally {
            links[0].close();
        }
    }
}
