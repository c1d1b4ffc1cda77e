package rombix.core.engine;

import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.locks.LockSupport;
import java.util.function.LongConsumer;
import rombix.core.time.Clock;

/**
 * Sees a thread that has been at one thing for long, and says so once, from a thread of its own: the other can say nothing
 * then. Safe to use from any thread.
 */
final class Watchdog implements AutoCloseable {
    /** How long one thing may take. */
    static final long LONG_NANOS = TimeUnit.MILLISECONDS.toNanos(250);
    private static final long LOOK_NANOS = LONG_NANOS / 2;
    private static final long NOTHING = Long.MIN_VALUE;

    private final Clock clock;
    private final LongConsumer tell;
    private final AtomicLong since = new AtomicLong(NOTHING);
    private final AtomicBoolean closed = new AtomicBoolean();

    /** @param tell told of how many nanoseconds it has been by now, on the watchdog's thread */
    Watchdog(String name, Clock clock, LongConsumer tell) {
        this.clock = clock;
        this.tell = tell;
        Thread.ofVirtual().name(name).start(this::watch);
    }

    /** Something begins now; what was before has ended. */
    void begins() {
        since.setRelease(clock.nanos());
    }

    /** Nothing goes on any more. */
    void ends() {
        since.setRelease(NOTHING);
    }

    private void watch() {
        long told = NOTHING;
        while (!closed.get()) {
            long at = since.get();
            long taken = at == NOTHING ? 0 : clock.real(clock.nanos() - at);
            if (at != told && taken > LONG_NANOS) {
                told = at;
                tell.accept(taken);
            }
            LockSupport.parkNanos(this, LOOK_NANOS);
        }
    }

    @Override
    public void close() {
        closed.set(true);
    }
}
