package rombix.app.view.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import javafx.event.Event;
import javafx.event.EventType;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.scene.input.PickResult;
import javafx.scene.input.TouchEvent;
import javafx.scene.input.TouchPoint;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.testfx.util.WaitForAsyncUtils;
import rombix.core.board.Control;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.event.Mode;

/** Pointer field, wheel strip and key pad, worked with the mouse and with fingers, at the booth's computer. */
class FieldsTest extends AtTheWindow {
    private int touches;

    @BeforeEach
    void booth() {
        key(KeyCode.F6);
        robot.interact(() -> bench().showPage("booth"));
        soon(() -> find("#tile-booth-pointer") != null);
        soon(() -> session.window().model().state().readings("computer").apply("front") != null);
    }

    private void finger(Node on, int id, EventType<TouchEvent> what, double x, double y) {
        robot.interact(() -> {
            Point2D scene = on.localToScene(x, y);
            TouchPoint point = new TouchPoint(id, what == TouchEvent.TOUCH_PRESSED
                    ? TouchPoint.State.PRESSED
                    : what == TouchEvent.TOUCH_MOVED ? TouchPoint.State.MOVED : TouchPoint.State.RELEASED, scene.getX(),
                    scene.getY(), scene.getX(), scene.getY(), on, new PickResult(on, scene.getX(), scene.getY()));
            Event.fireEvent(on, new TouchEvent(what, point, List.of(point), ++touches, false, false, false,
                    false));
        });
    }

    @Test
    void aHandOnThePointerFieldMovesThePointerAtItsPaceAndATapClicks() {
        int x = gear.booth().look().pointerX();
        int y = gear.booth().look().pointerY();
        Point2D middle = middle(find("#tile-booth-pointer"));
        robot.moveTo(middle).press(MouseButton.PRIMARY);
        robot.moveTo(middle.add(20, 0)).moveTo(middle.add(40, 10)).release(MouseButton.PRIMARY);
        // The first pixels say only that it is no tap.
        soon(() -> gear.booth().look().pointerX() >= x + 54 && gear.booth().look().pointerY() > y + 8);
        assertThat(session.window().model().state().lastRuns().get("booth-pointer")).as("sliding presses nothing")
                .isNull();
        click(find("#tile-booth-pointer"));
        soon(() -> session.window().model().state().lastRuns().get("booth-pointer") != null);
        assertThat(gear.booth().look().pointerX()).isBetween(x + 54, x + 60);
    }

    @Test
    void twoFingersWorkTwoControlsAtOnce() {
        int x = gear.booth().look().pointerX();
        Node field = find("#tile-booth-pointer");
        Node pad = find("#tile-booth-keys");
        double w = WaitForAsyncUtils.waitForAsyncFx(60_000, () -> tile("booth-keys").getWidth());
        double h = WaitForAsyncUtils.waitForAsyncFx(60_000, () -> tile("booth-keys").getHeight());
        finger(pad, 2, TouchEvent.TOUCH_PRESSED, w - 12, h * 0.62);
        soon(() -> session.window().model().state().play("booth-keys").held());
        finger(field, 1, TouchEvent.TOUCH_PRESSED, 40, 30);
        finger(field, 1, TouchEvent.TOUCH_MOVED, 60, 30);
        finger(field, 1, TouchEvent.TOUCH_RELEASED, 60, 30);
        soon(() -> gear.booth().look().pointerX() == x + 30);
        assertThat(session.window().model().state().play("booth-keys").held()).as("the other finger is still there")
                .isTrue();
        finger(pad, 2, TouchEvent.TOUCH_RELEASED, w - 12, h * 0.62);
        soon(() -> !session.window().model().state().play("booth-keys").held());
    }

    @Test
    void aDiagonalOfTheKeyPadHoldsBothKeysAndSlidingOnLetsGoOfOne() {
        Node pad = find("#tile-booth-keys");
        double w = WaitForAsyncUtils.waitForAsyncFx(60_000, () -> tile("booth-keys").getWidth());
        double h = WaitForAsyncUtils.waitForAsyncFx(60_000, () -> tile("booth-keys").getHeight());
        finger(pad, 1, TouchEvent.TOUCH_PRESSED, w - 10, h - 8);
        soon(() -> gear.booth().look().down().containsAll(List.of("Right", "Down")));
        finger(pad, 1, TouchEvent.TOUCH_MOVED, w - 12, h * 0.62);
        soon(() -> !gear.booth().look().down().contains("Down"));
        assertThat(gear.booth().look().down()).contains("Right");
        mode(Mode.BUILD);
        soon(() -> gear.booth().look().down().isEmpty());
    }

    private long wheel(String way) {
        return gear.booth().look().log().stream().filter(l -> l.contains("wheel " + way)).count();
    }

    @Test
    void theStripTurnsTheWheelByNotchesEitherWay() {
        Point2D middle = middle(find("#tile-booth-wheel"));
        robot.moveTo(middle).press(MouseButton.PRIMARY).moveTo(middle.add(0, -20)).moveTo(middle.add(0, -44)).release(
                MouseButton.PRIMARY);
        soon(() -> wheel("up") == 2);
        key(KeyCode.DOWN, KeyCode.CONTROL);
        soon(() -> wheel("down") == 1);
    }

    @Test
    void aButtonThatBecomesAFieldHasTheChainsItNeeds() {
        mode(Mode.BUILD);
        soon(() -> find("#score-drawing") != null);
        robot.interact(() -> bench().select("copy-notes"));
        key(KeyCode.F2, KeyCode.SHIFT);
        soon(() -> find("#control-sort") != null);
        choose("#control-sort", "direction pad");
        assertThat(bench().button().orElseThrow().states()).extracting(s -> s.name()).containsExactly("up", "right",
                "down", "left");
        choose("#control-sort", "pointer pad");
        robot.interact(((javafx.scene.control.CheckBox) find("#control-holds"))::fire);
        rombix.core.board.Button made = bench().button().orElseThrow();
        assertThat(made.control()).isEqualTo(new Control.PointerField(1.5, true));
        assertThat(((GearStep.Do) made.states().getFirst().chain(Gesture.TURN).steps().getFirst()).command()).isEqualTo(
                "move-by");
        robot.type(KeyCode.ESCAPE);
        undoAll();
    }
}
