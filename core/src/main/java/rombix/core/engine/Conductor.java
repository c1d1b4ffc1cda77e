package rombix.core.engine;

import java.util.Map;
import java.util.Queue;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.random.RandomGenerator;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import rombix.core.engine.run.Orders;
import rombix.core.event.Event;
import rombix.core.event.Gears;
import rombix.core.event.Happening;
import rombix.core.event.Trace;
import rombix.core.event.Trouble;
import rombix.core.time.Clock;
import rombix.core.value.Value;

/**
 * The one thread that owns a deck: it takes what is posted, does what is due, and sleeps until the next of either.
 */
public final class Conductor implements AutoCloseable {
    /** How long before something is due the thread wakes up, and watches the clock. */
    private static final long EARLY_NANOS = 250_000;
    private static final long LONGEST_END_MILLIS = 2500;
    private static final Logger LOG = LoggerFactory.getLogger(Conductor.class);

    private final Clock clock;
    private final Queue<Posted> posted = new ConcurrentLinkedQueue<>();
    private static final int MOST_WORDS = 100_000;
    /** What numbers are by now whose events wait. */
    private final Map<Orders.Key, Event.Came> latest = new ConcurrentHashMap<>();
    private final AtomicInteger words = new AtomicInteger();
    private final Deck deck;
    private final Thread thread;
    private final Consumer<Happening> watcher;
    private final Watchdog watchdog;
    private volatile boolean closed;

    private record Posted(Event event, long atNanos) {
    }

    /**
     * Starts the thread.
     *
     * @param chance where random times and picks come from; used by the thread alone
     * @param gears makes the way out to the gear, given the way back in
     * @param watcher see {@link Deck}; that the deck is stuck is told from another thread
     */
    public Conductor(Clock clock, RandomGenerator chance, Function<Consumer<Event>, Gears> gears,
            Consumer<Happening> watcher) {
        this.clock = clock;
        this.watcher = watcher;
        this.deck = new Deck(clock, chance, gears.apply(this::post), watcher, Trace.NONE);
        this.thread = Thread.ofPlatform().name("conductor").stackSize(64L << 20).daemon().unstarted(this::run);
        this.watchdog = new Watchdog("conductor's watchdog", clock, this::stuck);
        thread.start();
    }

    /** Hands an event in, from any thread, stamped with the present moment. Never blocks. */
    public void post(Event event) {
        if (event instanceof Event.Came c && !queued(c)) {
            return;
        }
        posted.add(new Posted(event, clock.nanos()));
        if (Thread.currentThread() != thread) {
            LockSupport.unpark(thread);
        }
    }

    /**
     * Of the numbers of one reading only the latest waits: a meter that moves faster than the deck can look takes no
     * memory. What else readings say is not left out, but for a flood that nobody could take.
     */
    private boolean queued(Event.Came came) {
        if (came.value() instanceof Value.Num && !came.moment()) {
            return latest.put(new Orders.Key(came.gear(), came.reading()), came) == null;
        }
        if (words.incrementAndGet() > MOST_WORDS) {
            words.decrementAndGet();
            return false;
        }
        return true;
    }

    private Event present(Event event) {
        if (!(event instanceof Event.Came c)) {
            return event;
        }
        if (!(c.value() instanceof Value.Num) || c.moment()) {
            words.decrementAndGet();
            return event;
        }
        Event.Came now = latest.remove(new Orders.Key(c.gear(), c.reading()));
        return now == null ? event : now;
    }

    /** The thread never dies before it is closed: whatever is thrown costs what threw it. */
    private void run() {
        while (!closed || !posted.isEmpty()) {
            try {
                conduct();
            } catch (RuntimeException | Error e) {
                LOG.error("the conductor goes on after this", e);
                posted.add(new Posted(new Event.StopAll(), clock.nanos())); // Nothing stays held by what was lost.
                watcher.accept(new Happening.Faulted("", null,
                        "An error stopped all chains; the deck keeps running: " + Trouble
                                .words(e)));
            }
        }
        watchdog.close();
    }

    private void stuck(long nanos) {
        watcher.accept(new Happening.Faulted(deck.stepOf(), null, busy(nanos / 1_000_000, deck.step())));
    }

    /** @param step the step that began last, in words; empty where none has yet */
    static String busy(long millis, String step) {
        return "The deck has been busy for %d ms%s".formatted(millis, step.isEmpty() ? "" : " with this step: " + step);
    }

    private void conduct() {
        while (!closed || !posted.isEmpty()) {
            watchdog.begins();
            for (Posted p = posted.poll(); p != null; p = posted.poll()) {
                deck.take(present(p.event()), p.atNanos());
                watchdog.begins();
            }
            long wait = real(deck.advance());
            watchdog.ends();
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

    /**
     * Ends the show: what runs is stopped, every hold ends, and what those have to say goes out; takes at most little more
     * than two seconds. Not on the conductor's own thread.
     */
    public void end() {
        CountDownLatch ended = new CountDownLatch(1);
        post(new Event.End(ended::countDown));
        try {
            if (thread.isAlive() && !ended.await(LONGEST_END_MILLIS, TimeUnit.MILLISECONDS)) {
                LOG.warn("the conductor didn't end");
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
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
