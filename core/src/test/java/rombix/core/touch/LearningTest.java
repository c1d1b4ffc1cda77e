package rombix.core.touch;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rombix.core.board.Button;
import rombix.core.board.Control;
import rombix.core.board.Trigger;
import rombix.core.board.Trigger.Midi.Message;
import rombix.core.board.Trigger.Midi.Turns;
import rombix.core.chain.Chain;
import rombix.core.engine.TestDeck;

class LearningTest {
    private static final Button PUSH = TestDeck.button("b", TestDeck.state(Chain.EMPTY));
    private static final Control.Axis LEVEL = new Control.Axis("gear", "level");

    private static Touch.Midi control(int value) {
        return new Touch.Midi("Pads", Message.CONTROL, 2, 20, value);
    }

    @Test
    void keysNotesAndOscAreKnownAtOnce() {
        for (Touch t : List.of(new Touch.Key("F13", true), new Touch.Midi("Pads", Message.NOTE, 1, 36, 90),
                new Touch.Osc(
                        "/go", List.of()))) {
            Learning learning = new Learning();
            assertThat(learning.begun()).isFalse();
            assertThat(learning.add(t)).isTrue();
            assertThat(learning.trigger(PUSH)).isPresent();
        }
        Learning key = new Learning();
        key.add(new Touch.Key("Ctrl+F13", true));
        assertThat(key.trigger(PUSH)).contains(new Trigger.Key("Ctrl+F13", true));
    }

    @Test
    void aPartOfAGamepadIsKnownAtOnce() {
        Learning learning = new Learning();
        assertThat(learning.add(new Touch.Gamepad("Pad", "left stick", 0.8, 0))).isTrue();
        assertThat(learning.trigger(PUSH)).contains(new Trigger.Gamepad("Pad", "left stick"));
    }

    @ParameterizedTest
    @CsvSource({"fader, 60 61 62 64, ABSOLUTE", "dial, 1 1 2 1 127, TWOS_COMPLEMENT", "dial, 1 1 65 66, SIGNED_BIT",
            "push, 1 1 1 127, TWOS_COMPLEMENT", "push, 127, ", "push, 127 0, ", "dial, 40 41 42, ABSOLUTE",
            "fader, 127, ABSOLUTE"})
    void howAControlTurnsIsToldByItsValues(String what, String values, Turns turns) {
        Button b = switch (what) {
            case "fader" -> PUSH.withControl(new Control.Fader(LEVEL));
            case "dial" -> PUSH.withControl(new Control.Dial(LEVEL, 0, 0));
            default -> PUSH;
        };
        Learning learning = new Learning();
        for (String v : values.split(" ")) {
            assertThat(learning.add(control(Integer.parseInt(v)))).isFalse();
        }
        learning.add(new Touch.Midi("Pads", Message.CONTROL, 2, 21, 99)); // Another control was brushed.
        assertThat(learning.trigger(b)).contains(new Trigger.Midi("Pads", Message.CONTROL, 2, 20, turns, Map.of(),
                turns == Turns.ABSOLUTE));
    }
}
