package rombix.app.view.rack;

import static org.assertj.core.api.Assertions.assertThat;

import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.TextField;
import javafx.scene.input.ContextMenuEvent;
import javafx.scene.input.KeyCode;
import javafx.stage.Window;
import org.junit.jupiter.api.Test;
import rombix.app.view.common.TimeLabel;
import rombix.app.view.window.AtTheWindow;
import rombix.core.chain.GearStep;
import rombix.running.owner.Settings;

/** The rack is folded, filtered and pinned by hand, and keeps that for its board, offscreen. */
class RackTest extends AtTheWindow {
    private boolean seen(String id) {
        for (Node n = find(id); n != null; n = n.getParent()) {
            if (!n.isVisible()) {
                return false;
            }
        }
        return find(id) != null;
    }

    private void filter(String words) {
        robot.interact(() -> ((TextField) find("#rack-filter")).setText(words));
    }

    @Test
    void gearThatIsFoldedStaysSoAndIsShownWhileItIsSearchedFor() {
        robot.interact(((Button) find("#rack-fold-studio"))::fire);
        assertThat(seen("#rack-studio-stream")).isFalse();
        assertThat(new Settings().get("rack.folded." + file).orElse("")).isEqualTo("studio");
        filter("stream");
        assertThat(seen("#rack-studio-stream")).isTrue();
        assertThat(seen("#rack-studio-record")).isFalse();
        assertThat(seen("#rack-fold-desk")).as("gear without a match").isFalse();
        filter("sound desk");
        assertThat(seen("#rack-desk-muted/host")).as("all of a gear with these words in its name").isTrue();
        robot.interact(() -> find("#rack-filter").requestFocus());
        robot.type(KeyCode.ESCAPE);
        assertThat(seen("#rack-desk-muted/host")).isTrue();
        assertThat(seen("#rack-studio-stream")).isFalse();
        robot.interact(((Button) find("#rack-fold-studio"))::fire);
        assertThat(seen("#rack-studio-stream")).isTrue();
    }

    @Test
    void aPinnedReadingStandsAtTheTopAndFollowsTheGear() {
        RackView rack = (RackView) find("#rack");
        robot.interact(() -> rack.memory().pin("desk", "muted/host", true));
        soon(() -> label("#pinned-desk-muted/host").equals("MUTED"));
        robot.interact(((Button) find("#pinned-desk-muted/host"))::fire);
        soon(() -> label("#pinned-desk-muted/host").equals("OPEN"));
        soon(() -> label("#rack-desk-muted/host").equals("OPEN"));
        robot.interact(() -> rack.memory().pin("desk", "muted/host", false));
        assertThat(find("#pinned-desk-muted/host")).isNull();
    }

    @Test
    void whatCanOnlyBeFiredLooksLikeAButtonAndFires() {
        assertThat(label("#rack-desk-playing/thunder")).isEqualTo("Fire");
        robot.interact(((Button) find("#rack-desk-playing/thunder"))::fire);
        soon(() -> label("#rack-desk-playing/thunder").equals("PLAYING"));
        soon(() -> label("#rack-desk-playing/thunder").equals("Fire"));
    }

    @Test
    void theMenuOfARowPinsItsReadingAndTakesItFromThereAgain() {
        menu("#rack-desk-muted/host");
        soon(() -> find("#pinned-desk-muted/host") != null);
        menu("#rack-desk-muted/host");
        soon(() -> find("#pinned-desk-muted/host") == null);
    }

    /** Opens the menu of a row, and does the one thing that is in it. */
    private void menu(String id) {
        robot.interact(
                () -> find(id).getParent().fireEvent(new ContextMenuEvent(ContextMenuEvent.CONTEXT_MENU_REQUESTED,
                        0, 0, 40, 40, false, null)));
        robot.interact(() -> {
            ContextMenu menu = Window.getWindows().stream().filter(ContextMenu.class::isInstance).map(
                    ContextMenu.class::cast).findFirst().orElseThrow();
            menu.getItems().getFirst().fire();
            menu.hide();
        });
    }

    @Test
    void anEditOfOneGearKeepsTheRowsOfAllOthers() {
        Node studio = find("#rack-studio-stream");
        Node desk = find("#rack-desk-muted/host");
        robot.interact(() -> bench().edit("rename", b -> b.withGear(b.gear().stream().map(g -> g.id().equals("desk")
                ? g.withName("Mixer")
                : g).toList())));
        soon(() -> find("#rack-desk-muted/host") != null && find("#rack-desk-muted/host") != desk);
        assertThat(find("#rack-studio-stream")).isSameAs(studio);
        soon(() -> label("#rack-desk-muted/host").equals("MUTED"));
    }

    @Test
    void theReadingsOfTheGearThatIsTickedBecomeSteps() {
        robot.interact(() -> bench().select("gate"));
        int before = bench().chain().steps().size();
        robot.interact(((Button) find("#snapshot"))::fire);
        soon(() -> find("#snapshot-popover") != null);
        robot.interact(((CheckBox) find("#snapshot-house"))::fire);
        robot.interact(((Button) find("#snapshot-write"))::fire);
        assertThat(find("#snapshot-popover")).isNull();
        assertThat(bench().chain().steps().subList(before, bench().chain().steps().size())).isNotEmpty()
                .allMatch(s -> s instanceof GearStep.Do d && d.gear().equals("house"));
    }

    /** Symptom: the clock of the computer, scrolled out of sight, had the whole window painted each second. */
    @Test
    void aReadingOutOfSightWaitsUntilItIsScrolledTo() {
        soon(() -> clock() != null && !clock().inSight());
        String shown = clock().text();
        soon(() -> !time().equals(shown));
        assertThat(clock().text()).isEqualTo(shown);
        robot.interact(() -> {
            RackView rack = (RackView) find("#rack");
            Node all = rack.getContent();
            double top = all.sceneToLocal(clock().localToScene(0, 0)).getY();
            rack.setVvalue(top / (all.getLayoutBounds().getHeight() - rack.getViewportBounds().getHeight()));
        });
        soon(() -> clock().inSight() && clock().text().equals(time()));
    }

    private TimeLabel clock() {
        return find("#rack").lookupAll(".rack-value").stream().map(Node::getParent).filter(
                TimeLabel.class::isInstance).map(TimeLabel.class::cast).filter(
                        t -> t.text().matches(
                                "\\d\\d:\\d\\d:\\d\\d"))
                .findFirst().orElse(null);
    }

    private String time() {
        return String.valueOf(session.window().model().state().readings("computer").apply("time-seconds"));
    }
}
