package rombix.bench;

import com.sun.net.httpserver.HttpServer;
import io.netty.bootstrap.ServerBootstrap;
import io.netty.channel.Channel;
import io.netty.channel.ChannelHandlerContext;
import io.netty.channel.ChannelInitializer;
import io.netty.channel.SimpleChannelInboundHandler;
import io.netty.channel.nio.NioEventLoopGroup;
import io.netty.channel.socket.nio.NioServerSocketChannel;
import io.netty.handler.codec.http.HttpObjectAggregator;
import io.netty.handler.codec.http.HttpServerCodec;
import io.netty.handler.codec.http.websocketx.TextWebSocketFrame;
import io.netty.handler.codec.http.websocketx.WebSocketServerProtocolHandler;
import io.netty.util.concurrent.DefaultThreadFactory;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.WebSocket;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.concurrent.Executors;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.function.BiConsumer;
import java.util.function.LongConsumer;
import rombix.bench.measure.BenchGear;
import rombix.bench.measure.Figure;
import rombix.bench.measure.Measured;
import rombix.bench.measure.Rounds;
import rombix.core.board.Gear.Link;
import rombix.core.board.Rig;
import rombix.core.card.Protocol;
import rombix.core.chain.Chain;
import rombix.core.chain.Gesture;
import rombix.core.engine.Conductor;
import rombix.core.event.Event;
import rombix.core.event.Happening;
import rombix.core.event.Status.Phase;
import rombix.core.value.Value;
import rombix.links.Links;
import rombix.links.MachineClock;
import rombix.wire.dmx.ArtNetPacket;

/**
 * From a press to its message received on loopback, over each wire that is not a plain datagram, against a thread that
 * is handed an object and says the same with the bare client of the JDK.
 */
final class Wires implements Measured {
    private static final int REACH = 2;

    /** Says the same by the bare client. Called on a thread of its own. */
    private interface Bare {
        void say() throws Exception;
    }

    /** A far end, on a free port. */
    private record Far(int port, AutoCloseable server) {
    }

    private final LongConsumer[] arrived = {_ -> {
    }};

    @Override
    public List<Figure> measure() throws Exception {
        List<Figure> figures = new ArrayList<>();
        line(figures);
        oscOverTcp(figures);
        http(figures);
        webSocket(figures);
        artNet(figures);
        return figures;
    }

    private void received() {
        arrived[0].accept(System.nanoTime());
    }

    /** Reads so many bytes a message from whoever connects. */
    private Far counted(int bytes) throws IOException {
        ServerSocket server = new ServerSocket(0, 9, InetAddress.getLoopbackAddress());
        Thread.ofPlatform().daemon().start(() -> {
            while (!server.isClosed()) {
                try {
                    Socket socket = server.accept();
                    Thread.ofPlatform().daemon().start(() -> {
                        try (InputStream in = socket.getInputStream()) {
                            while (in.readNBytes(bytes).length == bytes) {
                                received();
                            }
                        } catch (IOException e) {
                            // Gone.
                        }
                    });
                } catch (IOException e) {
                    // Closed.
                }
            }
        });
        return new Far(server.getLocalPort(), server);
    }

    private void stream(String name, byte[] bytes, Link link, Far far, List<Figure> figures) throws Exception {
        try (AutoCloseable _ = far.server(); Socket socket = new Socket(InetAddress.getLoopbackAddress(), far.port())) {
            socket.setTcpNoDelay(true);
            OutputStream out = socket.getOutputStream();
            compare(name, link, new Rounds(), () -> out.write(bytes), figures);
        }
    }

    private void line(List<Figure> figures) throws Exception {
        byte[] bytes = "GO 7\r\n".getBytes(StandardCharsets.US_ASCII);
        Far far = counted(bytes.length);
        stream("line", bytes, link("line", far.port()), far, figures);
    }

    private void oscOverTcp(List<Figure> figures) throws Exception {
        byte[] bytes = {0, 0, 0, 12, '/', 'g', 'o', 0, ',', 'f', 0, 0, 0x40, (byte) 0xE0, 0, 0};
        Far far = counted(bytes.length);
        stream("osc-tcp", bytes, link("osc", far.port()).withSetting("over", Value.of("tcp, length first")), far,
                figures);
    }

    private void http(List<Figure> figures) throws Exception {
        HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.setExecutor(Executors.newVirtualThreadPerTaskExecutor());
        server.createContext("/go", exchange -> {
            received();
            exchange.getRequestBody().readAllBytes();
            exchange.sendResponseHeaders(204, -1);
            exchange.close();
        });
        server.start();
        int port = server.getAddress().getPort();
        try (HttpClient client = HttpClient.newBuilder().version(HttpClient.Version.HTTP_1_1).build()) {
            HttpRequest request = HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + "/go")).header(
                    "Content-Type", "text/plain; charset=utf-8").PUT(HttpRequest.BodyPublishers.ofString("7")).build();
            compare("http", link("http", port), new Rounds(1500, 10, 200), () -> client.send(request,
                    HttpResponse.BodyHandlers.discarding()), figures);
        } finally {
            server.stop(0);
        }
    }

    /**
     * A WebSocket server on a free port of loopback.
     *
     * @param heard takes each text with whom it comes from, on the loop's thread
     */
    static Channel webSockets(NioEventLoopGroup loop, BiConsumer<Channel, String> heard) throws InterruptedException {
        return new ServerBootstrap().group(loop).channel(NioServerSocketChannel.class).childHandler(
                new ChannelInitializer<>() {
                    @Override
                    protected void initChannel(Channel channel) {
                        channel.pipeline().addLast(new HttpServerCodec(), new HttpObjectAggregator(4096),
                                new WebSocketServerProtocolHandler("/"),
                                new SimpleChannelInboundHandler<TextWebSocketFrame>() {
                                    @Override
                                    protected void channelRead0(ChannelHandlerContext of, TextWebSocketFrame frame) {
                                        heard.accept(of.channel(), frame.text());
                                    }
                                });
                    }
                }).bind(InetAddress.getLoopbackAddress(), 0).sync().channel();
    }

    private void webSocket(List<Figure> figures) throws Exception {
        NioEventLoopGroup loop = new NioEventLoopGroup(1, new DefaultThreadFactory("far", true));
        Channel server = webSockets(loop, (_, _) -> received());
        int port = ((InetSocketAddress) server.localAddress()).getPort();
        try (HttpClient client = HttpClient.newHttpClient()) {
            WebSocket bare = client.newWebSocketBuilder().buildAsync(URI.create("ws://127.0.0.1:" + port + "/"),
                    new WebSocket.Listener() {
                    }).join();
            compare("websocket", link("websocket", port), new Rounds(), () -> bare.sendText("GO 7", true).join(),
                    figures);
            bare.abort();
        } finally {
            server.close().sync();
            loop.shutdownGracefully();
        }
    }

    /** A level is sent at once after a pause, and they are gathered within 23 ms: so each comes after such a pause. */
    private void artNet(List<Figure> figures) throws Exception {
        try (DatagramSocket node = new DatagramSocket(0, InetAddress.getLoopbackAddress());
                DatagramSocket bare = new DatagramSocket()) {
            Thread.ofPlatform().daemon().start(() -> {
                DatagramPacket in = new DatagramPacket(new byte[1500], 1500);
                while (!node.isClosed()) {
                    try {
                        node.receive(in);
                        if (in.getLength() > 500) {
                            received();
                        }
                    } catch (IOException e) {
                        // Closed.
                    }
                }
            });
            byte[] bytes = ArtNetPacket.encode(new ArtNetPacket.Dmx(1, 0, new byte[512]));
            DatagramPacket packet = new DatagramPacket(bytes, bytes.length, node.getLocalSocketAddress());
            compare("artnet", link("artnet", node.getLocalPort()).withSetting("keep-alive", Value.of(4000)),
                    new Rounds(60, 6, 40, 25_000_000), () -> bare.send(
                            packet),
                    figures);
        }
    }

    private static Link link(String protocol, int port) {
        return new Link(Protocol.of(protocol), "127.0.0.1:" + port, Map.of());
    }

    private void compare(String name, Link link, Rounds rounds, Bare bare, List<Figure> figures) throws Exception {
        Rig rig = BenchGear.rig(List.of(new rombix.core.board.Gear("g0", "G0", "bench", link, Map.of(), Map.of())),
                Chain.of(
                        BenchGear.go(0, 7)));
        LinkedBlockingQueue<Object> handed = new LinkedBlockingQueue<>();
        Thread sender = Thread.ofPlatform().daemon().start(() -> {
            try {
                while (true) {
                    handed.take();
                    bare.say();
                }
            } catch (Exception e) {
                // It is over.
            }
        });
        LinkedBlockingQueue<Object> ready = new LinkedBlockingQueue<>();
        Links[] links = new Links[1];
        try (Conductor conductor = new Conductor(new MachineClock(), new SplittableRandom(1), post -> {
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
            Event press = new Event.Perform("b", Gesture.PRESS, "bench");
            figures.addAll(rounds.figures(name, to -> arrived[0] = to, () -> conductor.post(press), () -> handed.add(
                    press), REACH));
        } finally {
            links[0].close();
            sender.interrupt();
        }
    }
}
