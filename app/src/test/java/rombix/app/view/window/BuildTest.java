package rombix.app.view.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import org.junit.jupiter.api.Test;
import rombix.app.view.tile.Tile;
import rombix.core.board.Board;
import rombix.core.board.Gear;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.event.Mode;
import rombix.core.store.BoardFile;

/** Builds on a board that has gear and nothing else, as a person does. */
class BuildTest extends AtTheWindow {
    private Board before;

    @Override
    public void board(Path to) throws Exception {
        Board demo = BoardFile.read(Path.of("../demo/star-night.json")).board();
        before = Board.empty("Empty").withGear(demo.gear());
        BoardFile.save(to, before);
    }

    private List<Step> steps() {
        return bench().chain().steps();
    }

    private rombix.core.board.Button button() {
        return bench().button().orElseThrow();
    }

    @Test
    void doorsOpenIsBuiltTriedAndUndoneByKeyboardAlone() {
        key(KeyCode.DIGIT2, KeyCode.CONTROL);
        robot.type(KeyCode.ENTER);
        soon(() -> find("#finder").isFocused());
        for (String words : new String[]{"stream on", "waiting", "mute ho", "key 4000 k", "fade key 80 300 ms",
                "music on"}) {
            robot.write(words);
            robot.type(KeyCode.ENTER);
        }
        assertThat(steps()).as("six steps").hasSize(6);
        assertThat(bench().chain().steps().stream().map(s -> switch (s) {
            case GearStep.Do d -> d.gear();
            case GearStep.Fade f -> f.gear();
            default -> "";
        }).distinct()).as("across four gears").hasSize(4);
        assertThat(button().name()).as("it proposes a name").containsIgnoringCase("stream");
        key(KeyCode.F2);
        soon(() -> find("#face-name") != null && find("#face-name").isFocused());
        robot.interact(() -> ((TextField) find("#face-name")).selectAll());
        robot.write("Doors open");
        robot.type(KeyCode.ENTER);
        robot.type(KeyCode.ESCAPE);
        assertThat(button().name()).isEqualTo("Doors open");
        robot.type(KeyCode.SLASH);
        soon(() -> find("#finder").isFocused());
        assertThat(((TextField) find("#finder")).getText()).as("the key's own letter is not typed").isEmpty();
        robot.type(KeyCode.ESCAPE);
        key(KeyCode.O, KeyCode.ALT);
        soon(() -> button().states().size() == 2);
        robot.type(KeyCode.ESCAPE);
        assertThat(button().states().get(1).chain(Gesture.PRESS).steps()).isNotEmpty();

        String id = button().id();
        key(KeyCode.F6);
        robot.interact(() -> tile(id).requestFocus());
        robot.type(KeyCode.SPACE);
        soon(() -> gear.studio().streaming() && gear.studio().scene().equals("waiting-card"));
        soon(() -> gear.lamps().slot(1) > 150);
        key(KeyCode.F5);
        assertThat(bench().mode()).as("no slip leaves Live").isEqualTo(Mode.LIVE);
        leaveLive();
        robot.interact(() -> tile(id).requestFocus());
        while (bench().undoName().isPresent()) {
            key(KeyCode.Z, KeyCode.CONTROL);
        }
        assertThat(bench().board()).isEqualTo(before);
    }

    @Test
    void theSameIsBuiltByDraggingFromTheRackAndAllIsUndone() {
        drag(find("#rack-studio-scene-waiting-card"), find("#cell-1-1"));
        soon(() -> bench().button().filter(b -> b.name().equals("Waiting Card")).isPresent());
        Tile made = tile(button().id());
        drag(find("#rack-name-desk-muted/host"), made);
        drag(find("#rack-name-studio-record"), made);
        assertThat(steps()).hasSize(3);
        assertThat(gear.desk().muted(0)).as("a drag tells the gear nothing").isTrue();
        Node score = find("#score-drawing");
        moveTo(find("#rack-name-desk-muted/dome")).press(MouseButton.PRIMARY).moveTo(middle(score)).moveBy(120, 0)
                .release(MouseButton.PRIMARY);
        assertThat(steps().getLast()).isInstanceOf(GearStep.Do.class);
        assertThat(steps().get(steps().size() - 2)).as("dropped at a time, a wait is made").isInstanceOf(
                Step.Wait.class);

        key(KeyCode.O, KeyCode.ALT);
        soon(() -> button().states().size() == 2);
        robot.type(KeyCode.ESCAPE);
        robot.interact(((ToggleButton) find("#shadow"))::fire);
        robot.interact(((Button) find("#rack-desk-muted/dome"))::fire);
        soon(() -> gear.desk().muted(2));
        robot.interact(((Button) find("#rack-studio-stream"))::fire);
        soon(() -> gear.studio().streaming());
        robot.interact(((Button) find("#rack-studio-scene-sky-map"))::fire);
        robot.interact(((Button) find("#rack-studio-scene-host-desk"))::fire);
        soon(() -> gear.studio().scene().equals("host-desk"));
        int shadowed = steps().size();
        soon(() -> label("#rack-studio-stream").equals("ON AIR") && label("#rack-desk-muted/dome").equals("MUTED"));
        robot.interact(((ToggleButton) find("#shadow"))::fire);
        soon(() -> steps().stream().skip(shadowed).filter(GearStep.Do.class::isInstance).count() >= 3);

        drag(find("#rack-studio-scene-sky-map"), find("#cell-3-0"));
        soon(() -> button().name().equals("Sky Map"));
        String map = button().id();
        String card = made.button().id();
        drag(tile(map), tile(card));
        assertThat(bench().rig().button(map).orElseThrow().column()).as("they have swapped").isEqualTo(1);
        assertThat(bench().rig().button(card).orElseThrow().column()).isEqualTo(3);
        undoAll();
        assertThat(bench().board()).isEqualTo(before);
    }

    private String fresh(String... words) {
        click(find("#cell-0-0"));
        soon(() -> find("#finder").isFocused());
        for (String w : words) {
            add(w);
        }
        return button().id();
    }

    @Test
    void aStepIsDraggedIntoABracketAndOut() {
        fresh("repeat 2", "mute host", "wait 500 ms");
        drag(find("#step-1"), find("#step-0"));
        assertThat(steps()).hasSize(2);
        assertThat(((Step.Repeat) steps().getFirst()).chain().steps()).hasSize(1);
        Node inside = find("#step-0-0-0");
        moveTo(inside).press(MouseButton.PRIMARY).moveBy(300, 10).release(MouseButton.PRIMARY);
        assertThat(((Step.Repeat) steps().getFirst()).chain().steps()).isEmpty();
        assertThat(steps()).anyMatch(GearStep.Do.class::isInstance);
    }

    @Test
    void whatIsTriedOnTwinsDoesNotReachTheGear() {
        fresh("waiting card", "wait 200 ms");
        String was = gear.studio().scene();
        key(KeyCode.T, KeyCode.ALT);
        soon(() -> find("#try-all") != null);
        robot.type(KeyCode.ENTER);
        soon(() -> find("#end-trial") != null);
        soon(() -> said("#rack-studio-scene-waiting-card").contains("now"));
        assertThat(gear.studio().scene()).isEqualTo(was);
        soon(() -> find("#end-trial") == null);
        soon(() -> !said("#rack-studio-scene-waiting-card").contains("now"));
        key(KeyCode.T, KeyCode.ALT);
        soon(() -> find("#try-all-real") != null);
        click(find("#try-all-real"));
        soon(() -> gear.studio().scene().equals("waiting-card"));
    }

    @Test
    void aFaceIsMadeOfAPictureColoursAMarkAndASecondLineAndCopiedToAllStates() throws Exception {
        String id = fresh("mute host");
        key(KeyCode.INSERT, KeyCode.ALT);
        key(KeyCode.F2);
        soon(() -> find("#face-state-1") != null);
        Path art = java.nio.file.Files.writeString(folder.resolve("dish.svg"),
                "<svg xmlns='http://www.w3.org/2000/svg' width='9' height='9'><rect width='9' height='9'/></svg>");
        robot.interact(() -> {
            var at = tile(id).localToScene(tile(id).getWidth() / 2, tile(id).getHeight() / 2);
            session.window().page().dropping().picture(art.toFile(), at.getX(), at.getY());
        });
        soon(() -> find("#picture-fit") != null);
        robot.interact(((Button) find("#tint-honey"))::fire);
        robot.interact(((Button) find("#mark-tick"))::fire);
        robot.interact(() -> {
            ((TextField) find("#face-second")).setText("to the booth");
            ((TextField) find("#face-second")).fireEvent(new javafx.event.ActionEvent());
        });
        robot.interact(((Button) find("#face-all-states"))::fire);
        assertThat(button().states()).hasSize(2).allSatisfy(s -> {
            assertThat(s.face().tint()).isEqualTo("#D98E2B");
            assertThat(s.face().mark()).isEqualTo(rombix.core.board.Face.Mark.TICK);
            assertThat(s.face().second()).isEqualTo("to the booth");
            assertThat(bench().board().picture(s.face().image().picture())).isPresent();
        });
        robot.interact(((Button) find("#face-done"))::fire);
        soon(() -> tile(id).getAccessibleText().contains("to the booth"));
        key(KeyCode.S, KeyCode.CONTROL);
        soon(() -> BoardFile.read(file).board().equals(bench().board())); // The picture travels with it.
    }

    @Test
    void buttonsAreCopiedSizedAndMovedAcrossPagesByKeyboard() {
        String id = fresh("mute host");
        robot.type(KeyCode.ESCAPE);
        key(KeyCode.DIGIT2, KeyCode.CONTROL);
        key(KeyCode.RIGHT, KeyCode.ALT, KeyCode.SHIFT);
        assertThat(button().width()).isEqualTo(2);
        key(KeyCode.D, KeyCode.CONTROL);
        assertThat(button().id()).isNotEqualTo(id);
        assertThat(button().column()).isEqualTo(2);
        robot.interact(() -> bench().edit("a page", b -> rombix.core.edit.Edits.addPage(b, "Two")));
        key(KeyCode.PAGE_DOWN, KeyCode.CONTROL, KeyCode.SHIFT);
        assertThat(bench().page().name()).isEqualTo("Two");
        assertThat(bench().page().buttons()).hasSize(1);
        drag(tile(button().id()), find("#page-main"));
        assertThat(bench().page().id()).isEqualTo("main");
        assertThat(bench().page().buttons()).hasSize(2);
    }

    @Test
    void aNewBoardWithStarterPagesIsMadeFromTheGearAndOpened() {
        key(KeyCode.N, KeyCode.CONTROL);
        soon(() -> find("#board-new-name") != null && find("#board-new-name").isFocused());
        robot.interact(() -> {
            ((TextField) find("#board-new-name")).setText("Second night");
            @SuppressWarnings("unchecked")
            var start = (javafx.scene.control.ComboBox<Object>) find("#board-new-start");
            start.getSelectionModel().select(1);
        });
        robot.interact(((Button) find("#board-make"))::fire);
        soon(() -> bench().board().name().equals("Second night"));
        assertThat(bench().file().getFileName()).hasToString("second-night.json");
        assertThat(bench().board().pages()).hasSizeGreaterThan(3);
        assertThat(bench().board().buttons().map(rombix.core.board.Button::name)).contains("Waiting Card", "Host");
        mode(Mode.LIVE);
        click(tile(bench().page().buttons().stream().filter(b -> b.name().equals("Waiting Card")).findFirst()
                .orElseThrow().id()));
        soon(() -> gear.studio().scene().equals("waiting-card"));
    }

    @Test
    void whatTheCheckFindsIsMendedFromItsList() {
        fresh("mute host");
        robot.interact(() -> bench().edit("look", b -> rombix.core.edit.Edits.state(b, button().id(), 0, s -> s
                .withFace(s.face().withTint("#F4F1E6").withInk("#FFFFFF")))));
        key(KeyCode.F8);
        soon(() -> there(".mend") != null);
        key(KeyCode.ENTER, KeyCode.CONTROL);
        soon(() -> there(".mend") == null);
        assertThat(button().states().getFirst().face().ink()).isNull();
    }

    @Test
    void whatTheSearchAddsIsUndoneAtOnceWithTheComputerThatCameWithIt() {
        robot.interact(() -> bench().edit("remove the computer", b -> b.withGear(b.gear().stream().filter(g -> !g.card()
                .equals("desktop")).toList())));
        fresh();
        Board without = bench().board();
        click(find("#finder"));
        add("open https://example.org/x");
        assertThat(bench().board().gear()).extracting(Gear::card).contains("desktop");
        assertThat(steps()).singleElement().isInstanceOfSatisfying(GearStep.Do.class, d -> assertThat(d.command())
                .isEqualTo("open"));
        robot.interact(bench()::undo);
        assertThat(bench().board()).isEqualTo(without);
    }
}
