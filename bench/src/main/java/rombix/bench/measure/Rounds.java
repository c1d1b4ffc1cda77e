package rombix.bench.measure;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Consumer;
import java.util.function.LongConsumer;

/** Measures two ways to the same datagram, turn about, so that both meet the same weather. */
public final class Rounds {
    private static final int PATIENCE_SECONDS = 20;

    private final int warmUp;
    private final int rounds;
    private final int each;
    private final long apartNanos;

    private final AtomicLong arrived = new AtomicLong();
    private final Semaphore one = new Semaphore(0);

    /** As many as the quick ones want. */
    public Rounds() {
        this(4000, 20, 300);
    }

    public Rounds(int warmUp, int rounds, int each) {
        this(warmUp, rounds, each, 1_000_000);
    }

    /** @param apartNanos how long there is nothing between two */
    public Rounds(int warmUp, int rounds, int each, long apartNanos) {
        this.warmUp = warmUp;
        this.rounds = rounds;
        this.each = each;
        this.apartNanos = apartNanos;
    }

    /** Something that has one datagram arrive at the gear. */
    public interface Way {
        void go() throws Exception;
    }

    /**
     * From a way's begin to its datagram's arrival: the median and the 99th percentile of both.
     *
     * @param reach what the ratio is to stay under
     */
    public List<Figure> figures(String name, BenchGear gear, Way ours, Way bare, double reach) throws Exception {
        return figures(name, gear::received, ours, bare, reach);
    }

    /** @param far takes what is to be told of each arrival */
    public List<Figure> figures(String name, Consumer<LongConsumer> far, Way ours, Way bare, double reach)
            throws Exception {
        far.accept(at -> {
            arrived.set(at);
            one.release();
        });
        one.drainPermits();
        for (int i = 0; i < warmUp; i++) {
            once(ours);
            once(bare);
            LockSupport.parkNanos(apartNanos > 1_000_000 ? apartNanos : 0);
        }
        List<Long> our = new ArrayList<>();
        List<Long> their = new ArrayList<>();
        for (int round = 0; round < rounds; round++) {
            for (int i = 0; i < each; i++) {
                our.add(once(ours));
                LockSupport.parkNanos(apartNanos);
            }
            for (int i = 0; i < each; i++) {
                their.add(once(bare));
                LockSupport.parkNanos(apartNanos);
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
        if (!one.tryAcquire(PATIENCE_SECONDS, TimeUnit.SECONDS)) {
            throw new IOException("nothing arrived within " + PATIENCE_SECONDS + " s");
        }
        return Math.max(0, arrived.get() - start);
    }
}
