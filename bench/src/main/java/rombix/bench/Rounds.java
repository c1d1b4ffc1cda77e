package rombix.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Semaphore;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.locks.LockSupport;

/** Measures two ways to the same datagram, turn about, so that both meet the same weather. */
final class Rounds {
    private static final int WARM_UP = 4000;
    private static final int ROUNDS = 20;
    private static final int EACH = 300;
    private static final long APART_NANOS = 1_000_000;

    private final AtomicLong arrived = new AtomicLong();
    private final Semaphore one = new Semaphore(0);

    /** Something that has one datagram arrive at the gear. */
    interface Way {
        void go() throws Exception;
    }

    /**
     * From a way's begin to its datagram's arrival: the median and the 99th percentile of both.
     *
     * @param reach what the ratio is to stay under
     */
    List<Figure> figures(String name, Gear gear, Way ours, Way bare, double reach) throws Exception {
        gear.received(at -> {
            arrived.set(at);
            one.release();
        });
        one.drainPermits();
        for (int i = 0; i < WARM_UP; i++) {
            once(ours);
            once(bare);
        }
        List<Long> our = new ArrayList<>();
        List<Long> their = new ArrayList<>();
        for (int round = 0; round < ROUNDS; round++) {
            for (int i = 0; i < EACH; i++) {
                our.add(once(ours));
                LockSupport.parkNanos(APART_NANOS);
            }
            for (int i = 0; i < EACH; i++) {
                their.add(once(bare));
                LockSupport.parkNanos(APART_NANOS);
            }
        }
        return List.of(figure(name + "-p50", our, their, 0.5, reach), figure(name + "-p99", our, their, 0.99, reach));
    }

    private static Figure figure(String name, List<Long> ours, List<Long> bare, double part, double reach) {
        return Figure.of(name, Figure.percentile(ours, part) / 1e3, Figure.percentile(bare, part) / 1e3, "µs", reach);
    }

    private long once(Way way) throws Exception {
        long start = System.nanoTime();
        way.go();
        one.acquire();
        return Math.max(0, arrived.get() - start);
    }
}
