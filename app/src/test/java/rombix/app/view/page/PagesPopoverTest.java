package rombix.app.view.page;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import javafx.geometry.Point2D;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import org.junit.jupiter.api.Test;
import rombix.app.view.window.AtTheWindow;
import rombix.core.board.Page;

/** All pages in one list: shown by key, moved by keys and by dragging, offscreen. */
class PagesPopoverTest extends AtTheWindow {
    private List<String> order() {
        return bench().board().pages().stream().map(Page::id).toList();
    }

    @Test
    void aPageIsShownByItsNumberInBuildAndInLive() {
        key(KeyCode.DIGIT3, KeyCode.ALT);
        assertThat(bench().page().id()).isEqualTo(order().get(2));
        robot.interact(() -> bench().mode(rombix.core.event.Mode.LIVE));
        key(KeyCode.DIGIT2, KeyCode.ALT);
        assertThat(bench().page().id()).isEqualTo(order().get(1));
    }

    @Test
    void pagesAreMovedByKeysAndByDraggingAndTheHandStaysOnThem() {
        List<String> before = order();
        key(KeyCode.P, KeyCode.ALT);
        key(KeyCode.DOWN, KeyCode.ALT);
        assertThat(order().subList(0, 2)).containsExactly(before.get(1), before.get(0));
        key(KeyCode.DOWN, KeyCode.ALT);
        assertThat(order().indexOf(before.getFirst())).isEqualTo(2);
        robot.interact(() -> bench().undo());
        robot.interact(() -> bench().undo());
        assertThat(order()).isEqualTo(before);
        Point2D last = middle(find("#page-row-" + before.getLast()));
        robot.moveTo(middle(find("#page-row-" + before.getFirst()))).press(MouseButton.PRIMARY).moveTo(last)
                .moveBy(0, 6)
                .release(MouseButton.PRIMARY);
        soon(() -> order().getLast().equals(before.getFirst()));
        assertThat(bench().page().id()).as("a drag shows no page").isEqualTo(before.getFirst());
    }

    @Test
    void aPageIsAddedSizedAndToldWhatNoLongerFits() {
        int before = order().size();
        key(KeyCode.P, KeyCode.ALT);
        robot.interact(((Button) find("#page-add"))::fire);
        soon(() -> find("#page-sheet") != null);
        assertThat(order()).hasSize(before + 1);
        size("3", "2");
        assertThat(bench().page().columns()).isEqualTo(3);
        assertThat(bench().page().rows()).isEqualTo(2);
        robot.type(KeyCode.ESCAPE);
        key(KeyCode.P, KeyCode.ALT);
        pageMenu("doors", "page-edit");
        soon(() -> find("#page-sheet") != null);
        robot.interact(() -> ((TextField) find("#page-rows")).setText("1"));
        assertThat(find("#page-sheet").lookupAll(".trouble")).anyMatch(n -> n instanceof Label l && l.getText()
                .startsWith("No longer fit and will be deleted: ") && l.getText().contains("Gate"));
        size("6", "1");
        assertThat(bench().board().button("gate")).isEmpty();
        robot.interact(() -> bench().undo());
        assertThat(bench().board().button("gate")).isPresent();
    }

    private void size(String columns, String rows) {
        robot.interact(() -> {
            ((TextField) find("#page-columns")).setText(columns);
            ((TextField) find("#page-rows")).setText(rows);
            ((Button) find("#page-resize")).fire();
        });
    }

    @Test
    void aStarterPageIsMadeOfTheGearThatIsThere() {
        int before = order().size();
        key(KeyCode.P, KeyCode.ALT);
        robot.interact(() -> ((MenuButton) find("#page-starters")).getItems().getFirst().fire());
        assertThat(order()).hasSize(before + 1);
        assertThat(bench().page().buttons()).isNotEmpty();
        soon(() -> find("#page-row-" + bench().page().id()) != null);
    }

    @Test
    void aPageIsDoubledTintedHiddenAndDeleted() {
        List<String> before = order();
        key(KeyCode.P, KeyCode.ALT);
        pageMenu("doors", "page-duplicate");
        assertThat(order()).hasSize(before.size() + 1);
        String copy = order().stream().filter(p -> !before.contains(p)).findFirst().orElseThrow();
        pageMenu(copy, "page-tab");
        assertThat(bench().rig().page(copy).orElseThrow().hidden()).isTrue();
        pageMenu(copy, "page-edit");
        soon(() -> find("#page-sheet") != null);
        choose("#page-fill", "plum");
        type("#page-name", "Back doors");
        Page made = bench().rig().page(copy).orElseThrow();
        assertThat(made.fill()).isEqualTo(rombix.core.board.Face.Fill.PLUM);
        assertThat(made.name()).isEqualTo("Back doors");
        robot.type(KeyCode.ESCAPE);
        key(KeyCode.P, KeyCode.ALT);
        pageMenu(copy, "page-delete");
        assertThat(order()).as("nothing uses it, so nothing is asked").isEqualTo(before);
    }
}
