package rombix.bench;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.concurrent.Semaphore;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Consumer;
import rombix.bench.measure.BenchGear;
import rombix.bench.measure.Figure;
import rombix.bench.measure.Measured;
import rombix.core.board.Rig;
import rombix.core.chain.Chain;
import rombix.core.chain.Gesture;
import rombix.core.engine.Conductor;
import rombix.core.event.AsRun;
import rombix.core.event.Event;
import rombix.core.event.Happening;
import rombix.core.time.Clock;
import rombix.links.Links;
import rombix.links.MachineClock;
import rombix.running.log.LogStore;
import rombix.running.log.LogWriter;

/** From a press to its datagram while a hundred rows a millisecond go into the log, against the same without a log. */
final class Logged implements Measured {
    private static final int WARM_UP = 3000;
    private static final int ROUNDS = 10;
    private static final int PRESSES = 300;
    private static final Clock CLOCK = new MachineClock();
    private static final int ROWS = 100;

    private final AtomicLong arrived = new AtomicLong();
    private final Semaphore one = new Semaphore(0);
    private volatile boolean flooding;
    private volatile boolean over;

    @Override
    public List<Figure> measure() throws Exception {
        Path file = Files.createTempDirectory("rombix-bench").resolve("log");
        List<Long> with = new ArrayList<>();
        List<Long> without = new ArrayList<>();
        try (BenchGear gear = new BenchGear();
                LogWriter log = new LogWriter(new LogStore(file), CLOCK,
                        System::currentTimeMillis)) {
            Rig rig = BenchGear.osc(List.of(gear.address()), Chain.of(BenchGear.go(0, 7)));
            gear.received(at -> {
                arrived.set(at);
                one.release();
            });
            Thread flood = Thread.ofPlatform().daemon().start(() -> flood(log));
            try (Conductor bare = conductor(rig, _ -> {
            }); Conductor logged = conductor(rig, h -> log.accept(h, false, CLOCK))) {
                LockSupport.parkNanos(1_000_000_000L);
                one.drainPermits();
                for (int i = 0; i < WARM_UP; i++) {
                    once(bare);
                    once(logged);
                }
                for (int round = 0; round < ROUNDS; round++) {
                    rounds(bare, without);
                    flooding = true;
                    rounds(logged, with);
                    flooding = false;
                }
            }
            over = true;
            flood.join();
            System.out.printf("logged: %d rows kept%n", log.kept());
        }
        return List.of(Figure.of("logged-p50", Figure.percentile(with, 0.5) / 1e3, Figure.percentile(without, 0.5)
                / 1e3, "µs", 2));
    }

    private static Conductor conductor(Rig rig, Consumer<Happening> watcher) {
        Links[] links = new Links[1];
        Conductor conductor = new Conductor(new MachineClock(), new SplittableRandom(1), post -> {
            links[0] = new Links(new MachineClock(), post);
            return links[0];
        }, watcher);
        conductor.post(new Event.Load(rig));
        links[0].connect(rig, Map.of());
        return conductor;
    }

    private void rounds(Conductor conductor, List<Long> to) throws InterruptedException {
        for (int i = 0; i < PRESSES; i++) {
            to.add(once(conductor));
            LockSupport.parkNanos(1_000_000);
        }
    }

    private long once(Conductor conductor) throws InterruptedException {
        long start = System.nanoTime();
        conductor.post(new Event.Perform("b", Gesture.PRESS, "bench"));
        one.acquire();
        return Math.max(0, arrived.get() - start);
    }

    private void flood(LogWriter log) {
        Happening row = new Happening.Ran(new AsRun(0, 0, 0, "b", "press/0", "", "gear", "go", Map.of(), "Go 7",
                AsRun.Outcome.SENT, ""));
        long due = System.nanoTime();
        while (!over) {
            due = Math.max(due + 1_000_000, System.nanoTime() - 5_000_000);
            LockSupport.parkNanos(due - System.nanoTime());
            for (int i = 0; i < ROWS && flooding; i++) {
                log.accept(row, false, CLOCK);
            }
        }
    }
}
