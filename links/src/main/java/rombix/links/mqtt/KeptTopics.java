package rombix.links.mqtt;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Set;
import java.util.TreeSet;
import java.util.UUID;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import rombix.links.link.HostPort;
import rombix.links.link.Target;

/** The topics that a broker keeps a message for. It follows all of them for a moment, and says nothing itself. */
final class KeptTopics implements AutoCloseable {
    private static final int MOST = 5000;
    private static final int KEEP_ALIVE_SECONDS = 30;
    private static final long TOLD_MILLIS = 400;

    private final Consumer<Set<String>> kept;
    /** Guarded by this. */
    private final Set<String> topics = new TreeSet<>();
    private final @Nullable Broker broker;

    /** Blocks until the broker has answered. @param kept told of them, again when there are more */
    KeptTopics(Target target, Consumer<Set<String>> kept) {
        this.kept = kept;
        Broker first = joined(target, false);
        broker = first == null ? joined(target, true) : first;
    }

    private @Nullable Broker joined(Target target, boolean five) {
        try {
            byte[] secret = target.secret() == null
                    ? null
                    : target.secret().getBytes(
                            StandardCharsets.UTF_8);
            Broker.Call call = new Broker.Call("rombix-" + UUID.randomUUID().toString().substring(0, 8), HostPort
                    .resolved(target.hostPort()), Broker.tls(target.secure()), KEEP_ALIVE_SECONDS, target.user(),
                    secret,
                    null, _ -> {
                    });
            Broker calling = five ? new Broker5(call) : new Broker3(call);
            calling.connect().get(Broker.CONNECT_SECONDS, TimeUnit.SECONDS);
            calling.follow(Set.of("#"), this::take).get(Broker.CONNECT_SECONDS, TimeUnit.SECONDS);
            Thread.sleep(TOLD_MILLIS); // What is kept comes right behind the answer.
            tell();
            return calling;
        } catch (IOException | IllegalArgumentException | ExecutionException | TimeoutException e) {
            return null; // It lets nobody in, or is not there: the gear's window says so once it is added.
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return null;
        }
    }

    private void take(String topic, byte[] payload, boolean kept) {
        synchronized (this) {
            if (payload.length > 0 && topics.size() < MOST && !topic.startsWith("$")) {
                topics.add(topic);
            }
        }
    }

    private void tell() {
        Set<String> now;
        synchronized (this) {
            now = Set.copyOf(topics);
        }
        if (!now.isEmpty()) {
            kept.accept(now);
        }
    }

    @Override
    public void close() {
        if (broker != null) {
            broker.disconnect();
        }
    }
}
