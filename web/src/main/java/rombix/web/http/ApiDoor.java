package rombix.web.http;

import io.netty.buffer.Unpooled;
import io.netty.channel.ChannelHandlerContext;
import io.netty.handler.codec.http.DefaultHttpContent;
import io.netty.handler.codec.http.DefaultHttpResponse;
import io.netty.handler.codec.http.FullHttpRequest;
import io.netty.handler.codec.http.HttpHeaderNames;
import io.netty.handler.codec.http.HttpResponse;
import io.netty.handler.codec.http.HttpResponseStatus;
import io.netty.handler.codec.http.HttpUtil;
import io.netty.handler.codec.http.HttpVersion;
import io.netty.handler.codec.http.QueryStringDecoder;
import io.netty.handler.timeout.IdleStateHandler;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.TimeUnit;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import rombix.running.state.Subscription;
import rombix.web.access.Access;
import rombix.web.api.ApiAnswer;
import rombix.web.api.ApiCall;
import rombix.web.api.ApiEvent;
import rombix.web.api.Hooks;
import rombix.web.api.ProgramApi;
import rombix.web.json.WebJson;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;

/** Carries the calls of programs: who calls, what comes in, what goes out, and streams of events. The loop's thread. */
final class ApiDoor {
    static final String ROOT = "/api/v1";
    private static final Logger LOG = LoggerFactory.getLogger(ApiDoor.class);
    private static final String DOCUMENT = "/rombix/web/api/openapi.json";
    private static final long KEEP_ALIVE_SECONDS = 15;
    private static final HttpResponseStatus ACCEPTED = HttpResponseStatus.ACCEPTED;

    private final Site site;
    private final ProgramApi api;
    private final Hooks hooks;
    private final byte[] document;

    ApiDoor(Site site, ProgramApi api) {
        this.site = site;
        this.hooks = new Hooks(site.deck());
        this.api = api;
        try (InputStream in = Objects.requireNonNull(ApiDoor.class.getResourceAsStream(DOCUMENT))) {
            document = in.readAllBytes();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    void call(ChannelHandlerContext ctx, FullHttpRequest request) {
        QueryStringDecoder uri = new QueryStringDecoder(request.uri());
        String path = uri.path().substring(ROOT.length());
        if (path.equals("/openapi.json")) {
            Replies.send(ctx, request, HttpResponseStatus.OK, "application/json", document, Map.of());
            return;
        }
        Optional<Access> who = bearer(request).filter(a -> a.kind() == Access.Kind.PROGRAM);
        if (who.isEmpty()) {
            Replies.problem(ctx, request, HttpResponseStatus.UNAUTHORIZED, "No access",
                    "Send a token of Rombix: Authorization: Bearer TOKEN.");
            return;
        }
        site.active(who.get());
        Optional<JsonNode> body = body(ctx, request);
        if (body.isEmpty()) {
            return;
        }
        Map<String, String> query = new HashMap<>();
        uri.parameters().forEach((name, values) -> query.put(name, values.getLast()));
        answer(ctx, request, api.answer(new ApiCall(request.method().name(), path, query, body.get(), who.get())), who
                .get());
    }

    /** The body of a call; empty where it was refused. */
    private static Optional<JsonNode> body(ChannelHandlerContext ctx, FullHttpRequest request) {
        try {
            String text = request.content().toString(StandardCharsets.UTF_8);
            return Optional.of(text.isBlank() ? WebJson.MAPPER.createObjectNode() : WebJson.MAPPER.readTree(text));
        } catch (JacksonException e) {
            Replies.problem(ctx, request, HttpResponseStatus.BAD_REQUEST, "Not JSON", "The body is not valid JSON.");
            return Optional.empty();
        }
    }

    private void answer(ChannelHandlerContext ctx, FullHttpRequest request, ApiAnswer answer, Access who) {
        switch (answer) {
            case ApiAnswer.Found f -> Replies.json(ctx, request, HttpResponseStatus.OK, f.value());
            case ApiAnswer.Accepted _ -> Replies.json(ctx, request, ACCEPTED, Map.of("accepted", true));
            case ApiAnswer.Refused r -> Replies.problem(ctx, request, HttpResponseStatus.valueOf(r.status()), r.title(),
                    r.detail());
            case ApiAnswer.Slow s -> slow(ctx, request, s);
            case ApiAnswer.Follow _ -> follow(ctx, who);
        }
    }

    /** A program pulls the triggers of a name, with the token that was made for it. */
    void pull(ChannelHandlerContext ctx, FullHttpRequest request, String name) {
        Optional<Access> who = bearer(request).filter(a -> a.kind() == Access.Kind.HOOK && a.name().equals(name));
        if (who.isEmpty()) {
            Replies.problem(ctx, request, HttpResponseStatus.UNAUTHORIZED, "No access",
                    "Send the token that was made for this name: Authorization: Bearer TOKEN.");
            return;
        }
        site.active(who.get());
        Optional<JsonNode> values = body(ctx, request);
        values.ifPresent(v -> answer(ctx, request, hooks.pull(name, who.get().source(), v), who.get()));
    }

    private Optional<Access> bearer(FullHttpRequest request) {
        String header = request.headers().get(HttpHeaderNames.AUTHORIZATION, "");
        return header.regionMatches(true, 0, "Bearer ", 0, 7)
                ? site.access().holder(header.substring(7).strip())
                : Optional.empty();
    }

    private static void slow(ChannelHandlerContext ctx, FullHttpRequest request, ApiAnswer.Slow slow) {
        request.retain();
        Thread.startVirtualThread(() -> {
            try {
                Replies.json(ctx, request, HttpResponseStatus.OK, slow.value().call());
            } catch (Exception e) {
                LOG.warn("a call of a program failed", e);
                Replies.problem(ctx, request, HttpResponseStatus.INTERNAL_SERVER_ERROR, "Failed",
                        "It can't be read at the moment.");
            } finally {
                request.release();
            }
        });
    }

    /** Events until the program hangs up, or its token is revoked. One that is too slow is told that it missed some. */
    private void follow(ChannelHandlerContext ctx, Access who) {
        HttpResponse head = new DefaultHttpResponse(HttpVersion.HTTP_1_1, HttpResponseStatus.OK);
        Replies.headers(head.headers());
        head.headers().set(HttpHeaderNames.CONTENT_TYPE, "text/event-stream").set(HttpHeaderNames.CACHE_CONTROL,
                "no-store");
        HttpUtil.setTransferEncodingChunked(head, true);
        ctx.pipeline().remove(IdleStateHandler.class); // It says nothing from now on.
        ctx.write(head);
        write(ctx, api.status().text());
        site.presence().connected(who.id(), 1, site.wallMillis());
        boolean[] missed = new boolean[1];
        Subscription subscription = site.deck().feed().subscribe(ctx.executor(), seen -> {
            if (!ctx.channel().isWritable()) {
                missed[0] = true;
                return;
            }
            StringBuilder out = new StringBuilder();
            if (missed[0] || seen.whole()) {
                missed[0] = false;
                out.append(api.status().text());
            }
            seen.since().forEach(h -> {
                ApiEvent event = api.event(who, h);
                if (event != null) {
                    out.append(event.text());
                }
            });
            if (!out.isEmpty()) {
                write(ctx, out.toString());
            }
        });
        ScheduledFuture<?> alive = ctx.executor().scheduleWithFixedDelay(() -> write(ctx, ": alive\n\n"),
                KEEP_ALIVE_SECONDS, KEEP_ALIVE_SECONDS, TimeUnit.SECONDS);
        Runnable revoked = () -> {
            if (site.access().get(who.id()).isEmpty()) {
                ctx.close();
            }
        };
        site.access().watch(revoked);
        ctx.channel().closeFuture().addListener(_ -> {
            subscription.close();
            alive.cancel(false);
            site.access().unwatch(revoked);
            site.presence().connected(who.id(), -1, site.wallMillis());
        });
    }

    private static void write(ChannelHandlerContext ctx, String text) {
        ctx.writeAndFlush(new DefaultHttpContent(Unpooled.copiedBuffer(text, StandardCharsets.UTF_8)));
    }
}
