package rombix.bench;

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
import rombix.core.board.Button;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.chain.Chain;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.edit.Edits;
import rombix.core.engine.Conductor;
import rombix.core.event.Event;
import rombix.core.event.Happening;
import rombix.links.Links;
import rombix.links.MachineClock;

/**
 * How much later timed steps are while the board of 321 buttons is changed on air every 25 ms, in milliseconds, against
 * the one millisecond that is allowed.
 */
final class Swapped implements Measured {
    private static final int WAITS = 200;
    private static final int ROUNDS = 9;
    private static final int PAGES = 10;
    private static final int ON_A_PAGE = 32;
    private static final long EVERY_NANOS = 25_000_000;

    @Override
    public List<Figure> measure() throws Exception {
        List<Step> steps = new ArrayList<>();
        new Random(11).longs(WAITS, 3, 41).forEach(w -> {
            steps.add(new Step.Wait(w));
            steps.add(BenchGear.go(0, 7));
        });
        List<Double> differences = new ArrayList<>();
        try (BenchGear gear = new BenchGear()) {
            Rig rig = large(BenchGear.osc(List.of(gear.address()), new Chain(steps)));
            Links[] links = new Links[1];
            List<Long> late = new ArrayList<>();
            CountDownLatch[] done = {new CountDownLatch(1)};
            try (Conductor conductor = new Conductor(new MachineClock(), new SplittableRandom(1), post -> {
                links[0] = new Links(new MachineClock(), post);
                return links[0];
            }, h -> {
                switch (h) {
                    case Happening.Ran r -> late.add(r.line().atNanos() - r.line().dueNanos());
                    case Happening.Rested _ -> done[0].countDown();
                    default -> {
                        // Nothing that is measured.
                    }
                }
            })) {
                conductor.post(new Event.Load(rig));
                links[0].connect(rig, Map.of());
                LockSupport.parkNanos(1_000_000_000L);
                for (int round = 0; round < ROUNDS; round++) {
                    double calm = round(conductor, rig, false, late, done);
                    double swapped = round(conductor, rig, true, late, done);
                    if (round > 0) { // The first warms both up.
                        differences.add(swapped - calm);
                    }
                }
            }
            links[0].close();
        }
        double median = differences.stream().sorted().toList().get(differences.size() / 2);
        return List.of(Figure.of("swap-late-p99", Math.max(0, median), 1, "ms", 1));
    }

    /** The 99th percentile of how late steps are, in milliseconds. */
    private static double round(Conductor conductor, Rig rig, boolean swaps, List<Long> late, CountDownLatch[] done)
            throws InterruptedException {
        late.clear();
        CountDownLatch rested = new CountDownLatch(1);
        done[0] = rested;
        conductor.post(new Event.Perform("b", Gesture.PRESS, "bench"));
        for (int i = 0; rested.getCount() > 0; i++) {
            LockSupport.parkNanos(EVERY_NANOS);
            if (swaps) {
                String name = "edited " + i;
                conductor.post(new Event.Load(rig.with(Edits.button(rig.board(), "0-0", b -> b.withName(name)))));
            }
        }
        rested.await();
        return Figure.percentile(List.copyOf(late), 0.99) / 1e6;
    }

    private static Rig large(Rig small) {
        Button pattern = small.button("b").orElseThrow();
        List<Page> pages = new ArrayList<>(small.board().pages());
        for (int p = 0; p < PAGES; p++) {
            List<Button> buttons = new ArrayList<>();
            for (int i = 0; i < ON_A_PAGE; i++) {
                buttons.add(pattern.withId(p + "-" + i).withColumn(i % 8).withRow(i / 8));
            }
            pages.add(Page.empty("p" + p, "Page").withButtons(buttons));
        }
        return small.with(small.board().withPages(pages));
    }
}
