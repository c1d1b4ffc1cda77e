package rombix.core.thread;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.LinkedBlockingDeque;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import org.jspecify.annotations.Nullable;

/** What waits between two threads: never more than so many, and what becomes of the next one is said here. */
public final class Bounded<T> {
    /** What becomes of one that comes while it is full. */
    public enum Full {
        /** Whoever brings it waits until there is room. */
        WAIT,
        /** The oldest that waits is dropped for it, and counted. */
        DROP_OLDEST,
        /** It is not taken; whoever brings it has to say so. */
        REFUSE
    }

    private final LinkedBlockingDeque<T> queue;
    private final Full full;
    private final AtomicLong dropped = new AtomicLong();

    /** @param most how many wait at most */
    public Bounded(int most, Full full) {
        queue = new LinkedBlockingDeque<>(most);
        this.full = full;
    }

    /** Brings one, from any thread; whether it is taken: it is not where it is refused, or the thread is interrupted. */
    public boolean offer(T next) {
        switch (full) {
            case WAIT -> {
                try {
                    queue.put(next);
                } catch (InterruptedException e) {
                    Thread.currentThread().interrupt();
                    return false;
                }
                return true;
            }
            case DROP_OLDEST -> {
                while (!queue.offer(next)) {
                    if (queue.poll() != null) {
                        dropped.incrementAndGet();
                    }
                }
                return true;
            }
            case REFUSE -> {
                return queue.offer(next);
            }
        }
        throw new AssertionError(full);
    }

    /** Takes the oldest; waits until there is one. */
    public T take() throws InterruptedException {
        return queue.take();
    }

    /** Takes the oldest; waits for it for so long. */
    public @Nullable T poll(long time, TimeUnit unit) throws InterruptedException {
        return queue.poll(time, unit);
    }

    /** Takes the oldest where there is one. */
    public @Nullable T poll() {
        return queue.poll();
    }

    /** Takes all away, oldest first. */
    public List<T> drain() {
        List<T> all = new ArrayList<>();
        queue.drainTo(all);
        return all;
    }

    public int size() {
        return queue.size();
    }

    public boolean isEmpty() {
        return queue.isEmpty();
    }

    /** How many were dropped so far. */
    public long dropped() {
        return dropped.get();
    }
}
