package rombix.core.engine;

import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.random.RandomGenerator;

/**
 * The one thread that owns a deck: it takes what is posted, does what is due, and sleeps until the next of either.
 */
public final class Conductor implements AutoCloseable {
    /** How long before something is due the thread wakes up, and watches the clock. */
    private static final long EARLY_NANOS = 250_000;

    private final Clock clock;
    private final Queue<Posted> posted = new ConcurrentLinkedQueue<>();
    private final Deck deck;
    private final Thread thread;
    private volatile boolean closed;

    private record Posted(Event event, long atNanos) {
    }

    /**
     * Starts the thread.
     *
     * @param chance where random times and picks come from; used by the thread alone
     * @param gears makes the way out to the gear, given the way back in
     * @param watcher see {@link Deck}
     */
    public Conductor(Clock clock, RandomGenerator chance, Function<Consumer<Event>, Gears> gears,
            Consumer<Happening> watcher) {
        this.clock = clock;
        this.deck = new Deck(clock, chance, gears.apply(this::post), watcher, Trace.NONE);
        this.thread = Thread.ofPlatform().name("conductor").stackSize(64L << 20).daemon().unstarted(this::conduct);
        thread.start();
    }

    /** Hands an event in, from any thread, stamped with the present moment. Never blocks. */
    public void post(Event event) {
        posted.add(new Posted(event, clock.nanos()));
        if (Thread.currentThread() != thread) {
            LockSupport.unpark(thread);
        }
    }

    private void conduct() {
        while (!closed || !posted.isEmpty()) {
            for (Posted p = posted.poll(); p != null; p = posted.poll()) {
                deck.take(p.event(), p.atNanos());
            }
            long wait = real(deck.advance());
            if (posted.isEmpty()) {
                if (wait == Long.MAX_VALUE) {
                    LockSupport.park(this);
                } else if (wait > EARLY_NANOS) {
                    LockSupport.parkNanos(this, wait - EARLY_NANOS);
                } else {
                    watchTheClock(wait);
                }
            }
        }
    }

    private long real(long wait) {
        return wait == Long.MAX_VALUE ? wait : clock.real(wait);
    }

    /** Waits the last moment awake: a thread that sleeps until a moment wakes up after it. */
    private void watchTheClock(long wait) {
        long start = clock.nanos();
        while (clock.real(clock.nanos() - start) < wait && posted.isEmpty() && !closed) {
            Thread.onSpinWait();
        }
    }

    /** Ends the thread, after what is posted has been taken. */
    @Override
    public void close() {
        closed = true;
        LockSupport.unpark(thread);
        try {
            thread.join(2000);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
