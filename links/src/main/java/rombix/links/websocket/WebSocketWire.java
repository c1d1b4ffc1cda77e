package rombix.links.websocket;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.SocketTimeoutException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpTimeoutException;
import java.net.http.WebSocket;
import java.net.http.WebSocketHandshakeException;
import java.nio.ByteBuffer;
import java.time.Duration;
import java.util.HexFormat;
import java.util.List;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionStage;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import javax.net.ssl.SSLException;
import org.jspecify.annotations.Nullable;
import rombix.core.event.Cause;
import rombix.core.twin.MessageReader.Message;
import rombix.core.twin.Order;
import rombix.core.value.Limits;
import rombix.core.value.Value;
import rombix.links.link.Banner;
import rombix.links.link.GearPlaces;
import rombix.links.link.HostPort;
import rombix.links.link.Refused;
import rombix.links.link.Secure;
import rombix.links.link.Target;
import rombix.links.link.Web;
import rombix.links.talk.Talk;
import rombix.links.talk.Wire;
import rombix.wire.Malformed;

/** One connection over WebSocket. Where nothing comes it asks whether the other end is still there. */
final class WebSocketWire implements Wire {
    private static final int CONNECT_SECONDS = 4;
    private static final int SEND_SECONDS = 4;
    private static final int LOOK_SECONDS = 2;
    private static final long QUIET_NANOS = TimeUnit.SECONDS.toNanos(6);
    private static final long ANSWER_NANOS = TimeUnit.SECONDS.toNanos(4);
    /** How many messages may wait to be read: then the other end waits. */
    private static final int MOST_WAITING = 1024;
    private static final Object END = new Object();

    private final BlockingQueue<Object> came = new LinkedBlockingQueue<>(MOST_WAITING);
    /** Characters of messages that may wait, beside their number. */
    private final Semaphore room = new Semaphore(2 * Limits.MESSAGE);
    private final HttpClient client;
    private final WebSocket socket;
    private volatile long heard = System.nanoTime();
    private volatile long asked;

    WebSocketWire(Target target, GearPlaces places) throws IOException, InterruptedException {
        Secure secure = target.secure();
        String path = places.text(WebSockets.PATH);
        String at = HostPort.words(target.hostPort());
        HostPort.resolved(target.hostPort());
        client = Web.client(secure);
        try {
            WebSocket.Builder builder = client.newWebSocketBuilder()
                    .connectTimeout(Duration.ofSeconds(CONNECT_SECONDS));
            String secret = target.secret();
            if (!target.user().isEmpty() && secret != null) {
                builder.header("Authorization", Web.basic(target.user(), secret));
            }
            String subprotocol = places.text(WebSockets.SUBPROTOCOL);
            if (!subprotocol.isEmpty()) {
                builder.subprotocols(subprotocol);
            }
            socket = builder.buildAsync(URI.create((secure == null ? "ws://" : "wss://") + at + (path.startsWith("/")
                    ? path
                    : "/" + path)), new Ear()).get(CONNECT_SECONDS, TimeUnit.SECONDS);
            if (secure != null) {
                secure.shaken();
            }
        } catch (ExecutionException | TimeoutException | IllegalArgumentException | Refused e) {
            client.shutdownNow();
            throw why(e, at, secure, target);
        }
    }

    private static IOException why(Exception e, String at, @Nullable Secure secure, Target target) {
        for (Throwable c = e; c != null; c = c.getCause()) {
            switch (c) {
                case Refused r -> {
                    return r;
                }
                case WebSocketHandshakeException h -> {
                    int status = h.getResponse() == null ? 0 : h.getResponse().statusCode();
                    return status == 401 || status == 403
                            ? Web.unknown(target)
                            : new Refused(h, Cause.NO_WEBSOCKET, String.valueOf(status));
                }
                case SSLException s when secure != null -> {
                    return secure.refused(s);
                }
                case HttpTimeoutException _,TimeoutException _ -> {
                    return Refused.noAnswer(at, e);
                }
                default -> {
                }
            }
        }
        String said = e instanceof IllegalArgumentException ? "" : Banner.of(target.hostPort());
        if (!said.isEmpty()) {
            return new Refused(e, Cause.NOT_WEBSOCKET, said);
        }
        return e instanceof IllegalArgumentException
                ? new Refused(e, Cause.WRONG_PATH, String.valueOf(e.getMessage()))
                : Refused.noAnswer(at, e);
    }

    /** Hears what comes, on the client's threads; what cannot be taken yet is not asked for. */
    private final class Ear implements WebSocket.Listener {
        private final StringBuilder text = new StringBuilder();
        private final ByteArrayOutputStream binary = new ByteArrayOutputStream();
        private boolean tooLong;

        @Override
        public @Nullable CompletionStage<?> onText(WebSocket from, CharSequence data, boolean last) {
            heard = System.nanoTime();
            if (text.length() + data.length() <= Limits.MESSAGE) {
                text.append(data);
            } else {
                tooLong = true;
            }
            if (last) {
                put(tooLong
                        ? new Malformed("a message of more than " + Limits.MESSAGE + " letters")
                        : new Message("text", List.of(Value.of(text.toString()))));
                text.setLength(0);
                tooLong = false;
            }
            from.request(1);
            return null;
        }

        @Override
        public @Nullable CompletionStage<?> onBinary(WebSocket from, ByteBuffer data, boolean last) {
            heard = System.nanoTime();
            byte[] bytes = new byte[data.remaining()];
            data.get(bytes);
            if (binary.size() + bytes.length <= Limits.MESSAGE / 2) { // Two digits for each.
                binary.writeBytes(bytes);
            } else {
                tooLong = true;
            }
            if (last) {
                put(tooLong
                        ? new Malformed("a message of more than " + Limits.MESSAGE / 2 + " bytes")
                        : new Message("bytes", List.of(Value.of(HexFormat.of().formatHex(binary.toByteArray())))));
                binary.reset();
                tooLong = false;
            }
            from.request(1);
            return null;
        }

        @Override
        public @Nullable CompletionStage<?> onPong(WebSocket from, ByteBuffer message) {
            heard = System.nanoTime();
            from.request(1);
            return null;
        }

        @Override
        public @Nullable CompletionStage<?> onClose(WebSocket from, int code, String reason) {
            put(reason.isBlank() ? END : new Refused(Cause.ENDED_SAYING, reason));
            return null;
        }

        @Override
        public void onError(WebSocket from, Throwable error) {
            put(END);
        }

        private void put(Object what) {
            try {
                room.acquire(size(what));
                came.put(what);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        }
    }

    @Override
    public void write(Order.Outgoing packet) throws IOException {
        StringBuilder all = new StringBuilder();
        packet.args().forEach(all::append);
        try {
            CompletableFuture<WebSocket> sent = packet.address().equals("bytes")
                    ? socket.sendBinary(ByteBuffer.wrap(HexFormat.of().parseHex(all.toString().replaceAll("\\s", ""))),
                            true)
                    : socket.sendText(all, true);
            sent.get(SEND_SECONDS, TimeUnit.SECONDS);
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException("“" + all + "” isn't a sequence of hexadecimal bytes", e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("was closed", e);
        } catch (ExecutionException | TimeoutException e) {
            throw new Refused(e, Cause.BROKE);
        }
    }

    @Override
    public @Nullable Message read() throws IOException, Malformed {
        Object next;
        try {
            next = came.poll(LOOK_SECONDS, TimeUnit.SECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return null;
        }
        switch (next) {
            case null -> {
                alive();
                throw new SocketTimeoutException();
            }
            case Message message -> {
                room.release(size(message));
                return message;
            }
            case Malformed e -> throw e;
            case IOException e -> throw e;
            default -> {
                return null;
            }
        }
    }

    /** Characters, as far as they count. */
    private static int size(Object what) {
        return what instanceof Message m ? m.args().getFirst().toString().length() : 0;
    }

    private void alive() throws IOException {
        long now = System.nanoTime();
        if (now - heard < QUIET_NANOS) {
            asked = 0;
        } else if (asked == 0) {
            asked = now;
            socket.sendPing(ByteBuffer.allocate(0));
        } else if (now - asked > ANSWER_NANOS) {
            throw new Refused(Cause.STOPPED_ANSWERING);
        }
    }

    @Override
    public void close() {
        if (!socket.isOutputClosed()) {
            socket.sendClose(WebSocket.NORMAL_CLOSURE, "").orTimeout(1, TimeUnit.SECONDS).whenComplete((_, _) -> {
                socket.abort();
                client.shutdownNow();
            });
        } else {
            socket.abort();
            client.shutdownNow();
        }
        came.offer(END);
    }
}
