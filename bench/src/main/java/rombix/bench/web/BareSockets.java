package rombix.bench.web;

import io.netty.bootstrap.ServerBootstrap;
import io.netty.channel.Channel;
import io.netty.channel.ChannelHandlerContext;
import io.netty.channel.ChannelInitializer;
import io.netty.channel.ChannelOption;
import io.netty.channel.SimpleChannelInboundHandler;
import io.netty.channel.nio.NioEventLoopGroup;
import io.netty.channel.socket.nio.NioServerSocketChannel;
import io.netty.handler.codec.http.HttpObjectAggregator;
import io.netty.handler.codec.http.HttpServerCodec;
import io.netty.handler.codec.http.websocketx.TextWebSocketFrame;
import io.netty.handler.codec.http.websocketx.WebSocketServerProtocolHandler;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.ByteBuffer;
import java.nio.channels.DatagramChannel;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;

/** A WebSocket server that sends a datagram for each message that has a {@code press} in it, echoes it, and nothing else. */
final class BareSockets implements AutoCloseable {
    /** {@code /go ,f 7.0} as OSC. */
    private static final byte[] BYTES = {'/', 'g', 'o', 0, ',', 'f', 0, 0, 0x40, (byte) 0xE0, 0, 0};

    private final NioEventLoopGroup loop = new NioEventLoopGroup(1);
    private final DatagramChannel out;
    private final Channel channel;
    private volatile @Nullable Channel client;

    BareSockets(InetSocketAddress to) throws Exception {
        out = DatagramChannel.open().connect(to);
        channel = new ServerBootstrap().group(loop).channel(NioServerSocketChannel.class).childOption(
                ChannelOption.TCP_NODELAY, true).childHandler(new ChannelInitializer<>() {
                    @Override
                    protected void initChannel(Channel c) {
                        c.pipeline().addLast(new HttpServerCodec(), new HttpObjectAggregator(8192),
                                new WebSocketServerProtocolHandler("/live"), new Echo());
                        client = c;
                    }
                }).bind(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0)).sync().channel();
    }

    private final class Echo extends SimpleChannelInboundHandler<TextWebSocketFrame> {
        private final ByteBuffer bytes = ByteBuffer.allocateDirect(BYTES.length).put(BYTES);

        @Override
        protected void channelRead0(ChannelHandlerContext ctx, TextWebSocketFrame frame) throws Exception {
            if (frame.text().contains("press")) {
                out.write(bytes.rewind());
            }
            ctx.writeAndFlush(frame.retain());
        }
    }

    String address() {
        return "ws://127.0.0.1:" + ((InetSocketAddress) channel.localAddress()).getPort() + "/live";
    }

    /** Sends a text to the client, handed over to the loop. */
    void push(String text) {
        Channel to = client;
        if (to != null) {
            loop.execute(() -> to.writeAndFlush(new TextWebSocketFrame(text)));
        }
    }

    @Override
    public void close() throws Exception {
        channel.close().sync();
        loop.shutdownGracefully(0, 1, TimeUnit.SECONDS).sync();
        out.close();
    }
}
