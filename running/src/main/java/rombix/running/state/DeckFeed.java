package rombix.running.state;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executor;
import java.util.concurrent.RejectedExecutionException;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import rombix.core.event.Happening;
import rombix.core.event.Mode;

/**
 * Folds what happens into the {@link DeckState}, once, and tells all who follow it, each at its own pace. Fed by one
 * thread at a time; safe to be followed from any.
 *
 * <p>
 * What has happened last is kept once for all subscribers, so that one that is slow, or away, costs no more room than one
 * that is not: of what it has missed it sees the state.
 */
public final class DeckFeed {
    /** How much of what has happened is kept for those who have not looked yet. */
    static final int KEPT = 4096;
    private static final Logger LOG = LoggerFactory.getLogger(DeckFeed.class);

    private final @Nullable Happening[] last = new @Nullable Happening[KEPT];
    private final Set<Follower> followers = ConcurrentHashMap.newKeySet();
    private long count;
    private volatile DeckState state = DeckState.NOTHING;

    /** The present state. */
    public DeckState state() {
        return state;
    }

    /** Something happened at a moment on the deck's clock; gives the state that it is in by then. */
    public DeckState feed(Happening happening, long nanos) {
        DeckState now;
        synchronized (this) {
            now = state.after(happening, nanos);
            state = now;
            last[(int) (count++ % KEPT)] = happening;
        }
        wake();
        return now;
    }

    /** From now on it is another deck that is shown, in the same mode and on the same page. */
    public void become(DeckState next) {
        synchronized (this) {
            state = next.withMode(state.mode()).withPage(state.page());
            last[(int) (count++ % KEPT)] = new Happening.Anew();
        }
        wake();
    }

    /** The deck plays in a mode from now on. */
    public void mode(Mode mode) {
        synchronized (this) {
            state = state.withMode(mode);
        }
        wake();
    }

    /** A page is shown now. */
    public void page(String page) {
        synchronized (this) {
            state = state.withPage(page);
        }
        wake();
    }

    /**
     * Has a listener told of the present state, and then of what changes, as often as it can take it: of what happens
     * while it is told, it is told once, afterwards. One that throws is told of the next change all the same.
     *
     * @param on where it is told, one call at a time; it must not run what it is given at once, on the deck's thread,
     *            unless that takes no time
     */
    public Subscription subscribe(Executor on, Consumer<Seen> listener) {
        Follower follower = new Follower(on, listener);
        followers.add(follower);
        follower.wake();
        return follower;
    }

    private void wake() {
        for (Follower f : followers) {
            f.wake();
        }
    }

    private synchronized Seen seen(long looked) {
        long from = looked < 0 ? count : Math.max(looked, count - KEPT);
        List<Happening> since = new ArrayList<>((int) (count - from));
        boolean whole = looked < from; // It may have looked at nothing yet.
        for (long i = from; i < count; i++) {
            Happening h = last[(int) (i % KEPT)];
            if (h instanceof Happening.Anew) {
                whole = true;
            } else if (h != null) {
                since.add(h);
            }
        }
        return new Seen(state, since, whole);
    }

    private final class Follower implements Subscription {
        private final Executor on;
        private final Consumer<Seen> listener;
        private final AtomicBoolean called = new AtomicBoolean();
        /** How much of all it has looked at; -1 where it has not yet. One call at a time has it. */
        private long looked = -1;
        private volatile boolean closed;
        /** Whether a failure was logged; one call at a time has it. */
        private boolean failed;

        Follower(Executor on, Consumer<Seen> listener) {
            this.on = on;
            this.listener = listener;
        }

        void wake() {
            if (!closed && !called.get() && !called.getAndSet(true)) {
                try {
                    on.execute(this::look);
                } catch (RejectedExecutionException e) {
                    close(); // Where it was told is gone.
                }
            }
        }

        private void look() {
            synchronized (this) {
                called.set(false); // Before: what happens from now on calls again.
                if (closed) {
                    return;
                }
                long upTo;
                Seen seen;
                synchronized (DeckFeed.this) {
                    upTo = count;
                    seen = seen(looked);
                }
                looked = upTo;
                try {
                    listener.accept(seen);
                } catch (RuntimeException e) {
                    if (!failed) { // Once: the next hundred would say the same.
                        failed = true;
                        LOG.error("a follower of the deck failed", e);
                    }
                }
            }
        }

        @Override
        public void close() {
            closed = true;
            followers.remove(this);
        }
    }
}
