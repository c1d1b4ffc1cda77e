package rombix.app.view.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Labeled;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import org.junit.jupiter.api.Test;
import rombix.core.board.Board;
import rombix.core.board.Trigger;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.Condition;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.edit.Edits;
import rombix.core.event.Mode;
import rombix.core.touch.DeckPort;
import rombix.core.value.Value;
import rombix.running.state.DeckState;

/** The show goes on while it is changed. */
class EditOnAirTest extends AtTheWindow {
    private static final Step TEA = new GearStep.Do("house", "switch-on", Map.of("plug", Value.of("tea-urn")));

    private void push(String id) {
        soon(() -> find(id) != null);
        robot.interact(((Button) find(id))::fire);
    }

    private DeckState state() {
        return session.window().model().state();
    }

    private Chain pressOf(String button) {
        return bench().rig().button(button).orElseThrow().states().getFirst().chain(Gesture.PRESS);
    }

    private void onAir(String button) {
        robot.robotContext().getMouseRobot().moveNoWait(middle(tile(button)));
        robot.interact(() -> tile(button).requestFocus());
        key(KeyCode.E, KeyCode.CONTROL);
        soon(() -> find("#on-air") != null);
    }

    @Test
    void aButtonIsEditedWhileAHoldAFadeAndARepeatRun() {
        chain("gate", new Step.Repeat(Arg.of(100_000), null, 30L, "i", Chain.of(new Step.Wait(5)), StepOptions.PLAIN,
                Map.of()));
        chain("next-cue", new GearStep.Fade("desk", "level", Map.of("channel", Arg.of("music-bed")), "level", null, Arg
                .of(-60), 120_000, GearStep.Fade.Curve.LINEAR, StepOptions.PLAIN, Map.of()));
        Board before = bench().board();
        mode(Mode.LIVE);
        DeckPort hand = session.deck().port("pedal");
        hand.press("host-talk");
        hand.press("gate");
        hand.release("gate");
        hand.press("next-cue");
        hand.release("next-cue");
        soon(() -> state().running("gate") != null && state().running("next-cue") != null);
        long repeat = state().running("gate").run();
        long fade = state().running("next-cue").run();
        soon(() -> Value.of(false).equals(state().reading("desk", "muted/host")));

        onAir("host-talk");
        robot.interact(() -> find("#finder").requestFocus());
        add("tea urn on");
        assertThat(bench().board()).as("nothing is changed until it is applied").isEqualTo(before);
        push("#on-air-apply");
        soon(() -> find("#on-air") == null);
        assertThat(pressOf("host-talk").steps()).hasSize(2);
        assertThat(bench().undoName()).contains("edit “" + bench().rig().button("host-talk").orElseThrow().name()
                + "” on air");
        assertThat(bench().mode()).isEqualTo(Mode.LIVE);

        assertThat(state().play("host-talk").held()).as("the hold goes on").isTrue();
        assertThat(state().running("gate").run()).isEqualTo(repeat);
        assertThat(state().running("next-cue").run()).isEqualTo(fade);
        hand.release("host-talk");
        soon(() -> Value.of(true).equals(state().reading("desk", "muted/host")));
        assertThat(state().reading("house", "on/tea-urn")).as("the hold ended as it began").isEqualTo(Value.of(false));
        hand.press("host-talk");
        soon(() -> Value.of(true).equals(state().reading("house", "on/tea-urn")));
        hand.release("host-talk");
    }

    @Test
    void aDraftIsDiscardedOrAskedForAndItsKeysPressNothing() {
        Board before = bench().board();
        mode(Mode.LIVE);
        onAir("gate");
        robot.type(KeyCode.ESCAPE);
        soon(() -> find("#on-air") == null);
        onAir("gate");
        robot.interact(() -> find("#finder").requestFocus());
        add("tea urn on");
        key(KeyCode.Z, KeyCode.CONTROL);
        robot.interact(() -> find("#score-drawing").requestFocus());
        robot.type(KeyCode.G);
        assertThat(state().running("gate")).as("a letter in the score presses no button").isNull();
        robot.interact(() -> find("#finder").requestFocus());
        add("tea urn on");
        robot.interact(() -> find("#score-drawing").requestFocus());
        robot.type(KeyCode.ESCAPE);
        push("#on-air-keep");
        assertThat(find("#on-air")).as("it is edited on").isNotNull();
        robot.interact(() -> find("#score-drawing").requestFocus());
        robot.type(KeyCode.ESCAPE);
        push("#on-air-drop");
        soon(() -> find("#on-air") == null);
        onAir("gate");
        robot.interact(() -> find("#finder").requestFocus());
        add("tea urn on");
        push("#on-air-discard");
        soon(() -> find("#on-air") == null);
        assertThat(bench().board()).isEqualTo(before);
    }

    /** Else each edit would leave a forecast behind that is computed for the rest of the show. */
    @Test
    void editsThatAreOverLeaveNothingRunning() {
        mode(Mode.LIVE);
        onAir("gate");
        robot.type(KeyCode.ESCAPE);
        soon(() -> find("#on-air") == null);
        long threads = threads();
        for (String button : List.of("doors-open", "host-talk", "gate")) {
            onAir(button);
            assertThat(((Labeled) there("#on-air .score-title")).getText())
                    .isEqualTo(bench().rig().button(button).orElseThrow().name());
            robot.type(KeyCode.ESCAPE);
            soon(() -> find("#on-air") == null);
        }
        assertThat(threads()).isEqualTo(threads);
    }

    private static long threads() {
        return Thread.getAllStackTraces().keySet().stream().filter(t -> t.getName().equals("forecast")).count();
    }

    @Test
    void theMenuOfAButtonInLiveOffersTheEdit() {
        mode(Mode.LIVE);
        robot.robotContext().getMouseRobot().moveNoWait(middle(tile("gate")));
        robot.press(MouseButton.SECONDARY).release(MouseButton.SECONDARY);
        push("#edit-on-air");
        soon(() -> find("#on-air") != null);
        Node panel = find("#on-air");
        assertThat(panel.getBoundsInParent().intersects(tile("gate").getBoundsInParent())).as(
                "the button that is edited stays in sight").isFalse();
        mode(Mode.BUILD);
        assertThat(find("#on-air")).isNull();
    }

    @Test
    void aCountdownOnAFaceTicksByItself() {
        robot.interact(() -> bench().edit("count", b -> Edits.button(b, "gate", x -> x.withStates(x.states().stream()
                .map(s -> s.withFace(s.face().withSecond("{=NOW()}"))).toList()))));
        mode(Mode.LIVE);
        String first = said("#tile-gate");
        soon(() -> !said("#tile-gate").equals(first));
    }

    @Test
    void triggersStayArmedInBuildWhereThatIsWanted() {
        robot.interact(() -> bench().edit("trigger", b -> Edits.button(b, "gate", x -> x.withTriggers(List.of(
                new Trigger.Becomes(Condition.OnReading.is("desk", "muted/dome", Value.of(true))))))));
        chain("gate", TEA);
        mode(Mode.LIVE);
        click(find("#mode-build"));
        push("#leave-armed");
        assertThat(bench().mode()).isEqualTo(Mode.BUILD);
        assertThat(find("#armed")).isNotNull();
        robot.interact(() -> bench().edit("name", b -> Edits.button(b, "gate", x -> x.withName("Main gate"))));
        session.deck().tell("desk", "mute", Map.of("channel", Value.of("dome")));
        soon(() -> Value.of(true).equals(state().reading("house", "on/tea-urn")));
        push("#disarm");
        assertThat(find("#armed")).isNull();
        session.deck().tell("desk", "unmute", Map.of("channel", Value.of("dome")));
        session.deck().tell("house", "switch-off", Map.of("plug", Value.of("tea-urn")));
        soon(() -> Value.of(false).equals(state().reading("house", "on/tea-urn")));
        session.deck().tell("desk", "mute", Map.of("channel", Value.of("dome")));
        soon(() -> Value.of(true).equals(state().reading("desk", "muted/dome")));
        assertThat(Optional.ofNullable(state().running("gate"))).isEmpty();
        assertThat(state().reading("house", "on/tea-urn")).isEqualTo(Value.of(false));
    }
}
