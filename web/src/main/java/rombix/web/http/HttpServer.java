package rombix.web.http;

import io.netty.bootstrap.ServerBootstrap;
import io.netty.channel.Channel;
import io.netty.channel.ChannelInitializer;
import io.netty.channel.ChannelOption;
import io.netty.channel.EventLoopGroup;
import io.netty.channel.WriteBufferWaterMark;
import io.netty.channel.group.ChannelGroup;
import io.netty.channel.group.DefaultChannelGroup;
import io.netty.channel.socket.nio.NioServerSocketChannel;
import io.netty.handler.codec.http.HttpObjectAggregator;
import io.netty.handler.codec.http.HttpServerCodec;
import io.netty.handler.codec.http.websocketx.WebSocketServerProtocolConfig;
import io.netty.handler.codec.http.websocketx.WebSocketServerProtocolHandler;
import io.netty.handler.ssl.SslContext;
import io.netty.handler.timeout.IdleStateHandler;
import io.netty.util.concurrent.GlobalEventExecutor;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.util.Objects;
import java.util.concurrent.TimeUnit;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import rombix.web.api.ProgramApi;
import rombix.web.json.WebJson;

/** Listens at one address and gives each connection its handlers. */
public final class HttpServer implements AutoCloseable {
    /** Devices, with some room for those that are only looking at the door. */
    private static final int MOST_CONNECTIONS = 400;
    private static final int MOST_HEADER = 8192;
    private static final int MOST_BODY = 16384;
    /** After so long without a byte a device is asked whether it is there; after as long again it is gone. */
    private static final int QUIET_SECONDS = 6;
    private static final int LOW_WATER = 32 << 10;
    private static final int HIGH_WATER = 128 << 10;

    private final Channel channel;
    private final ChannelGroup open;
    private final EventLoopGroup loop;
    private final ProgramApi programs;

    private HttpServer(Channel channel, ChannelGroup open, EventLoopGroup loop, ProgramApi programs) {
        this.channel = channel;
        this.open = open;
        this.loop = loop;
        this.programs = programs;
    }

    /**
     * Begins to listen.
     *
     * @param tls null for plain HTTP
     * @param site what is served, once it is known at which port; the one at {@code at} may be 0
     * @throws IOException where nothing can listen there
     */
    public static HttpServer listen(InetSocketAddress at, EventLoopGroup loop, @Nullable SslContext tls,
            Function<InetSocketAddress, Site> site) throws IOException {
        ChannelGroup open = new DefaultChannelGroup("web", GlobalEventExecutor.INSTANCE, true);
        Site[] served = new Site[1];
        ApiDoor[] programs = new ApiDoor[1];
        var bound = new ServerBootstrap().group(loop).channel(NioServerSocketChannel.class)
                .option(ChannelOption.SO_BACKLOG, 128)
                .childOption(ChannelOption.TCP_NODELAY, true)
                .childOption(ChannelOption.WRITE_BUFFER_WATER_MARK, new WriteBufferWaterMark(LOW_WATER, HIGH_WATER))
                .childHandler(new ChannelInitializer<>() {
                    @Override
                    protected void initChannel(Channel c) {
                        Site now = served[0];
                        if (now == null || open.size() >= MOST_CONNECTIONS) {
                            c.close();
                            return;
                        }
                        open.add(c);
                        handlers(c, tls, now, Objects.requireNonNull(programs[0]));
                    }
                }).bind(at).awaitUninterruptibly();
        if (!bound.isSuccess()) {
            throw new IOException(String.valueOf(bound.cause().getMessage()), bound.cause());
        }
        Channel channel = bound.channel();
        Site made = site.apply((InetSocketAddress) channel.localAddress());
        ProgramApi api = new ProgramApi(made.deck(), made.access(), loop);
        programs[0] = new ApiDoor(made, api);
        served[0] = made;
        return new HttpServer(channel, open, loop, api);
    }

    private static void handlers(Channel c, @Nullable SslContext tls, Site site, ApiDoor programs) {
        if (tls != null) {
            c.pipeline().addLast(tls.newHandler(c.alloc()));
        }
        c.pipeline().addLast(new IdleStateHandler(QUIET_SECONDS, 0, 0, TimeUnit.SECONDS),
                new HttpServerCodec(MOST_HEADER, MOST_HEADER, MOST_HEADER),
                new HttpObjectAggregator(MOST_BODY, true),
                new HttpDoor(site, programs),
                new WebSocketServerProtocolHandler(WebSocketServerProtocolConfig.newBuilder().websocketPath(
                        HttpDoor.LIVE).maxFramePayloadLength(WebJson.MOST_BYTES).allowExtensions(false)
                        .dropPongFrames(true).build()),
                new DeviceChannel(site));
    }

    /** Where it listens. */
    public InetSocketAddress address() {
        return (InetSocketAddress) channel.localAddress();
    }

    /** How many connections are open. */
    public int connections() {
        return open.size();
    }

    /** Listens no longer, and ends all connections. */
    @Override
    public void close() {
        channel.close().awaitUninterruptibly();
        open.close().awaitUninterruptibly();
        Runnable letGo = programs::close;
        loop.submit(letGo).awaitUninterruptibly();
    }
}
