package rombix.torture;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.concurrent.atomic.AtomicLong;

/** How far a trial may go, and what it has come to. Safe to use from any thread. */
final class Budget {
    private static final int MOST_WORDS = 20;

    private final long whole;
    private final long untilNanos;
    private final AtomicLong tries = new AtomicLong();
    private final AtomicLong broken = new AtomicLong();
    private final List<String> breaches = Collections.synchronizedList(new ArrayList<>());

    Budget(long whole, long nanos) {
        this.whole = whole;
        this.untilNanos = System.nanoTime() + nanos;
    }

    /** Takes a try; false where there are no more, or no time for one. */
    boolean take() {
        if (System.nanoTime() - untilNanos > 0 && tries.get() > 0 || tries.incrementAndGet() > whole) {
            return false;
        }
        return true;
    }

    long tries() {
        return Math.min(whole, tries.get());
    }

    long leftNanos() {
        return untilNanos - System.nanoTime();
    }

    /** A promise was broken. */
    void breach(String words) {
        if (broken.incrementAndGet() <= MOST_WORDS) {
            breaches.add(words);
        }
    }

    Trial.Outcome outcome(String figure) {
        List<String> all = new ArrayList<>(breaches);
        if (broken.get() > MOST_WORDS) {
            all.add("and " + (broken.get() - MOST_WORDS) + " more");
        }
        return new Trial.Outcome(tries(), all, figure);
    }
}
