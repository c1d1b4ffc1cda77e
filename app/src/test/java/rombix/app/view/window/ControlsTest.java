package rombix.app.view.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import org.junit.jupiter.api.Test;
import org.testfx.util.WaitForAsyncUtils;
import rombix.app.view.tile.Tile;
import rombix.core.board.Control;
import rombix.core.board.Control.Axis;
import rombix.core.board.Schedule;
import rombix.core.board.Trigger;
import rombix.core.chain.Condition;
import rombix.core.value.Value;

/** Builds dials, faders, pads, triggers and pages that follow, in the window, offscreen. */
class ControlsTest extends AtTheWindow {

    private void tick(String id) {
        robot.interact(((CheckBox) find(id))::fire);
    }

    private rombix.core.board.Button button(String id) {
        return bench().rig().button(id).orElseThrow();
    }

    @Test
    void aButtonIsMadeAFaderADialAndAPadInItsRulesAndAPushButtonAgainByUndo() {
        rombix.core.board.Button before = button("tea-urn");
        robot.interact(() -> bench().select("tea-urn"));
        key(KeyCode.F2, KeyCode.SHIFT);
        choose("#control-sort", "fader");
        choose("#control-level", "Sound desk: Host level");
        assertThat(button("tea-urn").control()).isEqualTo(new Control.Fader(new Axis("desk", "level/host")));
        choose("#control-sort", "dial");
        type("#control-coarse", "3");
        type("#control-fine", "0.5");
        assertThat(button("tea-urn").control()).isEqualTo(new Control.Dial(new Axis("desk", "level/host"), 3, 0.5));
        choose("#control-sort", "two-axis pad");
        choose("#control-up", "Lamps: Walkway");
        tick("#control-springs");
        assertThat(button("tea-urn").control())
                .isEqualTo(new Control.Pad(new Axis("desk", "level/host"), new Axis("lamps",
                        "level/walkway"), true));
        choose("#control-sort", "row: slide to choose a state");
        assertThat(button("tea-urn").control()).isEqualTo(new Control.Row());
        robot.type(KeyCode.ESCAPE);
        undoAll();
        assertThat(button("tea-urn")).isEqualTo(before);
    }

    @Test
    void oneOfARowIsChosenBySlidingToIt() {
        key(KeyCode.F6);
        robot.interact(() -> bench().showPage("booth"));
        soon(() -> find("#tile-targets") != null);
        Point2D middle = middle(find("#tile-targets"));
        double cell = WaitForAsyncUtils.waitForAsyncFx(60_000, () -> tile("targets").getWidth() / 9);
        robot.moveTo(middle).press(MouseButton.PRIMARY).moveTo(middle.add(3 * cell, 12)).release(MouseButton.PRIMARY);
        soon(() -> session.window().model().state().play("targets").state() == 7);
        key(KeyCode.LEFT, KeyCode.CONTROL);
        soon(() -> session.window().model().state().play("targets").state() == 6);
        robot.moveTo(middle).press(MouseButton.PRIMARY).moveTo(middle.add(0, 400)).release(MouseButton.PRIMARY);
        assertThat(session.window().model().state().play("targets").state()).as("let go beside it").isEqualTo(6);
    }

    @Test
    void triggersAreAddedFromTheListAndChangedInPlace() {
        robot.interact(() -> bench().select("tea-urn"));
        key(KeyCode.T, KeyCode.CONTROL);
        choose("#trigger-add", "a time of day");
        type("#trigger-at", "noon");
        assertThat(find("#triggers-view").lookupAll(".trouble").stream().map(n -> ((Label) n).getText())).anyMatch(
                t -> t.contains("“noon” is not a time"));
        type("#trigger-at", "Fri,Sat 22:15");
        tick("#trigger-late");
        assertThat(button("tea-urn").triggers()).containsExactly(new Trigger.Clock(Schedule.of("Fri,Sat 22:15"), true));
        click(find("#trigger-remove"));
        choose("#trigger-add", "gear is lost");
        choose("#trigger-gear", "House");
        assertThat(button("tea-urn").triggers())
                .containsExactly(new Trigger.When(Trigger.When.What.GEAR_LOST, "house"));
        choose("#trigger-button", "Gate");
        assertThat(button("tea-urn").triggers()).isEmpty();
        assertThat(button("gate").triggers()).hasSize(1);
        choose("#trigger-add", "a key");
        tick("#trigger-everywhere");
        robot.interact(() -> find("#trigger-key").requestFocus());
        key(KeyCode.K);
        assertThat(button("tea-urn").triggers()).containsExactly(new Trigger.Key("K", false));
        choose("#trigger-add", "a controller");
        type("#trigger-lamp-off", "5");
        type("#trigger-channel", "99");
        type("#trigger-number", "44");
        assertThat(button("tea-urn").triggers().getLast()).isInstanceOfSatisfying(Trigger.Midi.class, m -> assertThat(
                List.of(m.channel(), m.number())).containsExactly(16, 44));
        assertThat(button("tea-urn").triggers()).hasSize(2).last().satisfies(t -> assertThat(((Trigger.Midi) t).leds())
                .isEqualTo(java.util.Map.of("off", new Trigger.Midi.Led(null, 5))));
        click(find("#trigger-go"));
        assertThat(bench().button()).map(rombix.core.board.Button::id).contains("tea-urn");
        undoAll();
        assertThat(button("tea-urn").triggers()).isEmpty();
    }

    @Test
    void aPageIsMadeToFollowFromItsMenu() {
        key(KeyCode.P, KeyCode.ALT);
        pageMenu(bench().page().id(), "page-follow");
        choose("#page-follows", "Sound desk: Host MUTED");
        assertThat(bench().page().follows()).isEqualTo(Condition.OnReading.is("desk", "muted/host", Value.of(true)));
        choose("#page-follows", "always");
        assertThat(bench().page().follows()).isNull();
        robot.type(KeyCode.ESCAPE);
    }

    @Test
    void inLiveTheListOfCommandsOffersOnlyWhatLiveCanDo() {
        robot.interact(() -> bench().mode(rombix.core.event.Mode.LIVE));
        key(KeyCode.F1);
        List<String> all = find("#overview-list").lookupAll(".label").stream().map(n -> ((Label) n).getText()).toList();
        assertThat(all).anyMatch(w -> w.startsWith("Triggers")).anyMatch(w -> w.startsWith("Back to the previous page"))
                .noneMatch(w -> w.startsWith("Delete")).noneMatch(w -> w.startsWith("Undo"));
        robot.type(KeyCode.ESCAPE);
        key(KeyCode.T, KeyCode.CONTROL);
        assertThat(find("#trigger-learn")).as("nothing is edited in Live").isNull();
        assertThat(find("#trigger-remove")).isNull();
        assertThat(find("#triggers")).isNotNull();
    }

    /** Symptom: on a narrow fader the icon stood behind the word of its lamp. */
    @Test
    void theIconOfANarrowFaderKeepsClearOfItsLamp() {
        robot.interact(() -> {
            bench().showPage("levels");
            stage.setWidth(1024);
        });
        soon(() -> tile("host-level").getWidth() < 130);
        robot.interact(() -> {
            Tile tile = tile("host-level");
            Node icon = tile.lookupAll(".ikonli-font-icon").stream().filter(Node::isVisible).findFirst().orElseThrow();
            Label lamp = (Label) tile.lookup(".tile-tally");
            assertThat(lamp.getText()).isEqualTo("MUTED");
            double capitals = lamp.getLayoutY() + lamp.getFont().getSize();
            assertThat(icon.getBoundsInParent().getMinY()).isGreaterThanOrEqualTo(capitals);
        });
    }
}
