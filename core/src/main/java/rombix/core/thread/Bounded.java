package rombix.core.thread;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.LinkedBlockingDeque;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import org.jspecify.annotations.Nullable;

/** A queue between threads with a limit, and a policy for items that arrive when it is full. Thread-safe. */
public final class Bounded<T> {
    /** What happens to an item that arrives when the queue is full. */
    public enum Full {
        /** The producer waits for room. */
        WAIT,
        /** The oldest item is dropped and counted. */
        DROP_OLDEST,
        /** The item is refused; the producer reports it. */
        REFUSE
    }

    private final LinkedBlockingDeque<T> queue;
    private final Full full;
    private final AtomicLong dropped = new AtomicLong();

    /** @param most capacity */
    public Bounded(int most, Full full) {
        queue = new LinkedBlockingDeque<>(most);
        this.full = full;
    }

    /** Adds an item. @return false if it was refused, or the thread was interrupted while waiting */
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

    /** Takes the oldest item; waits for one. */
    public T take() throws InterruptedException {
        return queue.take();
    }

    /** Takes the oldest item; null after the timeout. */
    public @Nullable T poll(long time, TimeUnit unit) throws InterruptedException {
        return queue.poll(time, unit);
    }

    /** Takes the oldest item; null if the queue is empty. */
    public @Nullable T poll() {
        return queue.poll();
    }

    /** Removes and returns all items, oldest first. */
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

    /** Number of items dropped so far. */
    public long dropped() {
        return dropped.get();
    }
}
