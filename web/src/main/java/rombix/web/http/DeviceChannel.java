package rombix.web.http;

import io.netty.channel.ChannelHandlerContext;
import io.netty.channel.SimpleChannelInboundHandler;
import io.netty.handler.codec.http.websocketx.CloseWebSocketFrame;
import io.netty.handler.codec.http.websocketx.PingWebSocketFrame;
import io.netty.handler.codec.http.websocketx.TextWebSocketFrame;
import io.netty.handler.codec.http.websocketx.WebSocketCloseStatus;
import io.netty.handler.codec.http.websocketx.WebSocketServerProtocolHandler.HandshakeComplete;
import io.netty.handler.timeout.IdleStateEvent;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rombix.web.access.Access;
import rombix.web.deck.DeviceScreen;

/**
 * The channel of a device that shows pages. What the device can't take now waits as one state, not as messages; what it says
 * too fast ends the channel. The loop's thread.
 */
final class DeviceChannel extends SimpleChannelInboundHandler<TextWebSocketFrame> {
    /** More than ten fingers on faders can do. */
    static final int MOST_A_SECOND = 600;
    private static final long SECOND_NANOS = 1_000_000_000L;

    private final Site site;
    private @Nullable DeviceScreen screen;
    private @Nullable Access holder;
    private @Nullable Runnable onChange;
    private long secondFrom;
    private int inSecond;

    DeviceChannel(Site site) {
        super(TextWebSocketFrame.class);
        this.site = site;
    }

    @Override
    public void userEventTriggered(ChannelHandlerContext ctx, Object event) throws Exception {
        if (event instanceof HandshakeComplete) {
            open(ctx);
        } else if (event instanceof IdleStateEvent idle) {
            if (screen != null && idle.isFirst()) {
                ctx.writeAndFlush(new PingWebSocketFrame());
            } else {
                ctx.close(); // Not even a pong came.
            }
        } else {
            super.userEventTriggered(ctx, event);
        }
    }

    private void open(ChannelHandlerContext ctx) {
        Access who = Objects.requireNonNull(ctx.channel().attr(HttpDoor.HOLDER).get());
        holder = who;
        site.presence().connected(who.id(), 1, site.wallMillis());
        Runnable changed = () -> ctx.executor().execute(() -> changed(ctx, who.id()));
        onChange = changed;
        site.access().watch(changed);
        screen = site.screens().open(who, text -> ctx.writeAndFlush(new TextWebSocketFrame(text)), () -> ctx.channel()
                .isWritable());
    }

    /** Somebody's access was changed or ended; it may be this one's. */
    private void changed(ChannelHandlerContext ctx, String id) {
        DeviceScreen now = screen;
        if (now == null) {
            return;
        }
        Access left = site.access().get(id).orElse(null);
        if (left == null) {
            end(ctx, WebSocketCloseStatus.POLICY_VIOLATION, "access ended");
        } else if (holder != null && !left.name().equals(holder.name())) {
            end(ctx, WebSocketCloseStatus.SERVICE_RESTART, "renamed"); // It comes back under its new name at once.
        } else if (!left.equals(holder)) {
            holder = left;
            site.screens().changed(now, left);
        }
    }

    private void end(ChannelHandlerContext ctx, WebSocketCloseStatus status, String why) {
        gone();
        ctx.writeAndFlush(new CloseWebSocketFrame(status, why)).addListener(_ -> ctx.close());
    }

    @Override
    protected void channelRead0(ChannelHandlerContext ctx, TextWebSocketFrame frame) {
        DeviceScreen now = screen;
        Access who = holder;
        if (now == null || who == null) {
            return;
        }
        long nanos = site.clock().nanos();
        if (nanos - secondFrom > SECOND_NANOS) {
            secondFrom = nanos;
            inSecond = 0;
        }
        if (++inSecond > MOST_A_SECOND) {
            site.notices().accept("“" + who.name() + "” sent too much and was disconnected.");
            end(ctx, WebSocketCloseStatus.POLICY_VIOLATION, "too many messages");
            return;
        }
        site.active(who);
        if (!frame.isFinalFragment()) {
            end(ctx, WebSocketCloseStatus.MESSAGE_TOO_BIG, "in one piece, please");
            return;
        }
        site.screens().take(now, frame.text());
    }

    @Override
    public void channelWritabilityChanged(ChannelHandlerContext ctx) throws Exception {
        DeviceScreen now = screen;
        if (now != null && ctx.channel().isWritable()) {
            site.screens().ready(now);
        }
        super.channelWritabilityChanged(ctx);
    }

    @Override
    public void channelInactive(ChannelHandlerContext ctx) throws Exception {
        gone();
        super.channelInactive(ctx);
    }

    @Override
    public void exceptionCaught(ChannelHandlerContext ctx, Throwable cause) {
        ctx.close();
    }

    private void gone() {
        DeviceScreen now = screen;
        if (now != null) {
            screen = null;
            site.screens().close(now);
        }
        if (onChange != null) {
            site.access().unwatch(onChange);
            onChange = null;
        }
        if (holder != null) {
            site.presence().connected(holder.id(), -1, site.wallMillis());
            holder = null;
        }
    }
}
