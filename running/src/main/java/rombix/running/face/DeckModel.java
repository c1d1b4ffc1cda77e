package rombix.running.face;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import java.util.function.LongSupplier;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Twin.Readings;
import rombix.core.engine.AsRun;
import rombix.core.engine.Happening;
import rombix.core.engine.Status;
import rombix.core.thread.OneThread;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.thread.OwnedBy;
import rombix.core.value.Formula;
import rombix.core.value.Value;

/**
 * What the deck looks like now, for the interface: fed by the engine's stream of happenings from the conductor's thread,
 * taken in once a pulse on the interface's. Everything but {@link #feed} belongs to the interface's thread.
 */
@OwnedBy(Owner.INTERFACE)
public final class DeckModel {
    private static final long LATE_MICROS = 20_000;

    /** A chain that runs; {@code what} is the gesture's name or what else has run it. */
    public record Running(long run, String button, String what, long startNanos, long expectedNanos) {
        /** The same, which will go on at least until a moment. */
        Running until(long nanos) {
            return new Running(run, button, what, startNanos, Math.max(expectedNanos, nanos - startNanos));
        }
    }

    /** A button as it is: state shown, state on its way or -1. */
    public record Play(int state, int onItsWay, boolean held) {
        static final Play AT_REST = new Play(0, -1, false);
    }

    /** What went wrong, and when it was taken in. */
    public record Fault(String button, @Nullable String gear, String message, long atNanos) {
    }

    /** What a chain last did, by the places of its steps: those that failed or were late, and what was picked. */
    public record LastRun(String button, String what, Map<String, String> trouble, Map<String, Integer> picked) {
    }

    /** A press that waits for more; {@code untilNanos} is when it no longer does. */
    public record Guarding(boolean hold, long sinceNanos, long untilNanos) {
    }

    /**
     * What changed since the last pulse.
     *
     * @param gear all gear of which anything did; {@code whole} that of which more did than {@code readings}, each
     *            {@code gear:reading}, which list no choices
     * @param pages those to be shown
     * @param ran what was sent, or failed
     */
    public record Changes(Set<String> gear, Set<String> whole, Set<String> readings, Set<String> buttons, boolean runs,
            boolean talk, List<Happening> pages, List<AsRun> ran) {
        boolean any() {
            return runs || talk || !ran.isEmpty() || !gear.isEmpty() || !buttons.isEmpty() || !pages.isEmpty();
        }

        /** Whether a reading may have changed. */
        boolean touches(String gearId, String reading) {
            return whole.contains(gearId) || readings.contains(gearId + ":" + reading);
        }

        private void all(String gearId) {
            gear.add(gearId);
            whole.add(gearId);
        }
    }

    private final OneThread thread = new OneThread();
    private final AtomicBoolean awake = new AtomicBoolean();
    private volatile Runnable wake = () -> {
    };
    private LongSupplier clock = System::nanoTime;
    private final Fed fed = new Fed();
    private final Map<String, Map<String, Value>> readings = new HashMap<>();
    private final Map<String, Map<String, Long>> since = new HashMap<>();
    private final Map<String, Status> statuses = new HashMap<>();
    private final Map<String, Play> plays = new HashMap<>();
    private final Map<Long, Running> runs = new LinkedHashMap<>();
    private final Map<Long, String> doing = new HashMap<>();
    private final Map<Long, LastRun> told = new HashMap<>();
    private final Map<String, LastRun> lastRuns = new HashMap<>();
    private final Map<String, Fault> faults = new LinkedHashMap<>();
    private final Map<String, Value> values = new HashMap<>();
    private final Map<String, Guarding> guarding = new HashMap<>();
    private final Map<Long, Happening.Asked> asked = new LinkedHashMap<>();
    private final List<Consumer<Changes>> watchers = new ArrayList<>();
    private volatile @Nullable BiConsumer<Happening.Came, Long> heard;
    private Happening.@Nullable Said said;
    private long saidNanos;
    private boolean runsChanged;
    private boolean talkChanged;

    /** Takes a happening, from any thread. */
    public void feed(Happening happening) {
        fed.add(happening, heard != null);
        if (!awake.getAndSet(true)) {
            wake.run();
        }
    }

    /** Has something run, on any thread, when the first thing is fed after a pulse: another one is wanted. */
    public void whenFed(Runnable wanted) {
        wake = wanted;
        wanted.run(); // Something may be there already.
    }

    /** Whether something moves with time alone: a chain that runs, or a press that waits for more. */
    public boolean moves() {
        return !runs.isEmpty() || !guarding.isEmpty();
    }

    /** Has chains timed by a clock: that of what plays, which in a rehearsal may go faster. */
    public void clock(LongSupplier nanos) {
        clock = nanos;
    }

    /** The moment on that clock. */
    public long now() {
        return clock.getAsLong();
    }

    /** Has a listener told of each reading that comes in, with when it was taken in; null has nobody told. */
    public void listen(@Nullable BiConsumer<Happening.Came, Long> listener) {
        heard = listener;
    }

    /** Has a watcher told of the changes of each pulse. */
    public void watch(Consumer<Changes> watcher) {
        watchers.add(watcher);
    }

    /** Takes in what was fed since the last pulse, and tells the watchers once. */
    public void pulse() {
        assert thread.entered() : thread;
        awake.set(false);
        Changes changes = new Changes(new HashSet<>(), new HashSet<>(), new HashSet<>(), new HashSet<>(), false, false,
                new ArrayList<>(), new ArrayList<>());
        runsChanged = moves();
        talkChanged = false;
        fed.drain(h -> take(h, changes));
        Changes all = new Changes(changes.gear(), changes.whole(), changes.readings(), changes.buttons(), runsChanged,
                talkChanged, changes.pages(), changes.ran());
        if (all.any()) {
            watchers.forEach(w -> w.accept(all));
        }
    }

    private void take(Happening h, Changes changes) {
        switch (h) {
            case Happening.Anew _ -> {
                changes.buttons().addAll(plays.keySet());
                readings.keySet().forEach(changes::all);
                List.of(readings, since, statuses, plays, runs, doing, told, lastRuns, faults, values, guarding, asked)
                        .forEach(Map::clear);
                said = null;
                runsChanged = true;
                talkChanged = true;
            }
            case Happening.Loaded l -> {
                Set<String> ids = new HashSet<>();
                l.rig().board().buttons().forEach(b -> ids.add(b.id()));
                plays.keySet().retainAll(ids);
                faults.keySet().retainAll(ids);
                l.rig().twins().keySet().forEach(changes::all);
            }
            case Happening.Shows s -> {
                plays.put(s.button(), new Play(s.state(), s.onItsWay(), s.held()));
                changes.buttons().add(s.button());
            }
            case Happening.Guarded g -> {
                long now = clock.getAsLong();
                guarding.put(g.button(), new Guarding(g.hold(), now, now + g.millis() * 1_000_000));
                if (g.millis() == 0) {
                    guarding.remove(g.button());
                }
                changes.buttons().add(g.button());
                talkChanged = true;
            }
            case Happening.Started s -> {
                runs.put(s.run(), new Running(s.run(), s.button(), s.what(), s.atNanos(), s.expectedNanos()));
                LastRun last = new LastRun(s.button(), s.what(), new HashMap<>(), new HashMap<>());
                told.put(s.run(), last);
                lastRuns.put(s.button(), last);
                changes.buttons().add(s.button());
                runsChanged = true;
            }
            case Happening.Lasts l -> {
                Running run = runs.get(l.run());
                if (run != null) {
                    runs.put(l.run(), run.until(l.atNanos() + l.nanos()));
                    changes.buttons().add(l.button());
                    runsChanged = true;
                }
            }
            case Happening.AtStep d -> {
                if (runs.containsKey(d.run())) {
                    doing.put(d.run(), d.step());
                }
            }
            case Happening.Ended e -> {
                runs.remove(e.run());
                doing.remove(e.run());
                told.remove(e.run());
                changes.buttons().add(e.button());
                runsChanged = true;
            }
            case Happening.Faulted f -> {
                String message = f.message();
                faults.remove(f.button());
                if (message != null) {
                    faults.put(f.button(), new Fault(f.button(), f.gear(), message, System.nanoTime()));
                }
                changes.buttons().add(f.button());
                runsChanged = true;
            }
            case Happening.Came c -> {
                readings.computeIfAbsent(c.gear(), _ -> new HashMap<>()).put(c.reading(), c.value());
                since.computeIfAbsent(c.gear(), _ -> new HashMap<>()).put(c.reading(), System.nanoTime());
                changes.gear().add(c.gear());
                if (c.value() instanceof Value.Choices) {
                    changes.whole().add(c.gear());
                } else {
                    changes.readings().add(c.gear() + ":" + c.reading());
                }
                if (heard != null) {
                    heard.accept(c, System.nanoTime());
                }
            }
            case Happening.Linked l -> {
                statuses.put(l.gear(), l.status());
                changes.all(l.gear());
            }
            case Happening.Ran r -> {
                changes.ran().add(r.line());
                ran(r.line());
            }
            case Happening.Picked p -> {
                LastRun run = told.get(p.run());
                if (run != null) {
                    run.picked().put(p.step(), p.choice());
                }
            }
            case Happening.Asked a -> {
                asked.put(a.question(), a);
                talkChanged = true;
            }
            case Happening.AskClosed a -> {
                asked.remove(a.question());
                talkChanged = true;
            }
            case Happening.Said s -> {
                said = s;
                saidNanos = System.nanoTime();
                talkChanged = true;
            }
            case Happening.PageShown _,Happening.PageFollows _ -> changes.pages().add(h);
            case Happening.ValueSet v -> {
                values.put((v.button() == null ? "" : v.button() + "/") + v.value(), v.to());
                changes.buttons().addAll(plays.keySet());
            }
            case Happening.Armed _,Happening.Answered _,Happening.Settled _,Happening.Rested _ -> {
            }
        }
    }

    private void ran(AsRun line) {
        LastRun run = told.get(line.run());
        if (run == null) {
            return;
        }
        if (line.outcome() == AsRun.Outcome.FAULT) {
            run.trouble().put(line.step(), line.message());
        } else if (line.lateMicros() > LATE_MICROS) {
            run.trouble().put(line.step(), line.lateMicros() / 1000 + " ms late");
        }
    }

    public @Nullable Value reading(String gear, String id) {
        return readings.getOrDefault(gear, Map.of()).get(id);
    }

    /** What a gear lists now, as choices. */
    public List<Value> lists(String gear) {
        return readings.getOrDefault(gear, Map.of()).values().stream().filter(Value.Choices.class::isInstance).toList();
    }

    public Readings readings(String gear) {
        return id -> reading(gear, id);
    }

    /** For how long a reading has had its value, in seconds. */
    public long secondsSince(String gear, String id) {
        Long at = since.getOrDefault(gear, Map.of()).get(id);
        return at == null ? 0 : (System.nanoTime() - at) / 1_000_000_000L;
    }

    /** Whether what a gear said is not as it is now, but as it was when it could be reached last. */
    public boolean lastKnown(String gear) {
        return !status(gear).sends();
    }

    public Status status(String gear) {
        return statuses.getOrDefault(gear, Status.UNTRIED);
    }

    public Play play(String button) {
        return plays.getOrDefault(button, Play.AT_REST);
    }

    /** What a press still waits for; null where none does. */
    public @Nullable Guarding guarding(String button) {
        return guarding.get(button);
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

    /** Where the step stands that a running chain is at; empty where it takes no time. */
    public String doing(long run) {
        return doing.getOrDefault(run, "");
    }

    /** What the last chain of a button did; null where none has run. */
    public @Nullable LastRun lastRun(String button) {
        return lastRuns.get(button);
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

    /** What went wrong and was not cleared, newest last. */
    public List<Fault> faults() {
        return List.copyOf(faults.values());
    }

    /** The questions that wait for an answer, oldest first. */
    public List<Happening.Asked> asked() {
        return List.copyOf(asked.values());
    }

    /** The last message said, for so many seconds, unless something went wrong since. */
    public Happening.@Nullable Said said(double seconds) {
        Fault fault = lastFault();
        return said != null && System.nanoTime() - saidNanos < seconds * 1e9
                && (fault == null || fault.atNanos() - saidNanos < 0) ? said : null;
    }

    /** A text of a button with what stands in its braces filled in: readings, values, and formulas of both. */
    public String filled(String text, String button, java.util.function.BiFunction<String, String, String> spoken) {
        return text.indexOf('{') < 0 ? text : Formula.fill(text, name -> {
            int colon = name.indexOf(':');
            if (colon > 0) {
                return reading(name.substring(0, colon), name.substring(colon + 1));
            }
            Value own = values.get(button + "/" + name);
            return own != null ? own : values.get(name);
        }, name -> {
            int colon = name.indexOf(':');
            Value own = values.get(button + "/" + name);
            return colon > 0
                    ? spoken.apply(name.substring(0, colon), name.substring(colon + 1))
                    : String.valueOf(own != null ? own : values.get(name));
        });
    }
}
