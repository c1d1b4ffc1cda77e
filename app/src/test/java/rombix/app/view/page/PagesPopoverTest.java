package rombix.app.view.page;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import javafx.geometry.Point2D;
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
}
