package rombix.app.cli.option;

import java.util.Collection;
import java.util.HashSet;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import rombix.core.event.Happening;
import rombix.core.event.Status.Phase;
import rombix.core.thread.Bounded;

/** Waits for newly connected gear to answer. */
public final class Arrivals implements Consumer<Happening> {
    private static final long SETTLE_MILLIS = 10_000;
    private static final long QUIET_MILLIS = 200;

    /** More than happens while gear answers; a flood of readings leaves the oldest behind. */
    public static final int MOST_WAITING = 100_000;

    private final Bounded<Happening> happenings = new Bounded<>(MOST_WAITING, Bounded.Full.DROP_OLDEST);
    private volatile boolean over;

    /** Takes a happening, from any thread. */
    @Override
    public void accept(Happening happening) {
        if (!over) {
            happenings.offer(happening);
        }
    }

    /** Waits until each of some gear answers or is known not to, and what it reports has come. */
    public void await(Collection<String> gear) throws InterruptedException {
        settle(happenings, gear);
        over = true;
        happenings.drain();
    }

    /** How many happenings are kept. */
    public int kept() {
        return happenings.size();
    }

    /** Waits until each of some gear answers or is known not to, and what it reports has come. */
    public static void settle(Bounded<Happening> happenings, Collection<String> gear) throws InterruptedException {
        Set<String> left = new HashSet<>(gear);
        long until = System.nanoTime() + TimeUnit.MILLISECONDS.toNanos(SETTLE_MILLIS);
        while (System.nanoTime() - until < 0) {
            Happening h = happenings.poll(left.isEmpty() ? QUIET_MILLIS : SETTLE_MILLIS, TimeUnit.MILLISECONDS);
            if (h == null) {
                return;
            }
            if (h instanceof Happening.Linked l && l.status().phase() != Phase.CONNECTING) {
                left.remove(l.gear());
            }
        }
    }
}
