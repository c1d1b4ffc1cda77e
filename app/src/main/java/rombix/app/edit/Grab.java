package rombix.app.edit;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Button;
import rombix.core.board.Control;
import rombix.core.board.Face.Tally;
import rombix.core.board.Face;
import rombix.core.board.State;
import rombix.core.card.Card.Tone;
import rombix.core.card.Card.Word;
import rombix.core.chain.Chain;
import rombix.core.chain.Condition;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.edit.Proposals;
import rombix.core.twin.Scale;
import rombix.core.twin.Twin.Reading;
import rombix.core.twin.Twin;
import rombix.core.value.Value;
import rombix.core.value.ValueType;

/**
 * A control of the rack under the hand: a reading, and the value that it is to get (its other one for a yes or no). It
 * becomes a step, or a whole button with a following face.
 */
public record Grab(Twin twin, Reading known, Value value) {

    /** What a reading is to become when its control is grabbed: the other of two, or what it is. */
    public static Optional<Grab> of(Twin twin, Reading known, @Nullable Value now) {
        Value to = known.spec().type() == ValueType.FLAG ? Value.of(now == null || !now.asFlag()) : now;
        return to == null || twin.toReach(known.id(), to).isEmpty()
                ? Optional.empty()
                : Optional.of(new Grab(twin, known, to));
    }

    /** The step that brings the value about. */
    public Optional<Step> step() {
        return step(value);
    }

    private Optional<Step> step(Value to) {
        return twin.toReach(known.id(), to).map(c -> new GearStep.Do(twin.gear(), c.command().id(), c.args()));
    }

    /** A button: for a yes or no with two states that follow, for a choice with a tally, for a level a fader, else one that sets it. */
    public Button button(String id, String name, int column, int row) {
        List<State> states = new ArrayList<>();
        if (known.spec().type() == ValueType.FLAG && step(Value.of(true)).isPresent()
                && step(Value.of(false)).isPresent()) {
            for (boolean on : new boolean[]{false, true}) {
                Value is = Value.of(on);
                states.add(new State(on ? "on" : "off", word(on), face(), State.NEXT,
                        Condition.OnReading.is(twin.gear(), known
                                .id(), is),
                        on(step(Value.of(!on)).orElseThrow()), Map.of()));
            }
        } else {
            states.add(new State("on", "on", face(), State.STAY, null, step().map(Grab::on).orElse(Map.of()), Map
                    .of()));
        }
        Button made = new Button(id, name, column, row, 1, 1, Button.Busy.RESTART, states, Map.of());
        // A level that can be moved is moved: a fader says more than a button that sets it to what it was once.
        return known.spec().type() == ValueType.NUMBER && Scale.of(twin, known.id()).isPresent()
                ? made.withStates(List.of(State.named("on").withFace(face())))
                        .withControl(new Control.Fader(new Control.Axis(twin.gear(), known.id())))
                : made;
    }

    private static Map<Gesture, Chain> on(Step step) {
        Map<Gesture, Chain> on = new EnumMap<>(Gesture.class);
        on.put(Gesture.PRESS, Chain.of(step));
        return on;
    }

    private String word(boolean on) {
        Word word = on ? known.spec().yes() : known.spec().no();
        return word == null ? on ? "on" : "off" : word.word().toLowerCase(java.util.Locale.ROOT);
    }

    private Face face() {
        List<Tally> tally = new ArrayList<>();
        if (known.spec().type() == ValueType.FLAG) {
            for (boolean on : new boolean[]{true, false}) {
                Word word = on ? known.spec().yes() : known.spec().no();
                if (word != null) {
                    tally.add(new Tally(Condition.OnReading.is(twin.gear(), known.id(), Value.of(on)), word.word(),
                            word.tone(),
                            Map.of()));
                }
            }
        } else if (known.spec().type() == ValueType.CHOICE) {
            tally.add(new Tally(Condition.OnReading.is(twin.gear(), known.id(), value),
                    known.spec().indicator() ? "ON AIR" : "NOW",
                    known.spec().indicator() ? Tone.AIR : Tone.READY, Map.of()));
        }
        return Face.PLAIN.withIcon(twin.card().icon()).withFill(Proposals.fill(twin.card())).withTally(tally);
    }

    /** What a button made of it is called: the thing itself, {@code Host}, or the choice, {@code Sky Map}. */
    public String name(Twin.Readings now) {
        return known.spec().type() == ValueType.CHOICE ? twin.spoken(known, value, now) : known.title();
    }
}
