package rombix.bench;

import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.concurrent.atomic.AtomicReference;
import java.util.concurrent.locks.LockSupport;
import rombix.bench.measure.BenchGear;
import rombix.bench.measure.Figure;
import rombix.bench.measure.Measured;
import rombix.core.board.Board.BoardValue;
import rombix.core.board.Rig;
import rombix.core.board.Trigger;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.Comparison;
import rombix.core.chain.Condition;
import rombix.core.chain.DeckStep;
import rombix.core.chain.StepOptions;
import rombix.core.edit.Edits;
import rombix.core.engine.Conductor;
import rombix.core.event.Event;
import rombix.core.event.Happening;
import rombix.core.value.Value;
import rombix.links.Links;
import rombix.links.MachineClock;

/** How many of 1,000 chat lines a second a button that counts them by its trigger misses; none is allowed to be. */
final class Moments implements Measured {
    private static final int A_SECOND = 1000;
    private static final int SECONDS = 5;
    private static final long PATIENCE_NANOS = 10_000_000_000L;

    @Override
    public List<Figure> measure() throws Exception {
        int sent = A_SECOND * SECONDS;
        AtomicReference<Double> counted = new AtomicReference<>(0.0);
        AtomicReference<Long> last = new AtomicReference<>(0L);
        Links[] links = new Links[1];
        long began;
        try (Conductor conductor = new Conductor(new MachineClock(), new SplittableRandom(1), post -> {
            links[0] = new Links(new MachineClock(), post);
            return links[0];
        }, h -> {
            if (h instanceof Happening.ValueSet v) {
                counted.set(v.to().asNumber());
                last.set(System.nanoTime());
            }
        })) {
            conductor.post(new Event.Load(counting()));
            conductor.post(new Event.Arm(true));
            LockSupport.parkNanos(500_000_000L);
            began = System.nanoTime();
            for (int i = 0; i < sent; i++) {
                conductor.post(new Event.Came("g0", "said", Value.of("!yes please"), true));
                long due = began + (i + 1) * 1_000_000_000L / A_SECOND;
                LockSupport.parkNanos(due - System.nanoTime());
            }
            long until = System.nanoTime() + PATIENCE_NANOS;
            while (counted.get() < sent && System.nanoTime() - until < 0) {
                LockSupport.parkNanos(1_000_000);
            }
        }
        links[0].close();
        double behind = (last.get() - began) / 1e9 - SECONDS;
        return List.of(Figure.of("moments-missed", sent - counted.get(), 1, "of " + sent, 0), Figure.of(
                "moments-behind", Math.max(0, behind), 1, "s after the last came", 0.1));
    }

    private static Rig counting() {
        Rig rig = BenchGear.osc(List.of("127.0.0.1:9"),
                new Chain(List.of(new DeckStep.Set("n", new Arg.Computed("{n} + 1"),
                        StepOptions.PLAIN, Map.of()))));
        Trigger yes = new Trigger.Becomes(new Condition.OnReading("g0", "said", Comparison.pattern("^!yes\\b")), true,
                Map
                        .of());
        return rig.with(Edits.button(rig.board().withValues(List.of(new BoardValue("n", "N", Value.of(0)))), "b",
                b -> b.withTriggers(List.of(yes))));
    }
}
