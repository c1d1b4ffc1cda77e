package rombix.running.face;

import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.WeakHashMap;
import java.util.function.Function;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Control;
import rombix.core.board.Face;
import rombix.core.board.Question;
import rombix.core.board.Rig;
import rombix.core.board.StepWords;
import rombix.core.twin.Scale;
import rombix.core.value.Value;
import rombix.running.state.DeckState;

/**
 * Readings and levels in the words of the gear's cards, and the lamps that are lit. One thread's.
 */
public final class FaceWords {
    private final Supplier<Rig> rig;
    private final Supplier<DeckState> deck;
    private final Supplier<ZonedDateTime> wall;
    private final Map<Face, List<@Nullable Question>> lamps = new WeakHashMap<>();

    public FaceWords(Supplier<Rig> rig, Supplier<DeckState> deck, Supplier<ZonedDateTime> wall) {
        this.rig = rig;
        this.deck = deck;
        this.wall = wall;
    }

    /** The time of day on the clock of what plays. */
    public ZonedDateTime wall() {
        return wall.get();
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
