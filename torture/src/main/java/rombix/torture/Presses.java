package rombix.torture;

import java.nio.file.Path;
import java.util.List;
import java.util.SplittableRandom;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.atomic.AtomicLong;
import rombix.core.board.Button;
import rombix.core.board.Rig;
import rombix.core.engine.Conductor;
import rombix.core.engine.TwinGears;
import rombix.core.event.Event;
import rombix.core.event.Happening;
import rombix.core.store.BoardFile;
import rombix.links.MachineClock;

/** A million presses of the demo's buttons, pressed and released by chance: the heap stays flat, and no run is left. */
final class Presses implements Trial {
    private static final int LOT = 1000;
    private static final double ALLOWED_MB = 12;

    @Override
    public String name() {
        return "a-million-presses";
    }

    @Override
    public long whole() {
        return 1_000_000;
    }

    @Override
    public double share() {
        return 3;
    }

    @Override
    public Outcome suffer(Budget budget) throws Exception {
        Rig rig = BoardFile.read(Path.of("demo/star-night.json"));
        List<String> buttons = rig.board().buttons().map(Button::id).toList();
        AtomicLong started = new AtomicLong();
        AtomicLong ended = new AtomicLong();
        MachineClock clock = new MachineClock();
        SplittableRandom chance = new SplittableRandom(1);
        try (Conductor conductor = new Conductor(clock, chance.split(), post -> new TwinGears(clock, post), h -> {
            if (h instanceof Happening.Started) {
                started.incrementAndGet();
            } else if (h instanceof Happening.Settled) {
                ended.incrementAndGet();
            }
        })) {
            conductor.post(new Event.Load(rig));
            double before = 0;
            for (int i = 0; budget.take(); i++) {
                String button = buttons.get(chance.nextInt(buttons.size()));
                conductor.post(new Event.Pressed(button, "torture"));
                conductor.post(new Event.Released(button, "torture"));
                if (i % LOT == LOT - 1) {
                    rest(conductor);
                }
                if (i == 20 * LOT) {
                    conductor.post(new Event.StopAll());
                    rest(conductor);
                    before = Heap.held();
                }
            }
            conductor.post(new Event.StopAll());
            rest(conductor);
            conductor.end();
            double grown = before == 0 ? 0 : Heap.held() - before;
            if (grown > ALLOWED_MB) {
                budget.breach("the heap has grown by %.1f MB".formatted(grown));
            }
            if (started.get() != ended.get()) {
                budget.breach("%d chains started and %d ended".formatted(started.get(), ended.get()));
            }
            return budget.outcome("%d chains, heap %+.1f MB".formatted(started.get(), grown));
        }
    }

    /** Waits until the conductor has taken what was posted. */
    private static void rest(Conductor conductor) throws InterruptedException {
        CountDownLatch taken = new CountDownLatch(1);
        conductor.post(new Event.Run(taken::countDown));
        taken.await();
    }
}
