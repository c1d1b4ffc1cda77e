package rombix.torture;

import com.sun.management.UnixOperatingSystemMXBean;
import java.lang.management.ManagementFactory;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import javafx.stage.Stage;
import rombix.app.show.Session;
import rombix.core.board.Board;
import rombix.core.store.BoardFile;
import rombix.running.input.TriggerInputs;
import rombix.running.log.LogStore;
import rombix.standins.set.StandIns;

/** Boards opened one after the other in a window, 200 of them: no thread and no descriptor is left of any. */
final class Boards implements Trial {
    private static final int WARM = 20;
    private static final long PATIENCE_NANOS = TimeUnit.SECONDS.toNanos(60);

    @Override
    public String name() {
        return "boards-open-and-closed";
    }

    @Override
    public long whole() {
        return 200;
    }

    @Override
    public double share() {
        return 2;
    }

    @Override
    public Outcome suffer(Budget budget) throws Exception {
        Path folder = Files.createTempDirectory("boards");
        Path[] boards = {folder.resolve("a.json"), folder.resolve("b.json"), folder.resolve("empty.json")};
        Files.copy(Path.of("demo/star-night.json"), boards[0]);
        Files.copy(boards[0], boards[1]);
        BoardFile.save(boards[2], Board.empty("Empty")); // Between it and the others all links come and go.
        try (StandIns gear = StandIns.onFreePorts()) {
            Map<String, String> addresses = new HashMap<>(gear.addresses());
            addresses.put(TriggerInputs.OSC, "0");
            Stage[] stage = new Stage[1];
            try (Session session = Session.open(boards[0], addresses, LogStore.beside(boards[0]), s -> {
                s.setWidth(1280);
                s.setHeight(800);
                stage[0] = s;
            })) {
                Outcome outcome = open(budget, session, boards);
                Session.onInterface(() -> {
                    stage[0].hide();
                    return true;
                });
                return outcome;
            }
        }
    }

    private static Outcome open(Budget budget, Session session, Path[] boards) {
        Left before = new Left(List.of(), 0, 0);
        for (int i = 0; budget.take(); i++) {
            Path next = boards[i % boards.length];
            Session.onInterface(() -> {
                session.window().files().open(next);
                return true;
            });
            LockSupport.parkNanos(TimeUnit.MILLISECONDS.toNanos(i % 5 * 50)); // In all states of connecting.
            if (i == WARM) {
                before = settled(session, boards, new Left(List.of(), 0, 0));
            }
        }
        if (before.descriptors() == 0) {
            return budget.outcome("too few to compare");
        }
        Left after = settled(session, boards, before);
        if (after.threads().size() > before.threads().size()) {
            List<String> more = new ArrayList<>(after.threads());
            before.threads().forEach(more::remove);
            budget.breach("%d threads more: %s".formatted(after.threads().size() - before.threads().size(), more));
        }
        if (after.descriptors() > before.descriptors()) {
            budget.breach("%d descriptors more".formatted(after.descriptors() - before.descriptors()));
        }
        return budget.outcome("threads %+d, descriptors %+d, heap %+.1f MB".formatted(after.threads().size() - before
                .threads().size(), after.descriptors() - before.descriptors(), after.heap() - before.heap()));
    }

    /** What there is. */
    private record Left(List<String> threads, long descriptors, double heap) {
        static Left now() {
            return new Left(Thread.getAllStackTraces().keySet().stream().map(Thread::getName).sorted().toList(),
                    ManagementFactory.getOperatingSystemMXBean() instanceof UnixOperatingSystemMXBean unix
                            ? unix.getOpenFileDescriptorCount()
                            : 1,
                    Heap.held());
        }

        boolean within(Left other) {
            return threads.size() <= other.threads.size() && descriptors <= other.descriptors;
        }
    }

    /** What there is with the empty board open, once what ends by itself has ended. */
    private static Left settled(Session session, Path[] boards, Left before) {
        Session.onInterface(() -> {
            session.window().files().open(boards[boards.length - 1]);
            return true;
        });
        long until = System.nanoTime() + PATIENCE_NANOS;
        Left last = Left.now();
        while (System.nanoTime() - until < 0 && !last.within(before)) {
            LockSupport.parkNanos(TimeUnit.SECONDS.toNanos(2));
            Left now = Left.now();
            if (before.descriptors() == 0 && last.within(now)) {
                return now; // It gets no less.
            }
            last = now;
        }
        return last;
    }
}
