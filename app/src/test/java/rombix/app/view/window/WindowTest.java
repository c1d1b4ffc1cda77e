package rombix.app.view.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.Set;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.Labeled;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import org.junit.jupiter.api.Test;
import rombix.app.view.tile.Tile;
import rombix.core.board.Board;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.event.Mode;
import rombix.core.store.BoardFile;
import rombix.core.value.Value;

/** Does with the window what a person does, on real stand-ins, offscreen. */
class WindowTest extends AtTheWindow {
    @Override
    public Set<String> off() {
        return Set.of("cues");
    }

    @Test
    void pressingWithTheMouseChangesTheGearAndTheFaceShowsIt() {
        mode(Mode.LIVE);
        click(tile("waiting-card"));
        soon(() -> gear.studio().scene().equals("waiting-card"));
        soon(() -> tile("waiting-card").getAccessibleText().contains("ON AIR"));
        click(tile("gate"));
        soon(() -> gear.house().state("house/lock/gate").orElse("").equals("UNLOCKED"));
        soon(() -> tile("gate").getAccessibleText().contains("OPEN"));
        gear.house().becomes("house/lock/gate", "LOCKED");
        soon(() -> tile("gate").getAccessibleText().contains("LOCKED"));
    }

    @Test
    void holdingTalksAndReleasingMutes() {
        mode(Mode.LIVE);
        moveTo(tile("host-talk")).press(MouseButton.PRIMARY);
        soon(() -> !gear.desk().muted(0));
        robot.release(MouseButton.PRIMARY);
        soon(() -> gear.desk().muted(0));
    }

    @Test
    void holdingSpaceTalksAndLosingTheFocusMutes() {
        mode(Mode.LIVE);
        robot.interact(() -> tile("host-talk").requestFocus());
        robot.press(KeyCode.SPACE);
        soon(() -> !gear.desk().muted(0));
        robot.release(KeyCode.SPACE);
        soon(() -> gear.desk().muted(0));
        robot.press(KeyCode.SPACE);
        soon(() -> !gear.desk().muted(0));
        robot.interact(() -> bench().showPage("observing"));
        soon(() -> gear.desk().muted(0));
        robot.release(KeyCode.SPACE);
    }

    @Test
    void aRunningChainIsShownAndCanBeStopped() {
        chain("doors-open", new GearStep.Do("studio", "start-stream", Map.of()), new Step.Wait(60_000),
                new GearStep.Do("house",
                        "unlock", Map.of("lock", Value.of("dome-door"))));
        mode(Mode.LIVE);
        click(tile("doors-open"));
        soon(() -> gear.studio().streaming());
        soon(() -> there(".run-card") != null);
        click(find("#live-stop-all"));
        soon(() -> there(".run-card") == null);
        assertThat(gear.house().state("house/lock/dome-door")).contains("LOCKED");
    }

    @Test
    void aFaultIsSaidOnTheFaceInTheRackAndInTheMessageLine() {
        mode(Mode.LIVE);
        click(tile("next-cue"));
        soon(() -> tile("next-cue").getAccessibleText().contains("no response from"));
        soon(() -> stage.getScene().getRoot().lookupAll(".message").stream()
                .anyMatch(n -> n instanceof Labeled l && l.getText().contains("Lamp cues: no response")));
    }

    @Test
    void theRackWorksTheGear() {
        click(find("#rack-studio-scene-host-desk"));
        soon(() -> gear.studio().scene().equals("host-desk"));
        click(find("#rack-desk-muted/host"));
        soon(() -> !gear.desk().muted(0));
        soon(() -> label("#rack-desk-muted/host").equals("OPEN"));
        click(find("#rack-desk-level/host"));
        robot.type(KeyCode.LEFT);
        soon(() -> gear.desk().level(0) < 98);
    }

    @Test
    void aButtonIsBuiltFromNothingPressedSavedAndUndone() throws Exception {
        Board before = bench().board();
        Node cell = there(".empty-cell");
        click(cell);
        soon(() -> find("#finder").isFocused());
        click(find("#edit-face"));
        TextField name = (TextField) find("#face-name");
        soon(name::isFocused);
        robot.interact(name::selectAll);
        robot.write("Test night");
        robot.type(KeyCode.ENTER);
        robot.interact(() -> ((TextField) find("#icon-search")).setText("bell outline"));
        soon(() -> there(".icon-cell") != null);
        click(there(".icon-cell"));
        click(there(".swatch.plum"));
        robot.type(KeyCode.ESCAPE);
        for (String words : new String[]{"mute stings", "wait 50ms", "tea urn on"}) {
            click(find("#finder"));
            add(words);
        }
        var button = bench().button().orElseThrow();
        assertThat(button.name()).isEqualTo("Test night");
        assertThat(button.states().getFirst().face().icon()).contains("bell");
        assertThat(bench().chain().steps()).hasSize(3);
        click(find("#add-state"));
        assertThat(bench().stateIndex()).isEqualTo(1);
        type("tea urn off");
        assertThat(bench().chain().steps()).hasSize(1);

        mode(Mode.LIVE);
        click(tile(button.id()));
        soon(() -> gear.house().state("house/plug/tea-urn").orElse("").equals("ON"));
        soon(() -> gear.desk().muted(4));
        click(tile(button.id()));
        soon(() -> gear.house().state("house/plug/tea-urn").orElse("").equals("OFF"));

        mode(Mode.BUILD);
        robot.press(KeyCode.CONTROL).type(KeyCode.S).release(KeyCode.CONTROL);
        soon(() -> BoardFile.read(file).board().equals(bench().board()));
        robot.interact(() -> tile("gate").requestFocus());
        key(KeyCode.Z, KeyCode.CONTROL);
        assertThat(bench().board()).as("the key undoes").isNotEqualTo(BoardFile.read(file).board());
        undoAll();
        assertThat(bench().board()).isEqualTo(before);
    }

    @Test
    void aStepIsEditedInPlaceAndDeleted() {
        click(tile("walkway-up"));
        click(find("#step-1"));
        TextField ms = (TextField) find("#arg-ms");
        click(ms);
        robot.interact(ms::selectAll);
        robot.write("1.5 s");
        robot.type(KeyCode.ENTER);
        assertThat(bench().chain().steps().get(1)).isEqualTo(new rombix.core.chain.Step.Wait(1500));
        robot.type(KeyCode.ESCAPE);
        click(find("#step-0"));
        click(find("#delete-step"));
        assertThat(bench().chain().steps()).hasSize(2);
        click(find("#gesture-release"));
        assertThat(bench().part().gesture()).isEqualTo(Gesture.RELEASE);
    }

    @Test
    void aButtonIsDraggedToAnotherCellAndBackByUndo() {
        Tile gate = tile("gate");
        Point2D from = middle(gate);
        Point2D step = middle(tile("dome-door"));
        double column = from.getX() - step.getX();
        robot.drag(from).moveBy(column / 2, 20).dropTo(from.add(column, 0));
        assertThat(bench().rig().button("gate").orElseThrow().column()).isEqualTo(5);
        robot.press(KeyCode.CONTROL).type(KeyCode.Z).release(KeyCode.CONTROL);
        assertThat(bench().rig().button("gate").orElseThrow().column()).isEqualTo(4);
        robot.interact(() -> tile("gate").requestFocus());
        robot.press(KeyCode.ALT).type(KeyCode.DOWN).release(KeyCode.ALT);
        assertThat(bench().rig().button("gate").orElseThrow().row()).isEqualTo(2);
        assertThat(bench().rig().button("next-cue").orElseThrow().row()).isEqualTo(1);
    }

    @Test
    void nothingCanBeEditedInLive() {
        mode(Mode.LIVE);
        Board before = bench().board();
        robot.interact(() -> tile("gate").requestFocus());
        robot.type(KeyCode.DELETE, KeyCode.ENTER);
        robot.press(KeyCode.CONTROL).type(KeyCode.Z).release(KeyCode.CONTROL);
        assertThat(bench().board()).isEqualTo(before);
        assertThat(find("#finder")).isNull();
    }

    @Test
    void aBadBoardIsToldOfAndAllStaysAsItWas() throws Exception {
        Path bad = folder.resolve("bad.json");
        Files.writeString(bad, "{\"rombix\": 7, \"pages\": []}");
        Board before = bench().board();
        robot.interact(() -> session.window().files().open(bad));
        soon(() -> there(".notice") != null);
        assertThat(bench().board()).isSameAs(before);
    }

    @Test
    void stepsOfEveryKindAreAddedByTypingAndGoIntoEachOther() {
        click(find("#page-trouble"));
        click(tile("test-tone"));
        type("one of 3 shuffled");
        assertThat(bench().chain().steps().getLast()).isInstanceOf(rombix.core.chain.Step.Pick.class);
        robot.interact(() -> bench().cursor(java.util.List.of(1, 2, 0)));
        type("fade host -10 in 3 s");
        type("wait 500 ms");
        var pick = (rombix.core.chain.Step.Pick) bench().chain().steps().getLast();
        assertThat(pick.choices().get(2).chain().steps()).hasSize(2);
        assertThat(pick.choices().get(2).chain().steps().getFirst()).isInstanceOfSatisfying(
                rombix.core.chain.GearStep.Fade.class, f -> {
                    assertThat(f.ms()).isEqualTo(3000);
                    assertThat(f.to()).isEqualTo(rombix.core.chain.Arg.of(-10));
                });
        soon(() -> find("#forecast").getAccessibleText() != null && find("#forecast").getAccessibleText().contains(
                "3.5"));
    }

    private void type(String words) {
        click(find("#finder"));
        add(words);
    }

    @Test
    void aQuestionIsAnsweredOverItsButton() {
        mode(Mode.LIVE);
        click(find("#page-observing"));
        click(tile("ring-colour"));
        soon(() -> find("#answer-1") != null);
        click(find("#answer-1"));
        soon(() -> gear.lamps().slot(11) == 0xC0);
        soon(() -> find("#answer-1") == null);
    }

    @Test
    void aRehearsalLeavesTheGearAlone() {
        mode(Mode.REHEARSE);
        assertThat(find("#rehearsal")).isNotNull();
        click(tile("waiting-card"));
        soon(() -> tile("waiting-card").getAccessibleText().contains("ON AIR"));
        assertThat(gear.studio().scene()).isNotEqualTo("waiting-card");
        mode(Mode.BUILD);
        soon(() -> !tile("waiting-card").getAccessibleText().contains("ON AIR"));
        assertThat(gear.studio().scene()).isNotEqualTo("waiting-card");
    }

    @Test
    void aKeyHoldsItsButtonAndAGuardKeepsAPressBack() {
        mode(Mode.LIVE);
        robot.press(KeyCode.F9);
        soon(() -> !gear.desk().muted(0));
        robot.release(KeyCode.F9);
        soon(() -> gear.desk().muted(0));
        click(find("#page-trouble"));
        click(tile("everything-quiet"));
        moveTo(tile("everything-quiet")).press(MouseButton.PRIMARY);
        soon(() -> gear.desk().muted(2));
        robot.release(MouseButton.PRIMARY);
    }

    @Test
    void aRackControlBecomesAButtonItsOppositeAndWhatIsShadowedStepsAndAllIsUndone() {
        Board before = bench().board();
        click(find("#page-close"));
        Node cell = find("#cell-0-3");
        moveTo(find("#rack-studio-scene-host-desk")).press(MouseButton.PRIMARY).moveTo(middle(cell)).release(
                MouseButton.PRIMARY);
        soon(() -> bench().button().filter(b -> b.name().equals("Host Desk")).isPresent());
        assertThat(gear.studio().scene()).as("a drag tells the gear nothing").isNotEqualTo("host-desk");
        click(find("#make-opposite"));
        soon(() -> bench().button().orElseThrow().states().size() == 2);
        robot.type(KeyCode.ESCAPE);
        soon(() -> !find("#shadow").isDisabled());
        robot.interact(((javafx.scene.control.ToggleButton) find("#shadow"))::fire);
        soon(() -> label("#shadow").equals("Stop shadowing"));
        click(find("#rack-desk-muted/dome"));
        soon(() -> gear.desk().muted(2));
        click(find("#rack-studio-stream"));
        soon(() -> label("#rack-studio-stream").equals("ON AIR"));
        robot.interact(((javafx.scene.control.ToggleButton) find("#shadow"))::fire);
        soon(() -> bench().chain().steps().stream().filter(rombix.core.chain.GearStep.Do.class::isInstance)
                .count() >= 3);
        click(find("#as-list"));
        soon(() -> find("#line-0") != null);
        undoAll();
        assertThat(bench().board()).isEqualTo(before);
    }

    @Test
    void aPagePopsUpForOnePressAndGoesWithEscape() {
        mode(Mode.LIVE);
        click(find("#page-trouble"));
        click(tile("test-tone"));
        soon(() -> find("#pop-up-page") != null);
        assertThat(bench().page().id()).as("the page below stays").isEqualTo("trouble");
        click(find("#pop-up-waiting-card"));
        soon(() -> gear.studio().scene().equals("waiting-card"));
        soon(() -> find("#pop-up-page") == null);
        click(tile("test-tone"));
        soon(() -> find("#pop-up-page") != null);
        moveTo(find("#pop-up-host-talk")).press(MouseButton.PRIMARY);
        soon(() -> !gear.desk().muted(0));
        robot.type(KeyCode.ESCAPE);
        soon(() -> gear.desk().muted(0));
        assertThat(find("#pop-up-page")).isNull();
        robot.release(MouseButton.PRIMARY);
    }
}
