package rombix.torture;

import java.util.Arrays;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.function.BooleanSupplier;
import rombix.core.board.Board;
import rombix.core.board.Gear;
import rombix.core.board.Rig;
import rombix.core.edit.Edits;
import rombix.core.event.Happening;
import rombix.core.event.Status.Phase;
import rombix.running.RunningDeck;

/**
 * Ends a hold on gear of five protocols in each way from within a process: the window is closed, another board comes, the
 * button is deleted, the gear moves. Each must be released exactly once.
 */
final class Endings implements Trial {
    private static final long AFTER_NANOS = TimeUnit.MILLISECONDS.toNanos(15);
    private static final long PATIENCE_NANOS = TimeUnit.SECONDS.toNanos(20);

    private enum Way {
        CLOSED, OTHER_BOARD, BUTTON_DELETED, GEAR_ELSEWHERE
    }

    @Override
    public String name() {
        return "ended-during-holds";
    }

    @Override
    public long whole() {
        return 4000;
    }

    @Override
    public double share() {
        return 10;
    }

    @Override
    public Outcome suffer(Budget budget) throws Exception {
        Rig rig = Holding.rig();
        int[] of = new int[Way.values().length];
        try (FarEnds ends = new FarEnds()) {
            RunningDeck deck = null;
            Map<String, Phase> phases = new ConcurrentHashMap<>();
            for (int i = 0; budget.take(); i++) {
                Way way = Way.values()[i % Way.values().length];
                if (deck == null) {
                    deck = new RunningDeck(ends.addresses(), null);
                    deck.watch(h -> {
                        if (h instanceof Happening.Ran r && !r.line().message().isEmpty()) {
                            phases.put(r.line().gear() + ": " + r.line().message(), Phase.OFF);
                        }
                        if (h instanceof Happening.Linked l) {
                            phases.put(l.gear(), l.status().phase());
                        }
                    });
                }
                if (!end(budget, ends, deck, rig, way, phases)) {
                    deck.close(); // It is as nobody knows now.
                    deck = null;
                }
                if (way != Way.BUTTON_DELETED) {
                    phases.clear(); // Those links are gone.
                }
                of[way.ordinal()]++;
                if (way == Way.CLOSED) {
                    deck = null;
                }
            }
            if (deck != null) {
                deck.close();
            }
        }
        return budget.outcome("closed, other board, deleted, moved: " + Arrays.toString(of));
    }

    private static boolean end(Budget budget, FarEnds ends, RunningDeck deck, Rig rig, Way way,
            Map<String, Phase> phases)
            throws InterruptedException {
        deck.load(rig);
        CountDownLatch said = new CountDownLatch(1);
        deck.then(said::countDown); // Behind what the new links say first.
        said.await();
        if (!waitUntil(() -> Arrays.stream(FarEnds.GEAR).allMatch(g -> phases.get(g) == Phase.READY))) {
            budget.breach("before " + way + ": not ready: " + phases);
            return false;
        }
        ends.clear();
        deck.port("torture").press(Holding.HOLD);
        if (!waitUntil(ends::pressed)) {
            budget.breach("before " + way + ": pressed " + ends.presses() + ", " + phases);
            return false;
        }
        ends.clear();
        Board board = rig.board();
        switch (way) {
            case CLOSED -> deck.close();
            case OTHER_BOARD -> deck.load(Rig.of(Board.empty("Other"), Map.of()));
            case BUTTON_DELETED -> deck.load(rig.with(Edits.removeButton(board, Holding.HOLD)));
            case GEAR_ELSEWHERE -> deck.load(rig.with(board.withGear(board.gear().stream().map(g -> g.withLink(
                    new Gear.Link(g.link().protocol(), "127.0.0.1:9", Map.of()))).toList())));
        }
        if (!waitUntil(ends::released)) {
            budget.breach(way + ": released " + ends.releases());
            return false;
        }
        LockSupport.parkNanos(AFTER_NANOS); // Were there a second one, it would come now.
        if (!waitUntil(() -> ends.releases().values().stream().allMatch(n -> n == 1))) { // Who comes is told how all is.
            budget.breach(way + ": released more than once: " + ends.releases());
        }
        return true;
    }

    private static boolean waitUntil(BooleanSupplier so) {
        long until = System.nanoTime() + PATIENCE_NANOS;
        while (!so.getAsBoolean()) {
            if (System.nanoTime() - until > 0) {
                return false;
            }
            LockSupport.parkNanos(TimeUnit.MILLISECONDS.toNanos(1));
        }
        return true;
    }
}
