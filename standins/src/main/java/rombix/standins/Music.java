package rombix.standins;

import io.netty.bootstrap.ServerBootstrap;
import io.netty.channel.Channel;
import io.netty.channel.ChannelFuture;
import io.netty.channel.ChannelFutureListener;
import io.netty.channel.ChannelHandlerContext;
import io.netty.channel.ChannelInitializer;
import io.netty.channel.EventLoopGroup;
import io.netty.channel.SimpleChannelInboundHandler;
import io.netty.channel.group.ChannelGroup;
import io.netty.channel.group.DefaultChannelGroup;
import io.netty.channel.nio.NioEventLoopGroup;
import io.netty.channel.socket.nio.NioServerSocketChannel;
import io.netty.handler.codec.http.DefaultFullHttpResponse;
import io.netty.handler.codec.http.FullHttpRequest;
import io.netty.handler.codec.http.HttpObjectAggregator;
import io.netty.handler.codec.http.HttpResponseStatus;
import io.netty.handler.codec.http.HttpServerCodec;
import io.netty.handler.codec.http.websocketx.TextWebSocketFrame;
import io.netty.handler.codec.http.websocketx.WebSocketServerProtocolHandler;
import io.netty.util.concurrent.DefaultThreadFactory;
import io.netty.util.concurrent.GlobalEventExecutor;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.UUID;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/**
 * The music player of the warm room, over WebSocket: it says hello with a challenge, wants it answered, answers each
 * request by its number, and tells every change of its state to all that are let in.
 */
public final class Music implements AutoCloseable {
    private static final JsonMapper JSON = new JsonMapper();
    public static final Map<String, String> PLAYLISTS = playlists();
    private static final String PATH = "/player";
    private static final int LARGEST = 65_536;

    private final EventLoopGroup loop = new NioEventLoopGroup(1, new DefaultThreadFactory("music", true));
    private final ChannelGroup letIn = new DefaultChannelGroup(GlobalEventExecutor.INSTANCE);
    private final Channel server;
    private final Received came = new Received();
    private boolean playing;
    private boolean shuffle;
    private double volume = 0.4;
    private String playlist = "slow-orbits";

    /** @param port 0 for any free one */
    public Music(int port) throws IOException {
        ChannelFuture bound = new ServerBootstrap().group(loop).channel(NioServerSocketChannel.class).childHandler(
                new ChannelInitializer<>() {
                    @Override
                    protected void initChannel(Channel channel) {
                        channel.pipeline().addLast(new HttpServerCodec(), new HttpObjectAggregator(LARGEST),
                                new WebSocketServerProtocolHandler(PATH), new Elsewhere(), new Guest());
                    }
                }).bind(new InetSocketAddress(InetAddress.getLoopbackAddress(), port)).awaitUninterruptibly();
        server = bound.channel();
        if (!bound.isSuccess()) {
            loop.shutdownGracefully();
            throw bound.cause() instanceof IOException taken ? taken : new IOException(bound.cause());
        }
    }

    private static Map<String, String> playlists() {
        Map<String, String> all = new LinkedHashMap<>();
        all.put("slow-orbits", "Slow Orbits");
        all.put("first-light", "First Light");
        all.put("kettle-drums", "Kettle Drums");
        return all;
    }

    public int port() {
        return ((InetSocketAddress) server.localAddress()).getPort();
    }

    public synchronized boolean playing() {
        return playing;
    }

    public synchronized boolean shuffle() {
        return shuffle;
    }

    public synchronized String playlist() {
        return playlist;
    }

    /** What came. */
    public Received received() {
        return came;
    }

    public synchronized double volume() {
        return volume;
    }

    /** Works it by hand, with an order of its own kind. @param what {@code play}, {@code playlist}, {@code shuffle} or {@code volume} */
    public void work(String what, String to) {
        ObjectNode asked = JSON.createObjectNode().put("do", what);
        if (to.matches("true|false")) {
            asked.put("to", Boolean.parseBoolean(to));
        } else if (what.equals("volume")) {
            asked.put("to", Double.parseDouble(to));
        } else {
            asked.put("to", to);
        }
        answer(asked, JSON.createObjectNode());
        tell(what.equals("play") ? "playing" : what);
    }

    /** How many are let in. */
    public int guests() {
        return letIn.size();
    }

    /** Starts or stops it by hand. */
    public void play(boolean on) {
        synchronized (this) {
            playing = on;
        }
        tell("playing");
    }

    /** Whoever is connected is not any more. */
    public void hangUp() {
        letIn.close();
    }

    /** Answers requests for any other path. */
    private static final class Elsewhere extends SimpleChannelInboundHandler<FullHttpRequest> {
        @Override
        protected void channelRead0(ChannelHandlerContext of, FullHttpRequest request) {
            of.writeAndFlush(new DefaultFullHttpResponse(request.protocolVersion(), HttpResponseStatus.NOT_FOUND))
                    .addListener(ChannelFutureListener.CLOSE);
        }
    }

    private final class Guest extends SimpleChannelInboundHandler<TextWebSocketFrame> {
        private final String challenge = UUID.randomUUID().toString();

        @Override
        public void userEventTriggered(ChannelHandlerContext of, Object event) {
            if (event instanceof WebSocketServerProtocolHandler.HandshakeComplete) {
                say(of.channel(), JSON.createObjectNode().put("hello", "music").put("challenge", challenge));
            }
        }

        @Override
        protected void channelRead0(ChannelHandlerContext of, TextWebSocketFrame frame) {
            JsonNode asked;
            try {
                asked = JSON.readTree(frame.text());
            } catch (JacksonException e) {
                return;
            }
            came.add(asked.has("proof") ? "a proof of who it is" : frame.text());
            if (asked.has("proof")) {
                if (DemoLogin.proof(challenge).equals(asked.get("proof").asString())) {
                    letIn.add(of.channel());
                    say(of.channel(), JSON.createObjectNode().put("welcome", true));
                } else {
                    say(of.channel(), JSON.createObjectNode().put("welcome", false).put("why", "wrong password"));
                    of.close();
                }
            } else if (letIn.contains(of.channel())) {
                ObjectNode answer = JSON.createObjectNode();
                answer.set("id", asked.path("id"));
                answer(asked, answer);
                say(of.channel(), answer);
                String changed = asked.path("do").asString("");
                if (answer.path("ok").asBoolean(false) && !changed.isEmpty()) {
                    tell(changed.equals("play") ? "playing" : changed);
                }
            }
        }

        @Override
        public void exceptionCaught(ChannelHandlerContext of, Throwable cause) {
            of.close();
        }
    }

    private synchronized void answer(JsonNode asked, ObjectNode answer) {
        String to = asked.path("to").asString("");
        boolean ok = true;
        switch (asked.path("do").asString("")) {
            case "play" -> playing = asked.path("to").asBoolean(false);
            case "shuffle" -> shuffle = asked.path("to").asBoolean(false);
            case "volume" -> volume = Math.clamp(asked.path("to").asDouble(0), 0, 1);
            case "playlist" -> {
                ok = PLAYLISTS.containsKey(to);
                playlist = ok ? to : playlist;
            }
            default -> {
                answer.set("state", state());
                ObjectNode lists = answer.putObject("playlists");
                PLAYLISTS.forEach((id, name) -> lists.putObject(id).put("name", name));
            }
        }
        answer.put("ok", ok);
        if (!ok) {
            answer.put("why", "no playlist " + to);
        }
    }

    private synchronized ObjectNode state() {
        return JSON.createObjectNode().put("playing", playing).put("shuffle", shuffle).put("volume", volume).put(
                "playlist", playlist);
    }

    private void tell(String what) {
        ObjectNode change = JSON.createObjectNode();
        change.putObject("changed").set(what, state().get(what));
        letIn.writeAndFlush(new TextWebSocketFrame(JSON.writeValueAsString(change)));
    }

    private static void say(Channel to, ObjectNode what) {
        to.writeAndFlush(new TextWebSocketFrame(JSON.writeValueAsString(what)));
    }

    @Override
    public void close() {
        server.close().syncUninterruptibly();
        letIn.close();
        loop.shutdownGracefully();
    }
}
