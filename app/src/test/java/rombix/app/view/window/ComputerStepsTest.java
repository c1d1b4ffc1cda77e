package rombix.app.view.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.PasswordField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.stage.Window;
import org.junit.jupiter.api.Test;
import org.testfx.util.WaitForAsyncUtils;
import rombix.app.log.LogStore;
import rombix.app.show.Session;
import rombix.core.board.Edits;
import rombix.core.chain.Arg;
import rombix.core.chain.DeckStep;
import rombix.core.chain.GearStep;
import rombix.core.chain.StepOptions;
import rombix.core.value.Value;

/** Steps that work a computer, written and run by one who sits at the window. */
class ComputerStepsTest extends AtTheWindow {

    private GearStep.Do step() {
        return (GearStep.Do) bench().chain().steps().getFirst();
    }

    private void open(String button, GearStep.Do step) {
        soon(() -> session.window().deck().readings("computer").apply("windows") != null);
        chain(button, step);
        robot.interact(() -> bench().select(button));
        soon(() -> find("#step-0") != null);
        click(find("#step-0"));
        soon(() -> find("#step-popover") != null);
    }

    private void fire(String id) {
        robot.interact(() -> ((Button) stage.getScene().lookup(id)).fire());
    }

    private static Node anywhere(String id) {
        return WaitForAsyncUtils.waitForAsyncFx(5000, () -> Window.getWindows().stream().map(w -> w.getScene().getRoot()
                .lookup(id)).filter(n -> n != null).findFirst().orElse(null));
    }

    @Test
    void keysArePressedToBeEntered() {
        open("next-cue", new GearStep.Do("computer", "press-keys", Map.of("keys", Value.of("Enter"))));
        robot.interact(() -> find("#arg-keys-pressed").requestFocus());
        key(KeyCode.K, KeyCode.CONTROL, KeyCode.SHIFT);
        soon(() -> step().with().get("keys").shown().toString().equals("Ctrl+Shift+K"));
        choose("#arg-keys-list", "Numpad 3");
        assertThat(step().with().get("keys").shown()).isEqualTo(Value.of("Ctrl+Shift+Numpad 3"));
        choose("#arg-keys-list", "Right Alt");
        assertThat(step().with().get("keys").shown()).isEqualTo(Value.of("Ctrl+Shift+Right Alt+Numpad 3"));
    }

    @Test
    void aPlaceIsShownOnTheScreenAndReckonedFromTheWindowThere() {
        open("next-cue", new GearStep.Do("computer", "click", Map.of("place", Value.of("pointer"))));
        assertThat(label("#arg-place-words")).isEqualTo("where the pointer is");
        fire("#arg-place-show");
        soon(() -> anywhere("#show-me") != null);
        Node all = anywhere("#show-me");
        Point2D at = WaitForAsyncUtils.waitForAsyncFx(5000, () -> all.localToScreen(190, 412));
        robot.moveTo(at);
        robot.press(MouseButton.PRIMARY).release(MouseButton.PRIMARY);
        soon(() -> step().with().get("place").shown().toString().equals("window booth from lower-left at 90 97"));
        soon(() -> anywhere("#show-me") == null);
        assertThat(label("#arg-place-words")).isEqualTo("90, 97 from the lower left of “booth”");
        choose("#arg-place-as", "190, 412 of screen 1");
        assertThat(step().with().get("place").shown()).isEqualTo(Value.of("screen 1 at 190 412"));
        robot.type(KeyCode.ESCAPE);

        key(KeyCode.F6);
        click(tile("next-cue"));
        soon(() -> gear.booth().look().slides() == 1);
    }

    @Test
    void showingAPlaceIsLeftWithEscapeAndNothingHasChanged() {
        open("next-cue", new GearStep.Do("computer", "move", Map.of("place", Value.of("pointer"))));
        fire("#arg-place-show");
        soon(() -> anywhere("#show-me") != null);
        robot.interact(() -> anywhere("#show-me").getScene().getWindow().requestFocus());
        robot.type(KeyCode.ESCAPE);
        soon(() -> anywhere("#show-me") == null);
        assertThat(step().with().get("place").shown()).isEqualTo(Value.of("pointer"));
    }

    @Test
    void aSecretThatIsAskedForAtThePressIsTypedOnceAndStandsNowhere() throws Exception {
        soon(() -> session.window().deck().readings("computer").apply("windows") != null);
        robot.interact(() -> bench().edit("test", b -> Edits.addValue(b, "asked", Value.of(""))));
        chain("next-cue", new DeckStep.Ask("Password?", DeckStep.Ask.AnswerType.SECRET, List.of(), "asked", null, null,
                StepOptions.PLAIN, Map.of()),
                new GearStep.Do("computer", "type-secret", Map.of("secret",
                        new Arg.Computed("{asked}"), "pace", Arg.of(Value.of(0))), null, StepOptions.PLAIN, Map.of()));
        key(KeyCode.F6);
        click(tile("next-cue"));
        soon(() -> find("#answer") != null);
        assertThat(find("#answer")).isInstanceOf(PasswordField.class);
        type("#answer", "open-sesame-9");
        soon(() -> gear.booth().look().text().endsWith("open-sesame-9"));
        try (LogStore log = new LogStore(Session.logOf(file))) {
            soon(() -> said(log).contains("Type the secret"));
            assertThat(said(log)).contains("given").doesNotContain("open-sesame");
        }
    }

    private static String said(LogStore log) throws LogStore.Trouble {
        return log.find(LogStore.Query.newest(50)).toString();
    }

    @Test
    void inRehearsalTheComputerIsLeftAlone() {
        soon(() -> session.window().deck().readings("computer").apply("windows") != null);
        key(KeyCode.F7);
        robot.interact(() -> session.window().bench().showPage("booth"));
        soon(() -> find("#tile-ctrl-once") != null);
        click(tile("ctrl-once"));
        soon(() -> Value.of(true).equals(session.window().deck().readings("computer").apply("held/ctrl")));
        assertThat(gear.booth().look().down()).isEmpty();
        assertThat(gear.booth().look().log()).isEmpty();
    }
}
