package rombix.app.view;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.concurrent.Callable;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.Labeled;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.stage.Stage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.testfx.api.FxRobot;
import org.testfx.util.WaitForAsyncUtils;
import rombix.app.edit.Workbench;
import rombix.app.edit.Workbench.Mode;
import rombix.app.show.Session;
import rombix.core.board.Board;
import rombix.core.chain.Gesture;
import rombix.core.store.BoardFile;
import rombix.standins.StandIns;

/** Does with the window what a person does, on real stand-ins, offscreen. */
@Timeout(120)
class WindowTest {
    @TempDir
    Path folder;
    private final FxRobot robot = new FxRobot();
    private StandIns gear;
    private Session session;
    private Stage stage;
    private Path file;

    @BeforeAll
    static void toolkit() {
        Session.startToolkit(true);
    }

    @BeforeEach
    void open() throws Exception {
        file = folder.resolve("star-night.json");
        Files.copy(Path.of("../demo/star-night.json"), file);
        gear = StandIns.onFreePorts();
        session = Session.open(file, gear.addresses(), s -> {
            s.setWidth(1280);
            s.setHeight(800);
            stage = s;
        });
        soon(() -> label("#rack-desk-muted/host").equals("MUTED") && label("#rack-house-locked/gate").equals("LOCKED")
                && find("#rack-studio-scene-host-desk") != null);
    }

    @AfterEach
    void close() throws Exception {
        robot.release(new KeyCode[0]);
        robot.release(new MouseButton[0]);
        if (stage != null) {
            robot.interact(() -> stage.hide());
        }
        session.close();
        gear.close();
    }

    private static void soon(Callable<Boolean> what) {
        await().atMost(Duration.ofSeconds(20)).pollInterval(Duration.ofMillis(10)).until(what);
    }

    private Node find(String id) {
        return WaitForAsyncUtils.waitForAsyncFx(5000,
                () -> stage.getScene().getRoot().lookupAll("*").stream()
                        .filter(n -> ("#" + n.getId()).equals(id)).findFirst().orElse(null));
    }

    private String label(String id) {
        return find(id) instanceof Labeled l ? l.getText() : "";
    }

    private Workbench bench() {
        return session.window().bench();
    }

    private void mode(Mode mode) {
        robot.clickOn(find("#mode-" + mode.name().toLowerCase(java.util.Locale.ROOT)));
        assertThat(bench().mode()).isEqualTo(mode);
    }

    private Tile tile(String button) {
        return (Tile) find("#tile-" + button);
    }

    @Test
    void pressingWithTheMouseChangesTheGearAndTheFaceShowsIt() {
        mode(Mode.LIVE);
        robot.clickOn(tile("waiting-card"));
        soon(() -> gear.studio().scene().equals("waiting-card"));
        soon(() -> tile("waiting-card").getAccessibleText().contains("ON AIR"));
        robot.clickOn(tile("gate"));
        soon(() -> gear.house().state("house/lock/gate").orElse("").equals("UNLOCKED"));
        soon(() -> tile("gate").getAccessibleText().contains("OPEN"));
        gear.house().becomes("house/lock/gate", "LOCKED");
        soon(() -> tile("gate").getAccessibleText().contains("LOCKED"));
    }

    @Test
    void holdingTalksAndReleasingMutes() {
        mode(Mode.LIVE);
        robot.moveTo(tile("host-talk")).press(MouseButton.PRIMARY);
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
        mode(Mode.LIVE);
        robot.clickOn(tile("doors-open"));
        soon(() -> gear.studio().streaming());
        soon(() -> stage.getScene().getRoot().lookup(".run-card") != null);
        robot.clickOn(find("#live-stop-all"));
        soon(() -> stage.getScene().getRoot().lookup(".run-card") == null);
        assertThat(gear.house().state("house/lock/dome-door")).contains("LOCKED");
    }

    @Test
    void aFaultIsSaidOnTheFaceInTheRackAndInTheMessageLine() {
        mode(Mode.LIVE);
        robot.clickOn(tile("next-cue"));
        soon(() -> tile("next-cue").getAccessibleText().contains("no answer at"));
        soon(() -> stage.getScene().getRoot().lookupAll(".message").stream()
                .anyMatch(n -> n instanceof Labeled l && l.getText().contains("Lamp cues: no answer")));
    }

    @Test
    void theRackWorksTheGear() {
        robot.clickOn(find("#rack-studio-scene-host-desk"));
        soon(() -> gear.studio().scene().equals("host-desk"));
        robot.clickOn(find("#rack-desk-muted/host"));
        soon(() -> !gear.desk().muted(0));
        soon(() -> label("#rack-desk-muted/host").equals("OPEN"));
        robot.clickOn(find("#rack-desk-level/host"));
        robot.type(KeyCode.LEFT);
        soon(() -> gear.desk().level(0) < 98);
    }

    @Test
    void aButtonIsBuiltFromNothingPressedSavedAndUndone() throws Exception {
        Board before = bench().board();
        Node cell = stage.getScene().getRoot().lookupAll(".cell").stream().findFirst().orElseThrow();
        robot.clickOn(cell);
        TextField name = (TextField) find("#face-name");
        soon(name::isFocused);
        robot.interact(name::selectAll);
        robot.write("Test night");
        robot.type(KeyCode.ENTER);
        robot.interact(() -> ((TextField) find("#icon-search")).setText("bell outline"));
        soon(() -> stage.getScene().getRoot().lookup(".icon-cell") != null);
        robot.clickOn(stage.getScene().getRoot().lookup(".icon-cell"));
        robot.clickOn(".swatch.plum");
        robot.type(KeyCode.ESCAPE);
        for (String words : new String[]{"mute stings", "wait 50ms", "tea urn on"}) {
            robot.clickOn(find("#finder"));
            robot.write(words);
            soon(() -> find("#found") != null);
            robot.type(KeyCode.ENTER);
        }
        var button = bench().button().orElseThrow();
        assertThat(button.name()).isEqualTo("Test night");
        assertThat(button.states().getFirst().face().icon()).contains("bell");
        assertThat(bench().chain().steps()).hasSize(3);
        robot.clickOn(find("#add-state"));
        assertThat(bench().stateIndex()).isEqualTo(1);
        robot.clickOn(find("#finder"));
        robot.write("tea urn off");
        robot.type(KeyCode.ENTER);
        assertThat(bench().chain().steps()).hasSize(1);

        mode(Mode.LIVE);
        robot.clickOn(tile(button.id()));
        soon(() -> gear.house().state("house/plug/tea-urn").orElse("").equals("ON"));
        soon(() -> gear.desk().muted(4));
        robot.clickOn(tile(button.id()));
        soon(() -> gear.house().state("house/plug/tea-urn").orElse("").equals("OFF"));

        mode(Mode.BUILD);
        robot.press(KeyCode.CONTROL).type(KeyCode.S).release(KeyCode.CONTROL);
        assertThat(BoardFile.read(file).board()).isEqualTo(bench().board());
        robot.interact(() -> tile("gate").requestFocus());
        for (int i = 0; i < 20; i++) {
            robot.press(KeyCode.CONTROL).type(KeyCode.Z).release(KeyCode.CONTROL);
        }
        assertThat(bench().board()).isEqualTo(before);
    }

    @Test
    void aStepIsEditedInPlaceAndDeleted() {
        robot.clickOn(tile("walkway-up"));
        robot.clickOn(find("#step-1"));
        TextField ms = (TextField) find("#arg-ms");
        robot.clickOn(ms);
        robot.interact(ms::selectAll);
        robot.write("1.5 s");
        robot.type(KeyCode.ENTER);
        assertThat(bench().chain().steps().get(1)).isEqualTo(new rombix.core.chain.Step.Wait(1500));
        robot.type(KeyCode.ESCAPE);
        robot.clickOn(find("#step-0"));
        robot.clickOn(find("#delete-step"));
        assertThat(bench().chain().steps()).hasSize(2);
        robot.clickOn(find("#gesture-release"));
        assertThat(bench().part().gesture()).isEqualTo(Gesture.RELEASE);
    }

    @Test
    void aButtonIsDraggedToAnotherCellAndBackByUndo() {
        Tile gate = tile("gate");
        Point2D from = robot.point(gate).query();
        Point2D step = robot.point(tile("dome-door")).query();
        double column = from.getX() - step.getX();
        robot.drag(from).moveBy(column / 2, 20).dropTo(from.add(column, 0));
        assertThat(bench().board().button("gate").orElseThrow().column()).isEqualTo(5);
        robot.press(KeyCode.CONTROL).type(KeyCode.Z).release(KeyCode.CONTROL);
        assertThat(bench().board().button("gate").orElseThrow().column()).isEqualTo(4);
        robot.interact(() -> tile("gate").requestFocus());
        robot.press(KeyCode.ALT).type(KeyCode.DOWN).release(KeyCode.ALT);
        assertThat(bench().board().button("gate").orElseThrow().row()).isEqualTo(2);
        assertThat(bench().board().button("next-cue").orElseThrow().row()).isEqualTo(1);
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
        robot.interact(() -> session.window().open(bad));
        soon(() -> stage.getScene().getRoot().lookup(".notice") != null);
        assertThat(bench().board()).isSameAs(before);
    }

    @Test
    void stepsOfEveryKindAreAddedByTypingAndGoIntoEachOther() {
        robot.clickOn(find("#page-trouble"));
        robot.clickOn(tile("test-tone"));
        type("one of 3 shuffled");
        assertThat(bench().chain().steps().getLast()).isInstanceOf(rombix.core.chain.Step.Pick.class);
        robot.interact(() -> bench().cursor(java.util.List.of(1, 2, 0)));
        type("fade host -10 in 3 s");
        type("wait 500 ms");
        var pick = (rombix.core.chain.Step.Pick) bench().chain().steps().getLast();
        assertThat(pick.choices().get(2).chain().steps()).hasSize(2);
        assertThat(pick.choices().get(2).chain().steps().getFirst()).isInstanceOfSatisfying(
                rombix.core.chain.Step.Fade.class, f -> {
                    assertThat(f.ms()).isEqualTo(3000);
                    assertThat(f.to()).isEqualTo(rombix.core.chain.Arg.of(-10));
                });
        soon(() -> find("#forecast").getAccessibleText() != null && find("#forecast").getAccessibleText().contains(
                "3.5"));
    }

    private void type(String words) {
        robot.clickOn(find("#finder"));
        robot.write(words);
        robot.type(KeyCode.ENTER);
    }

    @Test
    void aQuestionIsAnsweredOverItsButton() {
        mode(Mode.LIVE);
        robot.clickOn(find("#page-observing"));
        robot.clickOn(tile("ring-colour"));
        soon(() -> find("#answer-1") != null);
        robot.clickOn(find("#answer-1"));
        soon(() -> gear.lamps().slot(11) == 0xC0);
        soon(() -> find("#answer-1") == null);
    }

    @Test
    void aRehearsalLeavesTheGearAlone() {
        mode(Mode.REHEARSE);
        assertThat(find("#rehearsal")).isNotNull();
        robot.clickOn(tile("waiting-card"));
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
        robot.clickOn(find("#page-trouble"));
        robot.clickOn(tile("everything-quiet"));
        robot.moveTo(tile("everything-quiet")).press(MouseButton.PRIMARY);
        soon(() -> gear.desk().muted(2));
        robot.release(MouseButton.PRIMARY);
    }

    @Test
    void aRackControlBecomesAButtonItsOppositeAndWhatIsShadowedStepsAndAllIsUndone() {
        Board before = bench().board();
        robot.clickOn(find("#page-close"));
        Node cell = find("#cell-0-3");
        robot.moveTo(find("#rack-studio-scene-host-desk")).press(MouseButton.PRIMARY).moveTo(cell).release(
                MouseButton.PRIMARY);
        soon(() -> bench().button().filter(b -> b.name().equals("Host Desk")).isPresent());
        assertThat(gear.studio().scene()).as("a drag tells the gear nothing").isNotEqualTo("host-desk");
        robot.clickOn(find("#make-opposite"));
        soon(() -> bench().button().orElseThrow().states().size() == 2);
        robot.type(KeyCode.ESCAPE);
        soon(() -> !find("#shadow").isDisabled());
        robot.interact(((javafx.scene.control.ToggleButton) find("#shadow"))::fire);
        soon(() -> label("#shadow").equals("Stop shadowing"));
        robot.clickOn(find("#rack-desk-muted/dome"));
        soon(() -> gear.desk().muted(2));
        robot.clickOn(find("#rack-studio-stream"));
        soon(() -> label("#rack-studio-stream").equals("ON AIR"));
        robot.interact(((javafx.scene.control.ToggleButton) find("#shadow"))::fire);
        soon(() -> bench().chain().steps().stream().filter(rombix.core.chain.Step.Do.class::isInstance).count() >= 3);
        robot.clickOn(find("#as-list"));
        soon(() -> find("#line-0") != null);
        while (bench().undoName().isPresent()) {
            robot.interact(() -> bench().undo());
        }
        assertThat(bench().board()).isEqualTo(before);
    }
}
