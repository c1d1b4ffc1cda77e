package rombix.core.touch;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import rombix.core.board.Button;
import rombix.core.board.Control;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.board.Trigger.Midi.Led;
import rombix.core.board.Trigger.Midi.Message;
import rombix.core.board.Trigger.Midi.Turns;
import rombix.core.board.Trigger;
import rombix.core.chain.Chain;
import rombix.core.engine.TestDeck;

class FeedbackTest {
    private final List<String> sent = new ArrayList<>();
    private long now;
    private int state;
    private Double level;
    private final Feedback feedback = new Feedback(m -> sent.add(m.message() + " " + m.number() + " " + m.value()),
            () -> now, new Feedback.Deck() {
                @Override
                public int state(String button) {
                    return state;
                }

                @Override
                public Double level(Control.Axis axis) {
                    return level;
                }
            });

    @BeforeEach
    void load() {
        feedback.load(rig());
        sent.clear();
    }

    /** A pad with two states and a fader with a motor. */
    private static Rig rig() {
        Button pad = TestDeck.button("pad", State.named("off"), State.named("on"), State.named("dark")).withTriggers(
                List.of(new Trigger.Midi("Pads", Message.NOTE, 1, 36, null, Map.of("off", new Led(null, 1), "on",
                        new Led(48, 5)), false)));
        Button fader = TestDeck.button("fader", TestDeck.state(Chain.EMPTY)).withControl(new Control.Fader(
                new Control.Axis("gear", "level"))).withTriggers(List.of(
                        new Trigger.Midi("Pads", Message.CONTROL, 1, 7,
                                Turns.ABSOLUTE, Map.of(), true)));
        return TestDeck.rig(pad, fader);
    }

    private void shows(int state) {
        this.state = state;
        feedback.changed(Set.of("pad"), Set.of());
    }

    private void level(double level) {
        this.level = level;
        feedback.changed(Set.of(), Set.of(new Control.Axis("gear", "level")));
    }

    @Test
    void eachStateLightsItsLampAndDarkensThoseOfTheOthers() {
        shows(1);
        assertThat(sent).containsExactly("NOTE 36 0", "NOTE 48 5");
        sent.clear();
        shows(1);
        assertThat(sent).isEmpty();
        shows(2);
        assertThat(sent).containsExactly("NOTE 48 0");
        shows(0);
        assertThat(sent).endsWith("NOTE 36 1");
    }

    @Test
    void aControllerThatIsPluggedInIsToldAll() {
        shows(1);
        level(50);
        sent.clear();
        feedback.arrived("Other");
        assertThat(sent).isEmpty();
        feedback.arrived("Pads");
        assertThat(sent).containsExactlyInAnyOrder("NOTE 36 0", "NOTE 48 5", "CONTROL 7 64");
    }

    @Test
    void aMotorFollowsTheLevelButNeverAgainstTheHand() {
        level(0);
        level(100);
        assertThat(sent).containsExactly("CONTROL 7 0", "CONTROL 7 127");
        sent.clear();
        feedback.touched(new Touch.Midi("Pads", Message.CONTROL, 1, 7, 20));
        level(14);
        level(15.7);
        assertThat(sent).isEmpty();
        now += 500_000_000L;
        shows(0);
        assertThat(sent).as("where the hand left it").doesNotContain("CONTROL 7 18");
        level(60);
        assertThat(sent).contains("CONTROL 7 76");
    }

    @Test
    void aMotorThatIsAskedForLaterGoesToWhereTheLevelIs() {
        feedback.load(TestDeck.rig());
        level(100);
        assertThat(sent).isEmpty();
        feedback.load(rig());
        assertThat(sent).contains("CONTROL 7 127");
    }

    @Test
    void whatTheGearDidNotFollowIsPutRightWhenTheHandIsGone() {
        feedback.touched(new Touch.Midi("Pads", Message.CONTROL, 1, 7, 127));
        level(40);
        now += 500_000_000L;
        shows(0);
        assertThat(sent).contains("CONTROL 7 51");
    }
}
