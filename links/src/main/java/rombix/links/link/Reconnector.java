package rombix.links.link;

import dev.failsafe.Failsafe;
import dev.failsafe.FailsafeException;
import dev.failsafe.FailsafeExecutor;
import dev.failsafe.RetryPolicy;
import java.io.IOException;
import java.time.Duration;
import rombix.core.event.Cause;
import rombix.core.event.Status.Phase;

/**
 * Keeps a link connected: connects, serves the connection until it ends, says that it is lost, and connects again, at
 * first soon and then every few seconds, until it is closed. Safe to use from any thread.
 *
 * @param <C> a connection; closed when it has ended
 */
public final class Reconnector<C extends AutoCloseable> implements AutoCloseable {
    private static final Duration SOON = Duration.ofMillis(500);
    private static final Duration LONGEST = Duration.ofSeconds(4);

    /** The two things that a link does in its own way. Called on one thread. */
    public interface Way<C> {
        /** @throws IOException whose message says in plain words why there is no connection */
        C connect() throws IOException, InterruptedException;

        /**
         * Serves a connection until it ends.
         *
         * @throws IOException whose message says in plain words why it ended
         */
        void serve(C connection) throws IOException, InterruptedException;
    }

    private final GearReport report;
    private final Way<C> way;
    private final FailsafeExecutor<C> again;
    private final Loop loop;
    private volatile boolean closed;

    public Reconnector(GearReport report, String name, Way<C> way) {
        this.report = report;
        this.way = way;
        this.again = Failsafe.with(RetryPolicy.<C>builder().handle(IOException.class).withMaxRetries(-1)
                .withBackoff(SOON, LONGEST).withJitter(0.1)
                .onFailedAttempt(e -> lost(e.getLastException())).build());
        this.loop = Loop.start(name + " " + report.twin().gear(), this::connection, e -> {
            report.troubled(e);
            report.status(Phase.OFF, Cause.TROUBLE, String.valueOf(e));
        });
    }

    private void connection() throws Exception {
        try (C connection = connect()) {
            way.serve(connection);
        } catch (IOException e) {
            lost(e);
            Thread.sleep(SOON);
        }
    }

    private C connect() throws InterruptedException {
        try {
            return again.get(way::connect);
        } catch (FailsafeException e) {
            if (e.getCause() instanceof InterruptedException closed) {
                throw closed;
            }
            throw e;
        }
    }

    private void lost(Throwable e) {
        if (closed) {
            return;
        }
        Refused alert = Secure.alert(e);
        report.off(alert == null ? e : alert);
    }

    public boolean closed() {
        return closed;
    }

    @Override
    public void close() {
        closed = true;
        loop.close();
    }
}
