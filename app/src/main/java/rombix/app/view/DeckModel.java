package rombix.app.view;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Queue;
import java.util.Set;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Twin.Readings;
import rombix.core.engine.Happening;
import rombix.core.engine.Status;
import rombix.core.value.Value;

/**
 * What the deck looks like now, for the interface: fed by the engine's stream of happenings from the conductor's thread,
 * taken in once a pulse on the interface's. Everything but {@link #feed} belongs to the interface's thread.
 */
public final class DeckModel {

    /** A chain that runs. */
    public record Running(long run, String button, long startNanos, long expectedNanos) {
    }

    /** A button as it is: state shown, state on its way or -1. */
    public record Play(int state, int onItsWay, boolean held) {
        static final Play AT_REST = new Play(0, -1, false);
    }

    /** What went wrong, and when. */
    public record Fault(String button, @Nullable String gear, String message) {
    }

    /** What changed since the last pulse. */
    public record Changes(Set<String> gear, Set<String> buttons, boolean runs) {
        boolean any() {
            return runs || !gear.isEmpty() || !buttons.isEmpty();
        }
    }

    private final Queue<Happening> fed = new ConcurrentLinkedQueue<>();
    private final Map<String, Map<String, Value>> readings = new HashMap<>();
    private final Map<String, Map<String, Long>> since = new HashMap<>();
    private final Map<String, Status> statuses = new HashMap<>();
    private final Map<String, Play> plays = new HashMap<>();
    private final Map<Long, Running> runs = new LinkedHashMap<>();
    private final Map<String, Fault> faults = new LinkedHashMap<>();
    private final List<Consumer<Changes>> watchers = new ArrayList<>();

    /** Takes a happening, from any thread. */
    public void feed(Happening happening) {
        fed.add(happening);
    }

    /** Has a watcher told of the changes of each pulse. */
    public void watch(Consumer<Changes> watcher) {
        watchers.add(watcher);
    }

    /** Takes in what was fed since the last pulse, and tells the watchers once. */
    public void pulse() {
        Changes changes = new Changes(new HashSet<>(), new HashSet<>(), !runs.isEmpty());
        boolean runsChanged = false;
        for (Happening h = fed.poll(); h != null; h = fed.poll()) {
            runsChanged |= take(h, changes);
        }
        Changes told = new Changes(changes.gear(), changes.buttons(), changes.runs() || runsChanged);
        if (told.any()) {
            watchers.forEach(w -> w.accept(told));
        }
    }

    private boolean take(Happening h, Changes changes) {
        switch (h) {
            case Happening.Loaded l -> {
                Set<String> ids = new HashSet<>();
                l.rig().board().buttons().forEach(b -> ids.add(b.id()));
                plays.keySet().retainAll(ids);
                faults.keySet().retainAll(ids);
                changes.gear().addAll(l.rig().twins().keySet());
            }
            case Happening.Shows s -> {
                plays.put(s.button(), new Play(s.state(), s.onItsWay(), s.held()));
                changes.buttons().add(s.button());
            }
            case Happening.Started s -> {
                runs.put(s.run(), new Running(s.run(), s.button(), s.atNanos(), s.expectedNanos()));
                changes.buttons().add(s.button());
                return true;
            }
            case Happening.Ended e -> {
                runs.remove(e.run());
                changes.buttons().add(e.button());
                return true;
            }
            case Happening.Faulted f -> {
                String message = f.message();
                faults.remove(f.button());
                if (message != null) {
                    faults.put(f.button(), new Fault(f.button(), f.gear(), message));
                }
                changes.buttons().add(f.button());
                return true;
            }
            case Happening.Came c -> {
                readings.computeIfAbsent(c.gear(), _ -> new HashMap<>()).put(c.reading(), c.value());
                since.computeIfAbsent(c.gear(), _ -> new HashMap<>()).put(c.reading(), System.nanoTime());
                changes.gear().add(c.gear());
            }
            case Happening.Linked l -> {
                statuses.put(l.gear(), l.status());
                changes.gear().add(l.gear());
            }
            case Happening.Ran _,Happening.Rested _ -> {
            }
        }
        return false;
    }

    public @Nullable Value reading(String gear, String id) {
        return readings.getOrDefault(gear, Map.of()).get(id);
    }

    public Readings readings(String gear) {
        return id -> reading(gear, id);
    }

    /** For how long a reading has had its value, in seconds. */
    public long secondsSince(String gear, String id) {
        Long at = since.getOrDefault(gear, Map.of()).get(id);
        return at == null ? 0 : (System.nanoTime() - at) / 1_000_000_000L;
    }

    public Status status(String gear) {
        return statuses.getOrDefault(gear, Status.UNTRIED);
    }

    public Play play(String button) {
        return plays.getOrDefault(button, Play.AT_REST);
    }

    /** The chains that run, oldest first. */
    public List<Running> runs() {
        return List.copyOf(runs.values());
    }

    public @Nullable Running running(String button) {
        Running found = null;
        for (Running r : runs.values()) {
            found = r.button().equals(button) ? r : found;
        }
        return found;
    }

    public @Nullable Fault fault(String button) {
        return faults.get(button);
    }

    /** The last thing that went wrong and was not cleared. */
    public @Nullable Fault lastFault() {
        Fault last = null;
        for (Fault f : faults.values()) {
            last = f;
        }
        return last;
    }
}
