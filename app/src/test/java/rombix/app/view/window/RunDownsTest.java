package rombix.app.view.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.IntStream;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import org.junit.jupiter.api.Test;
import org.testfx.util.WaitForAsyncUtils;
import rombix.app.view.tile.Tile;
import rombix.core.board.Control;
import rombix.core.board.RunDown;
import rombix.core.event.Mode;
import rombix.core.store.BoardFile;

/** A run-down of 300 items is made, worked live, and looked through, in the window, offscreen. */
class RunDownsTest extends AtTheWindow {
    @Override
    public void board(Path to) throws Exception {
        var board = BoardFile.read(Path.of("../demo/star-night.json")).board();
        List<RunDown.Item> items = IntStream.rangeClosed(1, 300).mapToObj(i -> new RunDown.Item("Item " + i, "", 60))
                .toList();
        Files.writeString(to, BoardFile.format(board.withRunDowns(List.of(new RunDown("night", "The night", items)))));
    }

    private List<String> words(String style) {
        return tile("night-list").lookupAll("." + style).stream().filter(javafx.scene.Node::isVisible).map(
                n -> ((Label) n).getText()).toList();
    }

    /** The item beside which a word stands. */
    private String marked(String word) {
        List<String> marks = words("run-down-word");
        return marks.contains(word) ? words("row-cell").get(marks.indexOf(word)) : "";
    }

    @Test
    void threeHundredItemsAreWorkedLive() {
        mode(Mode.LIVE);
        robot.interact(() -> bench().showPage("night"));
        assertThat(words("row-cell")).hasSizeBetween(8, 30).startsWith("Item 1", "Item 2");
        click(tile("night-next"));
        click(tile("night-next"));
        soon(() -> marked("ON").equals("Item 2") && marked("next").equals("Item 3"));
        assertThat(words("run-down-time").get(1)).matches("(1:00|0:5\\d) left");
        Tile list = tile("night-list");
        moveTo(list);
        for (int i = 0; i < 40; i++) {
            robot.scroll(1, javafx.geometry.VerticalDirection.DOWN);
        }
        WaitForAsyncUtils.waitForFxEvents();
        String seen = words("row-cell").getFirst();
        assertThat(seen).as("it scrolled, and nothing else is on").isNotEqualTo("Item 1");
        String wanted = words("row-cell").get(4);
        Label row = (Label) list.lookupAll(".row-cell").stream().filter(n -> ((Label) n).getText().equals(wanted))
                .findFirst().orElseThrow();
        robot.moveTo(row.localToScreen(10, 5));
        robot.press(MouseButton.PRIMARY).release(MouseButton.PRIMARY);
        soon(() -> marked("ON").equals(wanted));
        robot.press(KeyCode.CONTROL).type(KeyCode.DOWN).release(KeyCode.CONTROL);
        soon(() -> !marked("ON").equals(wanted) && !marked("ON").isEmpty());
    }

    @Test
    void aListIsMadeInTheRulesAndItsItemsAreTyped() {
        robot.interact(() -> bench().select("tea-urn"));
        key(KeyCode.F2, KeyCode.SHIFT);
        choose("#control-sort", "run-down: a scrolling list");
        assertThat(bench().rig().button("tea-urn").orElseThrow().control()).isEqualTo(new Control.Items("night"));
        choose("#run-down", "a new run-down…");
        robot.interact(() -> {
            find("#run-down-items").requestFocus();
            ((TextInputControl) find("#run-down-items")).setText("Doors | 5:00\nSky; Clouds?\n");
            find("#run-down-name").requestFocus();
        });
        RunDown made = bench().board().runDowns().getLast();
        assertThat(made.items()).containsExactly(new RunDown.Item("Doors", "", 300), new RunDown.Item("Sky", "Clouds?",
                0));
        assertThat(bench().rig().button("tea-urn").orElseThrow().control()).isEqualTo(new Control.Items(made.id()));
        robot.type(KeyCode.ESCAPE);
        undoAll();
        assertThat(bench().board().runDowns()).hasSize(1);
    }

    @Test
    void aRunDownIsDeletedWithTheStepsThatGoThroughIt() {
        var before = bench().board();
        key(KeyCode.V, KeyCode.ALT);
        soon(() -> label("#value-now-visitors").equals("now 0"));
        Button gone = (Button) find("#parts").lookupAll(".button").stream().filter(n -> "Delete the run-down The night"
                .equals(n.getAccessibleText())).findFirst().orElseThrow();
        robot.interact(gone::fire);
        robot.interact(((Button) find("#confirm-yes"))::fire);
        assertThat(bench().board().runDowns()).isEmpty();
        assertThat(bench().rig().button("night-list").orElseThrow().control()).isNull();
        assertThat(bench().rig().button("night-back").orElseThrow().states().getFirst().on()).isEmpty();
        undoAll();
        assertThat(bench().board()).isEqualTo(before);
    }

    @Test
    void aHiddenPageIsInNoTabInLiveAndNextPageLeavesItOut() {
        robot.interact(() -> bench().showPage("questions"));
        key(KeyCode.P, KeyCode.ALT);
        pageMenu("questions", "page-tab");
        robot.type(KeyCode.ESCAPE);
        assertThat(bench().page().hidden()).isTrue();
        robot.interact(() -> bench().showPage("observing"));
        mode(Mode.LIVE);
        assertThat(bench().inTabs()).extracting(p -> p.id()).doesNotContain("questions");
        assertThat(bench().beside(1).id()).isEqualTo("trouble");
        robot.interact(() -> bench().showPage("questions"));
        assertThat(bench().inTabs()).as("it is shown").extracting(p -> p.id()).contains("questions");
    }
}
