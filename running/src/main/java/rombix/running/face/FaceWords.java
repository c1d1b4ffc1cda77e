package rombix.running.face;

import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.WeakHashMap;
import java.util.function.Function;
import java.util.function.LongSupplier;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Control;
import rombix.core.board.Face;
import rombix.core.board.Question;
import rombix.core.board.Rig;
import rombix.core.board.RunDown;
import rombix.core.board.StepWords;
import rombix.core.twin.Scale;
import rombix.core.value.Formula;
import rombix.core.value.Value;
import rombix.running.state.DeckState;

/**
 * Readings and levels in the words of the gear's cards, and the lamps that are lit. One thread's.
 */
public final class FaceWords {
    private final Supplier<Rig> rig;
    private final Supplier<DeckState> deck;
    private final Supplier<ZonedDateTime> wall;
    private final LongSupplier nanos;
    private final Map<Face, List<@Nullable Question>> lamps = new WeakHashMap<>();

    /**
     * @param wall the time of day on the clock of what plays
     * @param nanos the moment on it
     */
    public FaceWords(Supplier<Rig> rig, Supplier<DeckState> deck, Supplier<ZonedDateTime> wall, LongSupplier nanos) {
        this.rig = rig;
        this.deck = deck;
        this.wall = wall;
        this.nanos = nanos;
    }

    /** The time of day on the clock of what plays. */
    public ZonedDateTime wall() {
        return wall.get();
    }

    /** What a name on a button stands for: a reading, a value, the time of day, or how long its chain still runs. */
    public @Nullable Value named(String name, String button) {
        Value known = deck.get().named(name, button, wall);
        return known == null && name.equals(Formula.LEFT) ? Value.of(left(button)) : known;
    }

    /** For how many seconds a button's chain still runs, as far as that is known; 0 while none does. */
    private long left(String button) {
        DeckState.Running run = deck.get().running(button);
        return run == null
                ? 0
                : Math.max(0, Math.ceilDiv(run.startNanos() + run.expectedNanos() - nanos.getAsLong(),
                        1_000_000_000L));
    }

    /** A text of a button with what stands in its braces filled in: readings, values, and formulas of both. */
    public String filled(String text, String button) {
        return text.indexOf('{') < 0 ? text : Formula.fill(text, name -> named(name, button), name -> {
            if (name.equals(Formula.LEFT) && deck.get().named(name, button, wall) == null) {
                return deck.get().running(button) == null ? "" : RunDown.time(left(button));
            }
            int colon = name.indexOf(':');
            return colon > 0
                    ? spoken(name.substring(0, colon), name.substring(colon + 1))
                    : String.valueOf(named(name, button));
        });
    }

    /** The lamp of a face that is lit by what names stand for; null where none is. */
    public Face.@Nullable Tally lit(Face face, Function<String, @Nullable Value> now) {
        List<@Nullable Question> questions = lamps.computeIfAbsent(face, f -> {
            List<@Nullable Question> all = new ArrayList<>();
            f.tally().forEach(t -> all.add(Question.of(t.when()).orElse(null)));
            return all;
        });
        int lit = Question.first(questions, q -> q.known(now));
        return lit < 0 ? null : face.tally().get(lit);
    }

    /** A reading's present value in words; a dash where none has come. */
    public String spoken(String gear, String reading) {
        Value value = deck.get().reading(gear, reading);
        return value == null ? "—" : new StepWords(rig.get(), deck.get()::readings).value(gear, reading, value);
    }

    /** How a level is shown and worked. */
    public Optional<Scale> scale(Control.Axis axis) {
        return rig.get().twin(axis.gear()).flatMap(t -> Scale.of(t, axis.reading()));
    }
}
