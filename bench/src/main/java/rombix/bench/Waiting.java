package rombix.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;
import java.util.concurrent.ScheduledThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import rombix.bench.measure.BenchGear;
import rombix.bench.measure.Figure;
import rombix.bench.measure.Measured;
import rombix.core.board.Rig;
import rombix.core.chain.Chain;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.engine.Deck;
import rombix.core.event.Event;
import rombix.core.event.Trace;
import rombix.core.time.SimulatedClock;

/** Ten thousand chains that wait at once, against as many entries in a bare scheduled executor. */
final class Waiting implements Measured {
    private static final int CHAINS = 10_000;
    private static final int ROUNDS = 30;
    private static final double MAX_BYTES = 1536;

    @Override
    public List<Figure> measure() throws InterruptedException {
        List<Long> ours = new ArrayList<>();
        List<Long> bare = new ArrayList<>();
        double oursHeap = 0;
        double bareHeap = 0;
        for (int i = 0; i < ROUNDS; i++) {
            Deck deck = deck();
            long before = heap(i);
            ours.add(chains(deck));
            oursHeap = (heap(i) - before) / (double) CHAINS;
            deck.advance();
            ScheduledThreadPoolExecutor executor = new ScheduledThreadPoolExecutor(1);
            executor.prestartAllCoreThreads();
            before = heap(i);
            bare.add(entries(executor));
            bareHeap = (heap(i) - before) / (double) CHAINS;
            executor.shutdownNow();
        }
        return List.of(Figure.of("waiting-start", Figure.percentile(ours, 0.5) / 1e6, Figure.percentile(bare, 0.5)
                / 1e6, "ms", 2), new Figure("waiting-heap", oursHeap,
                        bareHeap, oursHeap / bareHeap, "B", MAX_BYTES / bareHeap));
    }

    /** The heap in use, once it is collected; only looked at in the last round. */
    private static long heap(int round) {
        if (round < ROUNDS - 1) {
            return 0;
        }
        for (int i = 0; i < 3; i++) {
            System.gc();
            LockSupport.parkNanos(20_000_000);
        }
        return Runtime.getRuntime().totalMemory() - Runtime.getRuntime().freeMemory();
    }

    private static Deck deck() {
        Rig rig = BenchGear.osc(List.of("127.0.0.1:9"), Chain.of(new Step.Wait(3_600_000), BenchGear.go(0, 1)));
        SimulatedClock clock = new SimulatedClock();
        Deck deck = new Deck(clock, new SplittableRandom(1), (_, _) -> {
        }, _ -> {
        }, Trace.NONE);
        deck.take(new Event.Load(rig), 0);
        return deck;
    }

    private static long chains(Deck deck) {
        Event press = new Event.Perform("b", Gesture.PRESS, "bench");
        long start = System.nanoTime();
        for (int i = 0; i < CHAINS; i++) {
            deck.take(press, i);
        }
        return System.nanoTime() - start;
    }

    private static long entries(ScheduledThreadPoolExecutor executor) {
        long start = System.nanoTime();
        for (int i = 0; i < CHAINS; i++) {
            int n = i;
            executor.schedule(() -> Math.abs(n), 3600, TimeUnit.SECONDS);
        }
        return System.nanoTime() - start;
    }
}
