package rombix.web.http;

import io.netty.channel.ChannelHandlerContext;
import io.netty.channel.SimpleChannelInboundHandler;
import io.netty.handler.codec.http.FullHttpRequest;
import io.netty.handler.codec.http.HttpHeaderNames;
import io.netty.handler.codec.http.HttpMethod;
import io.netty.handler.codec.http.HttpResponseStatus;
import io.netty.handler.codec.http.QueryStringDecoder;
import io.netty.handler.codec.http.cookie.Cookie;
import io.netty.handler.codec.http.cookie.ServerCookieDecoder;
import io.netty.util.AttributeKey;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import rombix.core.board.Board;
import rombix.core.board.Board.Picture;
import rombix.web.access.Access;
import rombix.web.access.Invitations;
import rombix.web.json.WebJson;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;

/**
 * Each request, checked before anything else: that it is meant for this computer (Host), that it comes from the page that
 * is served here (Origin), and who sends it. The loop's thread.
 */
final class HttpDoor extends SimpleChannelInboundHandler<FullHttpRequest> {
    /** Who has opened a channel that stays. */
    static final AttributeKey<Access> HOLDER = AttributeKey.valueOf("rombix.holder");
    static final String LIVE = "/live";
    private static final Logger LOG = LoggerFactory.getLogger(HttpDoor.class);
    private static final String HOOK = "/hook/";
    private static final String COOKIE = "__Host-rombix";
    private static final long COOKIE_SECONDS = 60L * 60 * 24 * 400;
    private static final String YEAR = "max-age=31536000, immutable";

    private final Site site;
    private final ApiDoor programs;

    HttpDoor(Site site, ApiDoor programs) {
        this.site = site;
        this.programs = programs;
    }

    @Override
    protected void channelRead0(ChannelHandlerContext ctx, FullHttpRequest request) {
        if (request.decoderResult().isFailure()) {
            Replies.problem(ctx, request, HttpResponseStatus.BAD_REQUEST, "Not HTTP", "The request can't be read.");
            return;
        }
        String host = request.headers().get(HttpHeaderNames.HOST, "").toLowerCase(Locale.ROOT);
        if (!site.hosts().contains(host)) {
            Replies.problem(ctx, request, HttpResponseStatus.MISDIRECTED_REQUEST, "Wrong host",
                    "This server has another name. Use the address that Rombix shows.");
            return;
        }
        String path = request.uri().split("\\?", 2)[0];
        String origin = request.headers().get(HttpHeaderNames.ORIGIN);
        boolean named = upgrades(request) || path.equals("/join") || path.equals("/leave"); // Browsers say there who asks.
        if (origin == null ? named : !site.ours(origin)) {
            Replies.problem(ctx, request, HttpResponseStatus.FORBIDDEN, "Wrong origin",
                    "Only the page that is served here may do that.");
            return;
        }
        route(ctx, request, path);
    }

    private static boolean upgrades(FullHttpRequest request) {
        return request.headers().contains(HttpHeaderNames.UPGRADE, "websocket", true);
    }

    private void route(ChannelHandlerContext ctx, FullHttpRequest request, String path) {
        boolean reads = request.method().equals(HttpMethod.GET) || request.method().equals(HttpMethod.HEAD);
        boolean posts = request.method().equals(HttpMethod.POST);
        Optional<PageFiles.PageFile> file = reads ? site.files().at(path) : Optional.empty();
        if (file.isPresent()) {
            Replies.send(ctx, request, HttpResponseStatus.OK, file.get().type(), file.get().bytes(), Map.of(
                    "Cache-Control", file.get().kept() ? YEAR : "no-cache"));
        } else if (path.startsWith(ApiDoor.ROOT + "/")) {
            programs.call(ctx, request);
        } else if (posts && path.startsWith(HOOK)) {
            programs.pull(ctx, request, QueryStringDecoder.decodeComponent(path.substring(HOOK.length())));
        } else if (posts && path.equals("/join")) {
            join(ctx, request);
        } else if (posts && path.equals("/leave")) {
            leave(ctx, request);
        } else if (reads && path.equals(LIVE)) {
            live(ctx, request);
        } else if (reads && path.startsWith("/picture/")) {
            picture(ctx, request, path.substring("/picture/".length()));
        } else {
            Replies.problem(ctx, request, HttpResponseStatus.NOT_FOUND, "Not found", "Nothing is served there.");
        }
    }

    private void join(ChannelHandlerContext ctx, FullHttpRequest request) {
        JsonNode body;
        try {
            body = WebJson.MAPPER.readTree(request.content().toString(StandardCharsets.UTF_8));
        } catch (JacksonException e) {
            Replies.problem(ctx, request, HttpResponseStatus.BAD_REQUEST, "Not JSON", "Send a code and a name.");
            return;
        }
        String name = body.path("name").asString("").strip();
        if (name.isEmpty() || name.length() > Access.MAX_NAME) {
            Replies.problem(ctx, request, HttpResponseStatus.BAD_REQUEST, "No name", "Enter a name of 1 to "
                    + Access.MAX_NAME + " characters for this device.");
            return;
        }
        switch (site.invitations().attempt(body.path("code").asString(""))) {
            case Invitations.Welcome w -> welcome(ctx, request, name, w.invitation());
            case Invitations.Wrong wrong -> {
                request.retain();
                ctx.executor().schedule(() -> {
                    Replies.problem(ctx, request, HttpResponseStatus.FORBIDDEN, "Wrong code",
                            "That code isn't valid. It may have run out: ask for a new one.");
                    request.release();
                }, wrong.waitMillis(), TimeUnit.MILLISECONDS);
            }
            case Invitations.Closed closed -> {
                if (closed.first()) {
                    site.notices().accept(
                            "Too many wrong codes were entered for pages in a browser. No device is let in for a minute.");
                }
                Replies.problem(ctx, request, HttpResponseStatus.TOO_MANY_REQUESTS, "Too many wrong codes",
                        "Wait a minute, and ask for a new code.");
            }
        }
    }

    private void welcome(ChannelHandlerContext ctx, FullHttpRequest request, String name,
            Invitations.Invitation invitation) {
        try {
            String token = site.access().add(name, Access.Kind.DEVICE, invitation.pages(), invitation.rights(), site
                    .wallMillis());
            site.notices().accept("“" + name + "” was let in and shows pages in its browser.");
            Replies.nothing(ctx, request, Map.of("Set-Cookie", cookie(token, COOKIE_SECONDS)));
        } catch (IOException e) {
            LOG.warn("a device can't be let in", e);
            Replies.problem(ctx, request, HttpResponseStatus.INSUFFICIENT_STORAGE, "Not let in", String.valueOf(e
                    .getMessage()));
        }
    }

    private static String cookie(String token, long seconds) {
        return COOKIE + "=" + token + "; Path=/; Max-Age=" + seconds + "; Secure; HttpOnly; SameSite=Strict";
    }

    private void leave(ChannelHandlerContext ctx, FullHttpRequest request) {
        device(request).ifPresent(a -> {
            try {
                site.access().remove(a.id());
            } catch (IOException e) {
                LOG.warn("a device that left is still in the list", e);
            }
        });
        Replies.nothing(ctx, request, Map.of("Set-Cookie", cookie("", 0)));
    }

    private Optional<Access> device(FullHttpRequest request) {
        String header = request.headers().get(HttpHeaderNames.COOKIE, "");
        for (Cookie c : ServerCookieDecoder.STRICT.decode(header)) {
            if (c.name().equals(COOKIE)) {
                return site.access().holder(c.value()).filter(a -> a.kind() == Access.Kind.DEVICE);
            }
        }
        return Optional.empty();
    }

    private void live(ChannelHandlerContext ctx, FullHttpRequest request) {
        Optional<Access> holder = device(request);
        if (holder.isEmpty()) {
            Replies.problem(ctx, request, HttpResponseStatus.UNAUTHORIZED, "Not let in",
                    "This device has no access. Enter a code from Rombix.");
        } else if (!upgrades(request)) {
            // A page asks so whether it was let in: a browser doesn't tell it why a socket was refused.
            Replies.nothing(ctx, request, Map.of());
        } else {
            ctx.channel().attr(HOLDER).set(holder.get());
            ctx.fireChannelRead(request.retain());
        }
    }

    private void picture(ChannelHandlerContext ctx, FullHttpRequest request, String id) {
        Board board = site.deck().rig().board();
        Optional<Picture> picture = device(request).filter(a -> board.pages().stream().anyMatch(p -> a.sees(p.id()) && p
                .buttons().stream().anyMatch(b -> b.shows(id)))).flatMap(_ -> board.picture(id));
        if (picture.isEmpty()) {
            Replies.problem(ctx, request, HttpResponseStatus.NOT_FOUND, "Not found", "The board has no such picture.");
            return;
        }
        byte[] bytes = Base64.getDecoder().decode(picture.get().data());
        String type = type(bytes);
        Replies.send(ctx, request, HttpResponseStatus.OK, type, bytes, Map.of("Cache-Control", "private, " + YEAR,
                "Content-Security-Policy", "default-src 'none'; style-src 'unsafe-inline'; sandbox"));
    }

    private static String type(byte[] bytes) {
        String head = new String(bytes, 0, Math.min(bytes.length, 4), StandardCharsets.ISO_8859_1);
        return head.startsWith("\u0089PNG")
                ? "image/png"
                : head.startsWith("GIF8")
                        ? "image/gif"
                        : head.startsWith("BM")
                                ? "image/bmp"
                                : head.startsWith("\u00FF\u00D8") ? "image/jpeg" : "image/svg+xml";
    }

    @Override
    public void exceptionCaught(ChannelHandlerContext ctx, Throwable cause) {
        LOG.debug("a connection failed", cause); // What comes from outside may be anything.
        ctx.close();
    }
}
