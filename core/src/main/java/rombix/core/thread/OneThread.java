package rombix.core.thread;

import org.jspecify.annotations.Nullable;

/**
 * Holds that something is entered by one thread only: the first that enters it. For asserts, as in
 * {@code assert thread.entered() : thread}. Safe to use from any thread.
 */
public final class OneThread {
    private volatile @Nullable Thread owner;

    /** Whether the present thread may enter. */
    public boolean entered() {
        Thread now = Thread.currentThread();
        if (owner == null) {
            owner = now;
        }
        return owner == now;
    }

    @Override
    public String toString() {
        Thread known = owner;
        return "entered by " + Thread.currentThread().getName() + ", owned by " + (known == null
                ? "nobody yet"
                : known.getName());
    }
}
