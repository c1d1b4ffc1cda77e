package rombix.web.http;

import io.netty.buffer.Unpooled;
import io.netty.channel.ChannelFutureListener;
import io.netty.channel.ChannelHandlerContext;
import io.netty.handler.codec.http.DefaultFullHttpResponse;
import io.netty.handler.codec.http.FullHttpRequest;
import io.netty.handler.codec.http.FullHttpResponse;
import io.netty.handler.codec.http.HttpHeaderNames;
import io.netty.handler.codec.http.HttpHeaders;
import io.netty.handler.codec.http.HttpMethod;
import io.netty.handler.codec.http.HttpResponseStatus;
import io.netty.handler.codec.http.HttpUtil;
import io.netty.handler.codec.http.HttpVersion;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import rombix.web.json.WebJson;

/** What is answered, each time with the headers that keep a browser from doing more with it than the page does. */
final class Replies {
    private static final String POLICY = "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self'; "
            + "font-src 'self'; connect-src 'self'; manifest-src 'self'; base-uri 'none'; form-action 'none'; "
            + "frame-ancestors 'none'";
    private static final Map<String, String> ALWAYS = Map.of("Content-Security-Policy", POLICY,
            "X-Content-Type-Options", "nosniff", "Referrer-Policy", "no-referrer", "Cross-Origin-Opener-Policy",
            "same-origin", "Cross-Origin-Resource-Policy", "same-origin", "Permissions-Policy",
            "camera=(), microphone=(), geolocation=()");

    private Replies() {
    }

    static void headers(HttpHeaders headers) {
        ALWAYS.forEach(headers::set);
    }

    static void problem(ChannelHandlerContext ctx, FullHttpRequest request, HttpResponseStatus status, String title,
            String detail) {
        send(ctx, request, status, Problem.TYPE, WebJson.text(Problem.of(status, title, detail)).getBytes(
                StandardCharsets.UTF_8), Map.of());
    }

    static void json(ChannelHandlerContext ctx, FullHttpRequest request, HttpResponseStatus status, Object value) {
        send(ctx, request, status, "application/json", WebJson.text(value).getBytes(
                StandardCharsets.UTF_8), Map.of());
    }

    static void nothing(ChannelHandlerContext ctx, FullHttpRequest request, Map<String, String> more) {
        send(ctx, request, HttpResponseStatus.NO_CONTENT, "", new byte[0], more);
    }

    /** @param more headers beside the usual ones; {@code no-store} is said where none of them says how long it is kept */
    static void send(ChannelHandlerContext ctx, FullHttpRequest request, HttpResponseStatus status, String type,
            byte[] body, Map<String, String> more) {
        boolean head = request.method().equals(HttpMethod.HEAD);
        FullHttpResponse response = new DefaultFullHttpResponse(HttpVersion.HTTP_1_1, status, head
                ? Unpooled.EMPTY_BUFFER
                : Unpooled.wrappedBuffer(body));
        headers(response.headers());
        response.headers().set(HttpHeaderNames.CACHE_CONTROL, "no-store");
        more.forEach(response.headers()::set);
        if (!type.isEmpty()) {
            response.headers().set(HttpHeaderNames.CONTENT_TYPE, type);
        }
        if (!status.equals(HttpResponseStatus.NO_CONTENT) && !status.equals(HttpResponseStatus.NOT_MODIFIED)) {
            response.headers().set(HttpHeaderNames.CONTENT_LENGTH, body.length);
        }
        boolean stays = HttpUtil.isKeepAlive(request) && status.code() < 500 && !status.equals(
                HttpResponseStatus.REQUEST_ENTITY_TOO_LARGE);
        HttpUtil.setKeepAlive(response, stays);
        var written = ctx.writeAndFlush(response);
        if (!stays) {
            written.addListener(ChannelFutureListener.CLOSE);
        }
    }
}
