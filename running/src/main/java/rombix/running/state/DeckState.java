package rombix.running.state;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.pcollections.HashTreePMap;
import org.pcollections.PMap;
import org.pcollections.PSortedMap;
import org.pcollections.TreePMap;
import rombix.core.event.AsRun;
import rombix.core.event.Event;
import rombix.core.event.Happening;
import rombix.core.event.Known;
import rombix.core.event.Mode;
import rombix.core.event.Status;
import rombix.core.twin.Twin.Readings;
import rombix.core.value.Formula;
import rombix.core.value.Value;

/**
 * What a deck looks like at a moment: all that a face of the product can show of it. Immutable, and any thread's; the
 * next one shares with it what has not changed. All moments are nanoseconds on the clock of the deck.
 *
 * @param readings by gear, then by the reading's id
 * @param values those of the board by their ids, those of buttons as {@code button/value}
 * @param plays by button; one that is not there is at rest
 * @param runs the chains that run, oldest first
 * @param lastRuns what each button's last chain did, by button
 * @param faults what went wrong and was not cleared, by when it was first told
 * @param asked the questions that wait for an answer, oldest first
 * @param page the page that is shown, or was asked for last; null where none was
 * @param said the last message; null where there was none
 */
@RecordBuilder
public record DeckState(Mode mode, PMap<String, PMap<String, Reading>> readings, PMap<String, Status> statuses,
        PMap<String, Happening.ValueSet> values, PMap<String, Play> plays, PSortedMap<Long, Running> runs,
        PMap<String, LastRun> lastRuns, PSortedMap<Long, Fault> faults, PMap<String, Guarding> guarded,
        PSortedMap<Long, Happening.Asked> asked, @Nullable String page, @Nullable Said said)
        implements
            DeckStateBuilder.With {
    private static final long LATE_MICROS = 20_000;

    /** Where nothing is known, and nothing runs. */
    public static final DeckState NOTHING = new DeckState(Mode.BUILD, HashTreePMap.empty(), HashTreePMap.empty(),
            HashTreePMap.empty(), HashTreePMap.empty(), TreePMap.empty(), HashTreePMap.empty(), TreePMap.empty(),
            HashTreePMap.empty(), TreePMap.empty(), null, null);

    /** What a gear says, and since when it has said so. */
    public record Reading(Value value, long sinceNanos) {
    }

    /**
     * A chain that runs; {@code what} is the gesture's name or what else has run it.
     *
     * @param source who pressed, as the log names it
     * @param step where the step stands that it is at; empty where that takes no time
     */
    public record Running(long run, String button, String what, String source, long startNanos, long expectedNanos,
            String step) {
        Running until(long nanos) {
            return new Running(run, button, what, source, startNanos, Math.max(expectedNanos, nanos - startNanos),
                    step);
        }

        Running at(String next) {
            return new Running(run, button, what, source, startNanos, expectedNanos, next);
        }
    }

    /** A button as it is: state shown, state on its way or -1. */
    public record Play(int state, int onItsWay, boolean held) {
        /** As it begins. */
        public static final Play AT_REST = new Play(0, -1, false);
    }

    /** What went wrong, and when. */
    public record Fault(String button, @Nullable String gear, String message, long atNanos) {
    }

    /** What a chain last did, by the places of its steps: those that failed or were late, and what was picked. */
    public record LastRun(long run, String button, String what, PMap<String, String> trouble,
            PMap<String, Integer> picked) {
    }

    /** A press that waits for more; {@code untilNanos} is when it no longer does. */
    public record Guarding(boolean hold, long sinceNanos, long untilNanos) {
    }

    /** A message on the deck, and when it was said. */
    public record Said(Happening.Said what, long atNanos) {
    }

    /** What it is once something has happened at a moment. */
    public DeckState after(Happening happening, long nanos) {
        return switch (happening) {
            case Happening.Anew _ -> NOTHING.withMode(mode);
            case Happening.Loaded l -> {
                PSortedMap<Long, Fault> left = faults;
                for (Map.Entry<Long, Fault> f : faults.entrySet()) {
                    left = l.rig().button(f.getValue().button()).isEmpty() ? left.minus(f.getKey()) : left;
                }
                yield withPlays(kept(plays, b -> l.rig().button(b).isPresent()))
                        .withFaults(left)
                        .withStatuses(kept(statuses, l.rig().twins()::containsKey));
            }
            case Happening.Shows s -> withPlays(plays.plus(s.button(), new Play(s.state(), s.onItsWay(), s.held())));
            case Happening.Guarded g -> withGuarded(g.millis() == 0
                    ? guarded.minus(g.button())
                    : guarded.plus(g.button(), new Guarding(g.hold(), nanos, nanos + g.millis() * 1_000_000)));
            case Happening.Started s -> withRuns(runs.plus(s.run(),
                    new Running(s.run(), s.button(), s.what(), s.source(), s
                            .atNanos(), s.expectedNanos(), "")))
                    .withLastRuns(lastRuns.plus(s.button(), new LastRun(s.run(), s
                            .button(), s.what(), HashTreePMap.empty(), HashTreePMap.empty())));
            case Happening.Lasts l -> running(l.run(), r -> r.until(l.atNanos() + l.nanos()));
            case Happening.AtStep a -> running(a.run(), r -> r.at(a.step()));
            case Happening.Ended e -> withRuns(runs.minus(e.run()));
            case Happening.Faulted f -> faulted(f, nanos);
            case Happening.Came c -> withReadings(readings.plus(c.gear(), readings.getOrDefault(c.gear(), HashTreePMap
                    .empty()).plus(c.reading(), new Reading(c.value(), nanos))));
            case Happening.Linked l -> withStatuses(statuses.plus(l.gear(), l.status()));
            case Happening.Ran r -> ran(r.line());
            case Happening.Picked p ->
                last(p.run(), l -> new LastRun(l.run(), l.button(), l.what(), l.trouble(), l.picked()
                        .plus(p.step(), p.choice())));
            case Happening.Asked a -> withAsked(asked.plus(a.question(), a));
            case Happening.AskClosed a -> withAsked(asked.minus(a.question()));
            case Happening.Said s -> withSaid(new Said(s, nanos));
            case Happening.PageShown p -> p.page() == null ? this : withPage(p.page());
            case Happening.PageFollows p -> p.so() ? withPage(p.page()) : this;
            case Happening.ValueSet v -> withValues(values.plus((v.button() == null ? "" : v.button() + "/") + v
                    .value(), v));
            default -> this; // It says nothing of what the deck looks like.
        };
    }

    private static <V> PMap<String, V> kept(PMap<String, V> of, java.util.function.Predicate<String> which) {
        PMap<String, V> left = of;
        for (String key : of.keySet()) {
            left = which.test(key) ? left : left.minus(key);
        }
        return left;
    }

    private DeckState running(long run, java.util.function.UnaryOperator<Running> change) {
        Running now = runs.get(run);
        return now == null ? this : withRuns(runs.plus(run, change.apply(now)));
    }

    private DeckState faulted(Happening.Faulted f, long nanos) {
        PSortedMap<Long, Fault> left = faults;
        for (Map.Entry<Long, Fault> e : faults.entrySet()) {
            left = e.getValue().button().equals(f.button()) ? left.minus(e.getKey()) : left;
        }
        String message = f.message();
        return withFaults(message == null
                ? left
                : left.plus(left.isEmpty() ? 0L : left.lastKey() + 1, new Fault(f.button(), f.gear(), message,
                        nanos)));
    }

    private DeckState ran(AsRun line) {
        String wrong = line.outcome() == AsRun.Outcome.FAULT
                ? line.message()
                : line.lateMicros() > LATE_MICROS ? line.lateMicros() / 1000 + " ms late" : null;
        return wrong == null
                ? this
                : last(line.run(), l -> new LastRun(l.run(), l.button(), l.what(), l.trouble().plus(line.step(), wrong),
                        l.picked()));
    }

    /** Changes what is told of a chain, while it runs or is its button's last one. */
    private DeckState last(long run, java.util.function.UnaryOperator<LastRun> change) {
        Running now = runs.get(run);
        LastRun last = now == null ? null : lastRuns.get(now.button());
        return last == null || last.run() != run
                ? this
                : withLastRuns(lastRuns.plus(last.button(), change.apply(
                        last)));
    }

    /** What a gear says under a reading's id; null where nothing has come. */
    public @Nullable Value reading(String gear, String id) {
        Reading there = readings.getOrDefault(gear, HashTreePMap.empty()).get(id);
        return there == null ? null : there.value();
    }

    public Readings readings(String gear) {
        return id -> reading(gear, id);
    }

    /** What a gear lists now, as choices. */
    public List<Value> lists(String gear) {
        return readings.getOrDefault(gear, HashTreePMap.empty()).values().stream().map(Reading::value).filter(
                Value.Choices.class::isInstance).toList();
    }

    /** Since when a reading has had its value, in nanoseconds on the deck's clock; null where nothing has come. */
    public @Nullable Long since(String gear, String id) {
        Reading there = readings.getOrDefault(gear, HashTreePMap.empty()).get(id);
        return there == null ? null : there.sinceNanos();
    }

    /** For how long a reading has had its value, in seconds. */
    public long secondsSince(String gear, String id, long nowNanos) {
        Long since = since(gear, id);
        return since == null ? 0 : (nowNanos - since) / 1_000_000_000L;
    }

    public Status status(String gear) {
        return statuses.getOrDefault(gear, Status.UNTRIED);
    }

    /** Whether what a gear said is not as it is now, but as it was when it could be reached last. */
    public boolean lastKnown(String gear) {
        return !status(gear).sends();
    }

    public Play play(String button) {
        return plays.getOrDefault(button, Play.AT_REST);
    }

    /** What a press still waits for; null where none does. */
    public @Nullable Guarding guarding(String button) {
        return guarded.get(button);
    }

    /** The chain of a button that began last of those that run; null where none does. */
    public @Nullable Running running(String button) {
        Running found = null;
        for (Running r : runs.values()) {
            found = r.button().equals(button) ? r : found;
        }
        return found;
    }

    /** The chains that run, oldest first. */
    public List<Running> running() {
        return List.copyOf(runs.values());
    }

    /** The questions that wait for an answer, oldest first. */
    public List<Happening.Asked> questions() {
        return List.copyOf(asked.values());
    }

    /** What went wrong and was not cleared, newest last. */
    public List<Fault> troubles() {
        return List.copyOf(faults.values());
    }

    /** Whether a chain waits for an answer. */
    public boolean asks(long run) {
        return asked.values().stream().anyMatch(a -> a.run() == run);
    }

    public @Nullable Fault fault(String button) {
        return faults.values().stream().filter(f -> f.button().equals(button)).findFirst().orElse(null);
    }

    /** What went wrong last and was not cleared. */
    public Optional<Fault> lastFault() {
        return faults.isEmpty() ? Optional.empty() : Optional.ofNullable(faults.get(faults.lastKey()));
    }

    /** The last message, for so many seconds, unless a fault has followed. */
    public Happening.@Nullable Said lastMessage(double seconds, long nowNanos) {
        return said != null && nowNanos - said.atNanos() < seconds * 1e9
                && lastFault().filter(f -> f.atNanos() - said.atNanos() >= 0).isEmpty() ? said.what() : null;
    }

    /** Whether something of it moves with time alone: a chain that runs, or a press that waits for more. */
    public boolean moves() {
        return !runs.isEmpty() || !guarded.isEmpty();
    }

    /** What a name in a formula of a button stands for: a reading, a value, or the time of day; null where not known. */
    public @Nullable Value named(String name, String button, Supplier<ZonedDateTime> wall) {
        if (name.equals(Formula.CLOCK)) {
            return Formula.clock(wall.get());
        }
        int colon = name.indexOf(':');
        return colon > 0 ? reading(name.substring(0, colon), name.substring(colon + 1)) : value(button, name);
    }

    /** A value of a button, or of the board where the button has none of that name. */
    private @Nullable Value value(String button, String name) {
        Happening.ValueSet own = values.get(button + "/" + name);
        Happening.ValueSet set = own != null ? own : values.get(name);
        return set == null ? null : set.to();
    }

    /** What a forecast starts from. */
    public Known known() {
        Map<String, Map<String, Value>> all = new HashMap<>();
        readings.forEach((gear, of) -> {
            Map<String, Value> its = new HashMap<>();
            of.forEach((id, r) -> its.put(id, r.value()));
            all.put(gear, its);
        });
        Map<String, Value> board = new HashMap<>();
        values.values().stream().filter(v -> v.button() == null).forEach(v -> board.put(v.value(), v.to()));
        return new Known(all, statuses, board, states());
    }

    private Map<String, Integer> states() {
        Map<String, Integer> states = new HashMap<>();
        plays.forEach((b, p) -> states.put(b, p.state()));
        return states;
    }

    /** Has a deck that begins to play the same board begin as this one is now. */
    public Event.Resume resume() {
        return new Event.Resume(states(), new ArrayList<>(values.values()));
    }
}
