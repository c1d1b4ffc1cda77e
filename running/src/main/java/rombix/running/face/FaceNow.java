package rombix.running.face;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Button;
import rombix.core.board.Contrast;
import rombix.core.board.Control;
import rombix.core.board.Face;
import rombix.core.board.State;
import rombix.core.card.Card.Tone;
import rombix.core.chain.Condition;
import rombix.core.twin.Figures;
import rombix.core.twin.Scale;
import rombix.core.value.Value;
import rombix.running.state.DeckState;

/**
 * What a button's face shows now, whoever shows it: a tile of the window, a page in a browser. Made anew whenever
 * something of it has changed; immutable.
 *
 * @param label its words, with what stands in their braces filled in, and {@code second} those of the smaller line
 * @param face what does not change with the gear: icon, image, mark, fill, colours
 * @param ink the colour of its words, {@code #RRGGBB}, where the face has a colour of its own
 * @param tally the lamp that is lit
 * @param states how many states it has, {@code state} the present one from 0, {@code coming} the one on its way or -1
 * @param fault what went wrong and was not cleared
 * @param levels where the levels of a dial, a fader or a pad are
 */
public record FaceNow(String label, String second, Face face, @Nullable String ink, Face.@Nullable Tally tally,
        int states, int state, String stateName, int coming, boolean held, @Nullable String fault,
        List<Level> levels) {

    /** A level: its place on its way from 0 to 1, not a number where it is not known, and its words. */
    public record Level(double place, String words) {
        /** A level that is not known. */
        public static final Level UNKNOWN = new Level(Double.NaN, "—");

        public static Level of(Scale scale, double value) {
            return new Level(scale.position(value), scale.spoken(value));
        }
    }

    /** How far a chain is, or a press that waits for more: {@code done} from 0 to 1, -1 where there is none. */
    public record Going(double done, String words) {
        /** Nothing is running. */
        public static final Going NOTHING = new Going(-1, "");
    }

    /** Chains that take less than this have no time left to be read. */
    private static final double SHORT_SECONDS = 0.3;

    /** The face of a button as it is. */
    public static FaceNow of(Button button, DeckState deck, FaceWords words) {
        DeckState.Play play = deck.play(button.id());
        int state = Math.min(play.state(), button.states().size() - 1);
        DeckState.Fault wrong = deck.fault(button.id());
        return of(button, state, name -> words.named(name, button.id()), deck, words, play.onItsWay(),
                play.held(), wrong == null
                        ? null
                        : wrong.message(),
                true);
    }

    /** How a button will look in a state: its tally is that of the readings which the state follows. */
    public static FaceNow preview(Button button, int state, DeckState deck, FaceWords words) {
        Map<String, Value> then = following(button, state);
        return of(button, state, name -> {
            Value assumed = then.get(name);
            return assumed == null ? words.named(name, button.id()) : assumed;
        }, deck, words, -1, false, null, false);
    }

    /** A word about gear that cannot be reached: it was so, and may be otherwise by now. */
    public static String lastKnown(String word) {
        return word + "?";
    }

    private static FaceNow of(Button button, int index, Function<String, @Nullable Value> named, DeckState deck,
            FaceWords words, int coming,
            boolean held, @Nullable String fault, boolean present) {
        State state = button.states().get(index);
        Face face = state.face();
        String tint = face.tint();
        Face.Tally lit = words.lit(face, named);
        if (lit != null && present && Condition.readings(lit.when()).stream().anyMatch(r -> deck.lastKnown(r.gear()))) {
            lit = new Face.Tally(lit.when(), lastKnown(lit.word()), Tone.QUIET, lit.extra());
        }
        return new FaceNow(
                words.filled(face.label() == null ? button.name() : face.label(), button.id()),
                face.second() == null ? "" : words.filled(face.second(), button.id()), face,
                tint == null ? null : face.ink() == null ? Contrast.inkOn(tint) : face.ink(), lit,
                button.states().size(), index, state.name(), coming, held, fault, levels(button.control(), deck,
                        words));
    }

    private static List<Level> levels(@Nullable Control control, DeckState deck, FaceWords words) {
        List<Level> all = new ArrayList<>();
        for (Control.Axis axis : control == null ? List.<Control.Axis>of() : control.axes()) {
            Optional<Scale> scale = words.scale(axis);
            Value value = deck.reading(axis.gear(), axis.reading());
            all.add(scale.isEmpty() || value == null ? Level.UNKNOWN : Level.of(scale.get(), value.asNumber()));
        }
        return all;
    }

    /** The readings that make a state the one that is shown: as it says itself, and not as the others say. */
    private static Map<String, Value> following(Button button, int state) {
        Condition own = button.states().get(state).when();
        Map<String, Value> then = new HashMap<>(own == null ? Map.of() : own.meeting());
        for (State other : button.states()) {
            if (other.when() != null && other.when() != own) {
                new Condition.Not(other.when()).meeting().forEach(then::putIfAbsent);
            }
        }
        return then;
    }

    /** How far the chain of a button is at a moment on the deck's clock; it changes with time alone. */
    public static Going going(Button button, DeckState deck, long nowNanos) {
        DeckState.Guarding guard = deck.guarding(button.id());
        if (guard != null) {
            double whole = guard.untilNanos() - guard.sinceNanos();
            return new Going(Math.clamp((nowNanos - guard.sinceNanos()) / whole, 0, 1), guard.hold()
                    ? "HOLD"
                    : "AGAIN");
        }
        DeckState.Running run = deck.running(button.id());
        if (run == null) {
            return Going.NOTHING;
        }
        double gone = (nowNanos - run.startNanos()) / 1e9;
        double whole = run.expectedNanos() / 1e9;
        return new Going(whole <= 0 ? 1 : Math.clamp(gone / whole, 0, 1), deck.asks(run.run())
                ? "ASKS"
                : whole <= SHORT_SECONDS || gone >= whole ? "" : Figures.left(whole - gone));
    }

    /** All of it in words, for those who do not see it. */
    public String spoken() {
        List<String> words = new ArrayList<>(List.of(label.replace('\n', ' ')));
        levels.forEach(l -> words.add(l.words()));
        words.add(second);
        words.add(states > 1 ? stateName : "");
        words.add(tally == null ? "" : tally.word().endsWith("?") ? "last known " + tally.word() : tally.word());
        words.add(fault == null ? "" : "fault: " + fault);
        words.removeIf(String::isEmpty);
        return String.join(", ", words);
    }
}
