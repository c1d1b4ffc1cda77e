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
import rombix.core.chain.Arg;
import rombix.core.chain.DeckStep;
import rombix.core.chain.GearStep;
import rombix.core.chain.StepOptions;
import rombix.core.edit.Edits;
import rombix.core.value.Value;
import rombix.running.log.LogStore;

/** Steps that work a computer, written and run by one who sits at the window. */
class ComputerStepsTest extends AtTheWindow {

    private GearStep.Do step() {
        return (GearStep.Do) bench().chain().steps().getFirst();
    }

    private void open(String button, GearStep.Do step) {
        soon(() -> session.window().model().state().readings("computer").apply("windows") != null);
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
        return WaitForAsyncUtils.waitForAsyncFx(60_000,
                () -> Window.getWindows().stream().map(w -> w.getScene().getRoot()
                        .lookup(id)).filter(n -> n != null).findFirst().orElse(null));
    }

    @Test
    void keysArePressedToBeEntered() {
        open("next-cue", new GearStep.Do("computer", "press-keys", Map.of("keys", Value.of("Enter"))));
        robot.interact(() -> find("#arg-keys-pressed").requestFocus());
        key(KeyCode.K, KeyCode.CONTROL, KeyCode.SHIFT);
        soon(() -> step().args().get("keys").shown().toString().equals("Ctrl+Shift+K"));
        choose("#arg-keys-list", "Numpad 3");
        assertThat(step().args().get("keys").shown()).isEqualTo(Value.of("Ctrl+Shift+Numpad 3"));
        choose("#arg-keys-list", "Right Alt");
        assertThat(step().args().get("keys").shown()).isEqualTo(Value.of("Ctrl+Shift+Right Alt+Numpad 3"));
    }

    @Test
    void aPlaceIsShownOnTheScreenAndReckonedFromTheWindowThere() {
        open("next-cue", new GearStep.Do("computer", "click", Map.of("place", Value.of("pointer"))));
        assertThat(label("#arg-place-words")).isEqualTo("at the pointer");
        fire("#arg-place-show");
        soon(() -> anywhere("#show-me") != null);
        Node all = anywhere("#show-me");
        Point2D at = WaitForAsyncUtils.waitForAsyncFx(60_000, () -> all.localToScreen(190, 412));
        robot.moveTo(at);
        robot.press(MouseButton.PRIMARY).release(MouseButton.PRIMARY);
        soon(() -> step().args().get("place").shown().toString()
                .startsWith("window booth from lower-left at 90 97 seen p"));
        soon(() -> anywhere("#show-me") == null);
        assertThat(label("#arg-place-words")).isEqualTo("90, 97 from the lower left of “booth”");
        choose("#arg-place-as", "190, 412 of screen 1");
        assertThat(step().args().get("place").shown()).asString().startsWith(
                "screen 1 at 190 412 seen p");
        robot.type(KeyCode.ESCAPE);

        key(KeyCode.F6);
        click(tile("next-cue"));
        soon(() -> gear.booth().look().slides() == 1);
    }

    private void dragOnTheScreen(double fromX, double fromY, double toX, double toY) {
        Node all = anywhere("#show-me");
        robot.moveTo(WaitForAsyncUtils.waitForAsyncFx(60_000, () -> all.localToScreen(fromX, fromY)));
        robot.press(MouseButton.PRIMARY).moveTo(WaitForAsyncUtils.waitForAsyncFx(60_000, () -> all.localToScreen(toX,
                toY))).release(MouseButton.PRIMARY);
        soon(() -> anywhere("#show-me") == null);
    }

    private String place() {
        return step().args().get("place").shown().toString();
    }

    @Test
    void aPictureIsFramedFoundAtOnceAndClickedInLive() {
        open("next-cue", new GearStep.Do("computer", "click", Map.of("place", Value.of("pointer"))));
        fire("#arg-place-find");
        soon(() -> anywhere("#show-me") != null);
        dragOnTheScreen(176, 396, 222, 430);
        soon(() -> place().matches("picture p\\w+ in everywhere alike 90 take sole at middle wait 2000"));
        soon(() -> label("#arg-place-found").equals("Found: 100 %."));
        choose("#arg-place-within", "in the window of “chart”");
        soon(() -> place().contains("in window chart"));
        choose("#arg-place-within", "in the window of “booth”");
        choose("#arg-place-which", "the topmost match");
        type("#arg-place-called", "The next slide");
        assertThat(bench().board().pictures()).anyMatch(p -> p.name().equals("The next slide"));
        robot.type(KeyCode.ESCAPE);
        key(KeyCode.F6);
        click(tile("next-cue"));
        soon(() -> gear.booth().look().slides() == 1);
    }

    /** It could be dragged around nothing, and nothing was said. */
    @Test
    void aScreenThatCannotBeSeenIsSaidToBe() throws Exception {
        open("next-cue", new GearStep.Do("computer", "click", Map.of("place", Value.of("pointer"))));
        gear.booth().close();
        fire("#arg-place-find");
        soon(() -> label("#arg-place-unseen").startsWith("Can't see the screen."));
        assertThat(anywhere("#show-me")).isNull();
    }

    @Test
    void aPartOfTheScreenIsShownByADrag() {
        open("next-cue", new GearStep.Do("computer", "take-picture", Map.of("place", Value.of("pointer"))));
        fire("#arg-place-show");
        soon(() -> anywhere("#show-me") != null);
        dragOnTheScreen(100, 90, 300, 190);
        soon(() -> place().equals("region 1 100 90 200 100"));
    }

    @Test
    void showingAPlaceIsLeftWithEscapeAndNothingHasChanged() {
        open("next-cue", new GearStep.Do("computer", "move", Map.of("place", Value.of("pointer"))));
        fire("#arg-place-show");
        soon(() -> anywhere("#show-me") != null);
        robot.interact(() -> anywhere("#show-me").getScene().getWindow().requestFocus());
        robot.type(KeyCode.ESCAPE);
        soon(() -> anywhere("#show-me") == null);
        assertThat(step().args().get("place").shown()).isEqualTo(Value.of("pointer"));
    }

    @Test
    void aSecretThatIsAskedForAtThePressIsTypedOnceAndStandsNowhere() throws Exception {
        soon(() -> session.window().model().state().readings("computer").apply("windows") != null);
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
        try (LogStore log = new LogStore(LogStore.beside(file))) {
            soon(() -> said(log).contains("Type the secret"));
            assertThat(said(log)).contains("given").doesNotContain("open-sesame");
        }
    }

    private static String said(LogStore log) throws LogStore.Trouble {
        return log.find(LogStore.Query.newest(50)).toString();
    }

    @Test
    void inRehearsalTheComputerIsLeftAlone() {
        soon(() -> session.window().model().state().readings("computer").apply("windows") != null);
        key(KeyCode.F7);
        robot.interact(() -> session.window().bench().showPage("booth"));
        soon(() -> find("#tile-ctrl-once") != null);
        click(tile("ctrl-once"));
        soon(() -> Value.of(true).equals(session.window().model().state().readings("computer").apply("held/ctrl")));
        assertThat(gear.booth().look().down()).isEmpty();
        assertThat(gear.booth().look().log()).isEmpty();
    }
}
