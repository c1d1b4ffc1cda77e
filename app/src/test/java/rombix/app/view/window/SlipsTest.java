package rombix.app.view.window;

import static org.assertj.core.api.Assertions.assertThat;

import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import org.junit.jupiter.api.Test;
import rombix.core.board.Board;
import rombix.core.event.Mode;

/** What a hand does by a slip, or faster than the window, costs nothing. */
class SlipsTest extends AtTheWindow {
    private String typed() {
        return ((TextInputControl) find("#finder")).getText();
    }

    @Test
    void whatGearSaidThatIsGoneIsShownAsLastKnown() throws Exception {
        soon(() -> label("#rack-chat-slow/star-night").equals("as it comes"));
        gear.chat().close();
        soon(() -> label("#rack-chat-slow/star-night").equals("as it comes?"));
        assertThat(said("#rack-chat-slow/star-night")).endsWith("last known as it comes");
    }

    @Test
    void anEmptyCellThatIsLeftWithEscapeKeepsNoButton() {
        Board before = bench().board();
        Node cell = there(".empty-cell");
        String id = cell.getId();
        click(cell);
        soon(() -> find("#finder").isFocused());
        assertThat(bench().board()).isNotEqualTo(before);
        robot.type(KeyCode.ESCAPE);
        assertThat(bench().board()).isEqualTo(before);
        soon(() -> find("#" + id).isFocused());
        click(find("#" + id));
        soon(() -> find("#finder").isFocused());
        add("mute host");
        robot.interact(() -> find("#finder").requestFocus());
        robot.type(KeyCode.ESCAPE);
        assertThat(bench().board()).as("a button with a step stays").isNotEqualTo(before);
    }

    @Test
    void wordsThatWereNotUsedAreGoneForTheNextButton() {
        robot.interact(() -> bench().select("tea-urn"));
        robot.interact(() -> ((TextInputControl) find("#finder")).setText("mute ho"));
        robot.interact(() -> bench().selectStep(null));
        assertThat(typed()).as("the same button").isEqualTo("mute ho");
        robot.interact(() -> bench().select("gate"));
        assertThat(typed()).isEmpty();
    }

    @Test
    void lettersTypedAsSoonAsASearchOpensAreNotLost() {
        robot.interact(() -> {
            // As on a busy machine: the letters come before the next pulse has laid the search out.
            fire(KeyCode.F, true);
            Node field = stage.getScene().getFocusOwner();
            assertThat(field.getId()).isEqualTo("overview-find");
            fire(KeyCode.G, false);
            KeyEvent.fireEvent(field, new KeyEvent(KeyEvent.KEY_TYPED, "g", "", KeyCode.UNDEFINED, false, false, false,
                    false));
        });
        assertThat(((TextInputControl) find("#overview-find")).getText()).isEqualTo("g");
        robot.type(KeyCode.ESCAPE);
    }

    private void fire(KeyCode code, boolean control) {
        Node to = stage.getScene().getFocusOwner();
        KeyEvent.fireEvent(to == null ? stage.getScene().getRoot() : to,
                new KeyEvent(KeyEvent.KEY_PRESSED, "", "", code,
                        false, control, false, false));
    }

    @Test
    void leavingLiveTakesTheKeyThatIsNamedAndEnterStays() {
        mode(Mode.LIVE);
        click(find("#mode-build"));
        soon(() -> find("#leave-live") != null);
        robot.type(KeyCode.ENTER);
        assertThat(bench().mode()).isEqualTo(Mode.LIVE);
        click(find("#mode-build"));
        soon(() -> find("#leave-live") != null);
        key(KeyCode.ENTER, KeyCode.CONTROL);
        assertThat(bench().mode()).isEqualTo(Mode.BUILD);
    }

    @Test
    void aNoticeCoversNothing() {
        mode(Mode.LIVE);
        robot.interact(() -> session.window().files().open(folder.resolve("gone.json")));
        soon(() -> there(".notice") != null);
        Node notice = there(".notice");
        for (String clear : new String[]{"#stop-all", "#page", ".air-strip", ".run-strip"}) {
            soon(() -> apart(notice, there(clear)));
        }
    }

    @Test
    void aPopoverCoversNeitherWhatIsOnAirNorStopAllNorWhatRuns() {
        key(KeyCode.T, KeyCode.CONTROL);
        soon(() -> apart(find("#triggers-view"), there(".masthead")));
        robot.type(KeyCode.ESCAPE);
        mode(Mode.LIVE);
        key(KeyCode.L, KeyCode.CONTROL);
        for (String clear : new String[]{".masthead", ".air-strip", ".run-strip"}) {
            soon(() -> apart(there(".popover"), there(clear)));
        }
        robot.type(KeyCode.ESCAPE);
    }

    @Test
    void aLabelOfTwoLinesIsWholeInASmallWindow() {
        robot.interact(() -> {
            stage.setWidth(1024);
            stage.setHeight(700);
            bench().showPage("questions");
        });
        mode(Mode.REHEARSE);
        for (String button : new String[]{"#tile-next-target-ask", "#tile-visitor"}) {
            soon(() -> find(button) != null && find(button).getBoundsInParent().getHeight() < 100);
            assertThat(find(button).lookupAll(".label")).isNotEmpty().noneMatch(l -> ((Label) l).isTextTruncated());
        }
    }

    private static boolean apart(Node one, Node other) {
        Bounds a = one.localToScene(one.getLayoutBounds());
        Bounds b = other.localToScene(other.getLayoutBounds());
        return a.getHeight() > 0 && b.getHeight() > 0
                && (a.getMaxY() <= b.getMinY() + 1 || b.getMaxY() <= a.getMinY() + 1
                        || a.getMaxX() <= b.getMinX() + 1 || b.getMaxX() <= a.getMinX() + 1);
    }
}
