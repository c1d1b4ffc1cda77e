package rombix.bench;

import java.nio.ByteBuffer;
import java.nio.channels.DatagramChannel;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.SplittableRandom;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.locks.LockSupport;
import rombix.bench.measure.BenchGear;
import rombix.bench.measure.Figure;
import rombix.bench.measure.Measured;
import rombix.core.board.Rig;
import rombix.core.chain.Chain;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.engine.Conductor;
import rombix.core.event.Event;
import rombix.core.event.Happening;
import rombix.links.Links;
import rombix.links.MachineClock;

/** How late timed steps are, in a chain of 200 waits, against a thread that parks until each due time and sends. */
final class Lateness implements Measured {
    private static final int WAITS = 200;
    private static final int ROUNDS = 8;
    private static final int ENDS = 20;

    @Override
    public List<Figure> measure() throws Exception {
        Random random = new Random(11);
        long[] waits = random.longs(WAITS, 3, 41).toArray();
        List<Step> steps = new ArrayList<>();
        for (long w : waits) {
            steps.add(new Step.Wait(w));
            steps.add(BenchGear.go(0, 7));
        }
        List<List<Long>> bare = new ArrayList<>();
        List<List<Long>> late = new ArrayList<>();
        try (BenchGear gear = new BenchGear()) {
            Rig rig = BenchGear.osc(List.of(gear.address()), new Chain(steps));
            Links[] links = new Links[1];
            List<Long> now = new ArrayList<>();
            CountDownLatch[] done = new CountDownLatch[1];
            try (Conductor conductor = new Conductor(new MachineClock(), new SplittableRandom(1), post -> {
                links[0] = new Links(new MachineClock(), post);
                return links[0];
            }, h -> {
                switch (h) {
                    case Happening.Ran r -> now.add(r.line().atNanos() - r.line().dueNanos());
                    case Happening.Rested _ when done[0] != null -> done[0].countDown();
                    default -> {
                        // Nothing that is measured.
                    }
                }
            }); DatagramChannel channel = DatagramChannel.open()) {
                channel.connect(gear.socketAddress());
                conductor.post(new Event.Load(rig));
                links[0].connect(rig, Map.of());
                LockSupport.parkNanos(1_000_000_000L);
                for (int round = 0; round < ROUNDS; round++) {
                    now.clear();
                    done[0] = new CountDownLatch(1);
                    conductor.post(new Event.Perform("b", Gesture.PRESS, "bench"));
                    done[0].await();
                    List<Long> alone = alone(waits, channel);
                    if (round > 0) { // The first warms both up.
                        bare.add(alone);
                        late.add(List.copyOf(now));
                    }
                }
                links[0].close();
            }
        }
        double trend = median(late.stream().map(l -> mean(l.subList(WAITS - ENDS, WAITS)) - mean(l.subList(0, ENDS)))
                .toList()) / 1e3;
        double level = median(late.stream().map(Lateness::mean).toList()) / 1e3;
        return List.of(Figure.of("lateness-p50", at(late, 0.5), at(bare, 0.5), "µs", 1.25),
                Figure.of("lateness-p99", at(
                        late, 0.99), at(bare, 0.99), "µs", 1.25),
                Figure.of("lateness-trend", trend, level, "µs", 1));
    }

    /** A percentile in microseconds: the median of the rounds, so that a round in which the machine stood still counts little. */
    private static double at(List<List<Long>> rounds, double share) {
        return median(rounds.stream().map(r -> Figure.percentile(r, share)).toList()) / 1e3;
    }

    private static double median(List<Double> of) {
        return of.stream().sorted().toList().get(of.size() / 2);
    }

    private static double mean(List<Long> of) {
        return of.stream().mapToLong(l -> l).average().orElse(0);
    }

    /** One thread that parks until each due time, and sends; on a thread of its own, as the conductor is. */
    private static List<Long> alone(long[] waits, DatagramChannel channel) throws InterruptedException {
        List<Long> late = new ArrayList<>();
        Thread thread = Thread.ofPlatform().start(() -> {
            ByteBuffer out = ByteBuffer.allocateDirect(12);
            long due = System.nanoTime();
            for (long w : waits) {
                due += w * 1_000_000;
                for (long left = due - System.nanoTime(); left > 0; left = due - System.nanoTime()) {
                    LockSupport.parkNanos(left);
                }
                out.clear();
                try {
                    channel.write(out);
                } catch (java.io.IOException e) {
                    throw new java.io.UncheckedIOException(e);
                }
                late.add(System.nanoTime() - due);
            }
        });
        thread.join();
        return late;
    }
}
