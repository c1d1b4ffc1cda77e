package rombix.core.engine.op;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BiConsumer;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Board.BoardValue;
import rombix.core.board.Question;
import rombix.core.board.Rig;
import rombix.core.board.RunDown;
import rombix.core.chain.Condition;
import rombix.core.event.Happening;
import rombix.core.event.Known;
import rombix.core.event.Status;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.time.Clock;
import rombix.core.twin.Twin;
import rombix.core.value.Formula;
import rombix.core.value.FormulaFault;
import rombix.core.value.Value;

/** What is known now: the readings of the gear, whether it can be reached, and the board's values. One thread's. */
@OwnedBy(Owner.CONDUCTOR)
public final class Situation {
    private final Clock clock;
    private final Map<String, Map<String, Value>> readings = new HashMap<>();
    private final Map<String, Status> statuses = new HashMap<>();
    private final Map<String, Long> listings = new HashMap<>();
    private final Map<Owned, Value> values = new LinkedHashMap<>();
    private @Nullable Rig rig;

    /** A value by its owner, a button's id, or empty for the board; and its id. */
    public record Owned(String owner, String id) {
    }

    /** @param clock what formulas have the time of day from */
    public Situation(Clock clock) {
        this.clock = clock;
    }

    public void load(Rig next) {
        rig = next;
        Map<Owned, Value> kept = new HashMap<>(values);
        values.clear();
        next.board().values().forEach(v -> addOwned(kept, "", v));
        next.board().runDowns().forEach(r -> runDown(kept, r));
        next.valued().forEach(b -> b.values().forEach(v -> addOwned(kept, b.id(), v)));
    }

    /** Where a run-down is stays as it was, whatever its items are now. */
    private void runDown(Map<Owned, Value> kept, RunDown list) {
        Value at = kept.getOrDefault(new Owned("", list.id()), Value.of(0));
        Value ends = kept.get(new Owned("", list.id() + ".ends"));
        list.values(Math.min((int) at.asNumber(), list.items().size()), 0).forEach((name, value) -> values.put(
                new Owned("", name), name.endsWith(".ends") && ends != null ? ends : value));
    }

    private void addOwned(Map<Owned, Value> kept, String owner, BoardValue v) {
        Owned key = new Owned(owner, v.id());
        values.put(key, kept.getOrDefault(key, v.initial()));
    }

    /** Takes over what another situation knows. */
    public void copy(Known known) {
        known.readings().forEach((gear, of) -> of.forEach((reading, value) -> changed(gear, reading, value)));
        statuses.putAll(known.statuses());
        known.values().forEach((name, value) -> values.replace(new Owned("", name), value));
    }

    @Nullable
    public Twin twin(String gear) {
        return rig == null ? null : rig.twins().get(gear);
    }

    /** Updates a reading; false if it hasn't changed. */
    public boolean changed(String gear, String reading, Value value) {
        if (value.equals(readings.computeIfAbsent(gear, _ -> new HashMap<>()).put(reading, value))) {
            return false;
        }
        if (value instanceof Value.Choices) {
            listings.merge(gear, 1L, Long::sum);
        }
        return true;
    }

    /** Changes whenever what a gear lists changes. */
    public long listing(String gear) {
        return listings.getOrDefault(gear, 0L);
    }

    @Nullable
    public Value reading(String gear, String reading) {
        Map<String, Value> of = readings.get(gear);
        return of == null ? null : of.get(reading);
    }

    public Twin.Readings readingsOf(String gear) {
        return id -> reading(gear, id);
    }

    public Status status(String gear) {
        return statuses.getOrDefault(gear, Status.UNTRIED);
    }

    public void linked(String gear, Status status) {
        statuses.put(gear, status);
    }

    /** Sets a value of the scope's button, or of the board; gives whose it was, or null where there is none. */
    @Nullable
    public String set(Scope scope, String value, Value to) {
        for (String owner : scope.owner().isEmpty() ? List.of("") : List.of(scope.owner(), "")) {
            if (values.replace(new Owned(owner, value), to) != null) {
                return owner;
            }
        }
        return null;
    }

    /** A value is as another deck has it; whether the board has such a value. */
    public boolean resume(Happening.ValueSet set) {
        return values.replace(new Owned(set.button() == null ? "" : set.button(), set.value()), set.to()) != null;
    }

    /** Hands over all values, with their owners. */
    public void values(BiConsumer<Owned, Value> to) {
        values.forEach(to);
    }

    /** What a name in a formula means: {@code gear:reading}, a name of the scope, or a value of the board. */
    @Nullable
    public Value named(String name, Scope scope) {
        if (name.equals(Formula.CLOCK)) {
            return Formula.clock(clock.wall());
        }
        int colon = name.indexOf(':');
        if (colon > 0) {
            return reading(name.substring(0, colon), name.substring(colon + 1));
        }
        Value inner = scope.find(name);
        if (inner == null && !scope.owner().isEmpty()) {
            inner = values.get(new Owned(scope.owner(), name));
        }
        return inner != null ? inner : values.get(new Owned("", name));
    }

    /** A name's value as people read it. */
    public String spoken(String name, Scope scope) {
        Value value = named(name, scope);
        int colon = name.indexOf(':');
        Twin twin = colon > 0 ? twin(name.substring(0, colon)) : null;
        if (value == null || twin == null) {
            return String.valueOf(value);
        }
        Twin.Readings now = readingsOf(twin.gear());
        return twin.reading(name.substring(colon + 1), now).map(k -> twin.spoken(k, value, now))
                .orElse(value.toString());
    }

    /** How finely a reading's number counts; null where nothing says so. */
    @Nullable
    Double step(String name) {
        int colon = name.indexOf(':');
        Twin twin = colon > 0 ? twin(name.substring(0, colon)) : null;
        return twin == null
                ? null
                : twin.reading(name.substring(colon + 1), readingsOf(twin.gear())).map(r -> r.spec().step()).orElse(
                        null);
    }

    /** Whether a condition is so; null where that isn't known. */
    public @Nullable Boolean answer(Question question, Scope scope) throws FormulaFault {
        return question.condition() instanceof Condition.OnReading r // Most are; its name need not be taken apart.
                ? known(r)
                : question.answer(n -> named(n, scope));
    }

    private @Nullable Boolean known(Condition.OnReading r) {
        Value now = reading(r.gear(), r.reading());
        return now == null ? null : (Boolean) r.that().holds(now);
    }

    /** Whether a condition is so. What isn't known makes it not so; a formula without its values is a fault. */
    public boolean holds(Question question, Scope scope) throws FormulaFault {
        return Boolean.TRUE.equals(answer(question, scope));
    }

    /** Whether a condition is so; null where that isn't known, as where a formula names what has no value. */
    public @Nullable Boolean known(Question question, Scope scope) {
        try {
            return answer(question, scope);
        } catch (FormulaFault e) {
            return null;
        }
    }

    /** Whether a condition is so; what isn't known makes nothing true. */
    public boolean now(Question question, Scope scope) {
        return Boolean.TRUE.equals(known(question, scope));
    }

    /** The value of an argument. */
    public Value value(Op.Input input, Scope scope) throws FormulaFault {
        if (input.constant() != null) {
            return input.constant();
        }
        if (input.formula() == null) {
            throw new FormulaFault(0, "the formula is empty");
        }
        return input.formula().value(n -> named(n, scope), this::step);
    }
}
