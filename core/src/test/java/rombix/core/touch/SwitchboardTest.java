package rombix.core.touch;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import rombix.core.board.Button;
import rombix.core.board.Control;
import rombix.core.board.Trigger.Midi.Message;
import rombix.core.board.Trigger.Midi.Turns;
import rombix.core.board.Trigger;
import rombix.core.chain.Chain;
import rombix.core.engine.TestDeck;
import rombix.core.event.Event;
import rombix.core.value.Value;

class SwitchboardTest {
    private final List<Event> posted = new ArrayList<>();
    private final List<String> selected = new ArrayList<>();
    private final Switchboard board = new Switchboard(posted::add, selected::add);

    private static Button button(String id, Trigger... triggers) {
        return TestDeck.button(id, TestDeck.state(Chain.EMPTY)).withTriggers(List.of(triggers));
    }

    private static Trigger.Midi midi(Message message, Turns turns) {
        return new Trigger.Midi("Pads", message, 1, 36, turns, Map.of(), false);
    }

    private void load(Button... buttons) {
        board.load(TestDeck.rig(buttons));
        board.arm(true);
    }

    private void note(int velocity) {
        board.take(new Touch.Midi("Pads", Message.NOTE, 1, 36, velocity));
    }

    private void control(int value) {
        board.take(new Touch.Midi("Pads", Message.CONTROL, 1, 36, value));
    }

    /** What the deck is asked to do, when it takes what was posted. */
    private List<String> taken() {
        List<String> all = new ArrayList<>();
        for (Event e : List.copyOf(posted)) {
            Event now = e instanceof Event.Latest l ? l.what().get() : e;
            if (now != null) {
                all.add(switch (now) {
                    case Event.Pressed p -> "press " + p.button();
                    case Event.Released r -> "release " + r.button();
                    case Event.LetGo l -> "let go " + l.button();
                    case Event.Perform p -> "perform " + p.button();
                    case Event.Turned t -> "turn " + t.button() + " " + t.detents();
                    case Event.Moved m -> "move " + m.button() + " " + m.axis() + " " + m.value();
                    default -> now.toString();
                });
            }
        }
        posted.clear();
        return all;
    }

    /** A key that was pressed while the deck left Live stayed held: its release was taken for one of Build. */
    @Test
    void whatIsPressedWhileLiveEndsIsLetGo() {
        Switchboard[] disarmed = new Switchboard[1];
        disarmed[0] = new Switchboard(e -> {
            posted.add(e);
            disarmed[0].arm(false);
        }, selected::add);
        disarmed[0].load(TestDeck.rig(button("a", midi(Message.NOTE, null)), button("b", midi(Message.NOTE, null))));
        disarmed[0].arm(true);
        disarmed[0].take(new Touch.Midi("Pads", Message.NOTE, 1, 36, 99));
        assertThat(taken()).containsSubsequence("press a", "let go a").containsSubsequence("press b", "let go b");
    }

    @Test
    void aNotePressesAndReleases() {
        load(button("a", midi(Message.NOTE, null)));
        note(100);
        note(0);
        note(0);
        assertThat(taken()).containsExactly("press a", "release a");
    }

    private void part(String part, double x, double y) {
        board.take(new Touch.Gamepad("Pad", part, x, y));
    }

    @Test
    void aGamepadsButtonPressesAndReleasesAndATriggerDoesBeyondItsHalf() {
        load(button("a", new Trigger.Gamepad("Pad", "lower button")), button("b", new Trigger.Gamepad("Pad",
                "left trigger")));
        part("lower button", 1, 0);
        part("lower button", 0, 0);
        part("left trigger", 0.3, 0);
        part("left trigger", 0.7, 0);
        part("left trigger", 0.45, 0);
        part("left trigger", 0.1, 0);
        assertThat(taken()).containsExactly("press a", "release a", "press b", "release b");
    }

    @Test
    void aStickHoldsAKeyPadAndAPointerFieldOverAndPullingItOutLetsGo() {
        load(button("keys", new Trigger.Gamepad("Pad", "left stick")).withControl(new Control.KeyPad(false)), button(
                "field", new Trigger.Gamepad("Pad", "right stick")).withControl(new Control.PointerField(1, false)));
        part("left stick", 0, 1);
        assertThat(taken()).containsExactly("move keys 0 0.0", "move keys 1 1.0");
        part("right stick", -0.5, 0.25);
        assertThat(taken()).containsExactly("move field 0 -0.5", "move field 1 0.25");
        part("right stick", 0, 0);
        assertThat(taken()).containsExactly("move field 0 0.0", "move field 1 0.0");
        board.take(new Touch.Gone("Pad", "gamepad"));
        assertThat(taken()).as("what is back in the middle holds nothing").containsExactly("let go keys");
    }

    @Test
    void aKeySeenEverywhereHoldsHoweverOftenItIsRepeated() {
        load(button("a", new Trigger.Key("Shift+Ctrl+F13", true)), button("b", new Trigger.Key("F14")));
        board.take(new Touch.Key("Ctrl+Shift+F13", true));
        board.take(new Touch.Key("Ctrl+Shift+F13", true));
        board.take(new Touch.Key("F14", true)); // That one is for the window alone.
        board.take(new Touch.Key("Ctrl+Shift+F13", false));
        assertThat(taken()).containsExactly("press a", "release a");
    }

    @Test
    void aControllerThatIsPulledOutLetsGoOfWhatItHolds() {
        load(button("a", midi(Message.NOTE, null)), button("b", new Trigger.Key("F13", true)));
        note(100);
        board.take(new Touch.Key("F13", true));
        board.take(new Touch.Gone("Pads"));
        note(0);
        assertThat(taken()).containsExactly("press a", "press b", "let go a");
    }

    @Test
    void leavingLiveLetsGoAndNothingPressesUntilItIsBack() {
        load(button("a", midi(Message.NOTE, null)));
        note(100);
        board.arm(false);
        note(0);
        note(100);
        assertThat(taken()).containsExactly("press a", "let go a");
        assertThat(selected).containsExactly("a", "a");
    }

    @Test
    void aKeySelectsNothingInBuildAsOneTypesThere() {
        load(button("a", new Trigger.Key("K", true)));
        board.arm(false);
        board.take(new Touch.Key("K", true));
        board.take(new Touch.Key("K", false));
        assertThat(selected).isEmpty();
        assertThat(taken()).isEmpty();
    }

    @Test
    void ofAFloodTheLastValueOfEachControlWins() {
        load(button("a", midi(Message.CONTROL, Turns.ABSOLUTE)).withControl(new Control.Fader(new Control.Axis("gear",
                "level"))));
        for (int i = 0; i < 10_000; i++) {
            control(i % 128);
        }
        control(127);
        assertThat(posted).hasSize(1);
        assertThat(taken()).containsExactly("move a 0 100.0");
        control(0);
        assertThat(taken()).containsExactly("move a 0 0.0");
    }

    @Property
    void turnsOfAnEncoderAddUpHoweverTheyAreTaken(@ForAll List<@IntRange(min = -20, max = 20) Integer> turns,
            @ForAll @IntRange(min = 1, max = 5) int every) {
        for (Turns how : List.of(Turns.TWOS_COMPLEMENT, Turns.SIGNED_BIT)) {
            posted.clear();
            load(button("a", midi(Message.CONTROL, how)));
            int sum = 0;
            for (int i = 0; i < turns.size(); i++) {
                int t = turns.get(i);
                control(t >= 0 ? t : how == Turns.SIGNED_BIT ? 64 - t : 128 + t);
                if (i % every == 0) {
                    sum += sum();
                }
            }
            assertThat(sum + sum()).isEqualTo(turns.stream().mapToInt(Integer::intValue).sum());
        }
    }

    private int sum() {
        return taken().stream().mapToInt(t -> Integer.parseInt(t.substring(t.lastIndexOf(' ') + 1))).sum();
    }

    @Test
    void aFloodOfPushesIsDroppedInPairsAndCounted() {
        load(button("a", midi(Message.NOTE, null)));
        for (int i = 0; i < 10_000; i++) {
            note(100);
            note(0);
        }
        assertThat(posted).hasSizeLessThan(40);
        assertThat(board.dropped()).isGreaterThan(9_900);
        List<String> all = taken();
        for (int i = 0; i < all.size(); i++) {
            assertThat(all.get(i)).isEqualTo(i % 2 == 0 ? "press a" : "release a");
        }
        note(100);
        assertThat(taken()).containsExactly("press a");
    }

    @Test
    void oscPressesReleasesAndMoves() {
        Control level = new Control.Fader(new Control.Axis("gear", "level"));
        load(button("a", new Trigger.Osc("/go")), button("f", new Trigger.Osc("/fader")).withControl(level));
        board.take(new Touch.Osc("/go", List.of()));
        board.take(new Touch.Osc("/go", List.of(Value.of(1))));
        board.take(new Touch.Osc("/go", List.of(Value.of(0))));
        board.take(new Touch.Osc("/elsewhere", List.of()));
        assertThat(taken()).containsExactly("press a", "release a", "press a", "release a");
        board.take(new Touch.Osc("/fader", List.of(Value.of(0.25))));
        board.take(new Touch.Osc("/fader", List.of(Value.of(0.75))));
        assertThat(taken()).containsExactly("move f 0 75.0");
    }

    @Test
    void aProgramChangePerformsThePress() {
        load(button("a", midi(Message.PROGRAM, null)));
        board.take(new Touch.Midi("Pads", Message.PROGRAM, 1, 36, 127));
        assertThat(taken()).containsExactly("perform a");
    }

    @Test
    void whatIsLearntPressesNothing() {
        load(button("a", midi(Message.NOTE, null)));
        List<Touch> learnt = new ArrayList<>();
        board.learn(learnt::add);
        note(90);
        note(0);
        board.learn(null);
        assertThat(learnt).containsExactly(new Touch.Midi("Pads", Message.NOTE, 1, 36, 90));
        assertThat(taken()).isEmpty();
    }

    @Test
    void aTriggerThatIsTakenOffDuringAHoldLetsGo() {
        load(button("a", midi(Message.NOTE, null)));
        note(100);
        board.load(TestDeck.rig(button("a")));
        assertThat(taken()).containsExactly("press a", "let go a");
    }
}
