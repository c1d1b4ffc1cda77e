package rombix.app.view.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CopyOnWriteArrayList;
import javafx.event.EventType;
import javafx.scene.Node;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.Labeled;
import javafx.scene.control.MenuButton;
import javafx.scene.control.Slider;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Region;
import javafx.stage.Stage;
import javafx.stage.Window;
import org.junit.jupiter.api.Test;
import rombix.app.show.Session;
import rombix.app.view.common.Overlay;
import rombix.app.view.page.SmallWindow;
import rombix.core.chain.DeckStep.Show.Way;
import rombix.core.chain.DeckStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.StepOptions;
import rombix.core.edit.Edits;
import rombix.core.event.Happening;
import rombix.core.event.Mode;

/** Going to and fro in mid-show, and pop-ups that somebody has to see. */
class EdgesTest extends AtTheWindow {
    private final List<Happening.Started> started = new CopyOnWriteArrayList<>();

    private long starts() {
        return started.stream().filter(s -> s.source().equals("going live")).count();
    }

    /** Build and back in mid-show ran every start chain again, and muted the host. */
    @Test
    void goingBackToLiveAsksOnceWhetherTheStartChainsRun() {
        session.deck().watch(h -> {
            if (h instanceof Happening.Started s) {
                started.add(s);
            }
        });
        mode(Mode.LIVE);
        soon(() -> starts() == 1);
        click(find("#mode-build"));
        assertThat(find("#chooser").lookupAll(".label").stream().map(n -> ((Labeled) n).getText())).anyMatch(
                text -> text.startsWith("Leave Live?") && text.length() > "Leave Live?".length());
        leaveLive();
        click(find("#mode-live"));
        assertThat(bench().mode()).as("it asks first").isEqualTo(Mode.BUILD);
        key(KeyCode.ENTER);
        soon(() -> bench().mode() == Mode.LIVE);
        mode(Mode.BUILD);
        mode(Mode.LIVE); // It has asked already.
        session.deck().port("last").perform("host-desk", Gesture.PRESS, -1);
        soon(() -> started.getLast().source().equals("last"));
        assertThat(starts()).isEqualTo(1);
    }

    @Test
    void anEditOfBuildIsSavedInLive() throws Exception {
        robot.interact(
                () -> bench().edit("rename", b -> Edits.button(b, "host-desk", x -> x.withName("Desk of hosts"))));
        mode(Mode.LIVE);
        key(KeyCode.S, KeyCode.CONTROL);
        soon(() -> Files.readString(file).contains("Desk of hosts"));
    }

    private static Stage popUp() {
        return Session
                .onInterface(() -> Window.getWindows().stream().filter(w -> w instanceof Stage s && "Rombix, pop-up"
                        .equals(s.getTitle())).map(Stage.class::cast).findFirst().orElse(null));
    }

    private void popsUp(String button) {
        chain(button, new DeckStep.Show("questions", Way.POP_UP, null, null, StepOptions.PLAIN, Map.of()));
        mode(Mode.LIVE);
    }

    /** A pop-up in a window that was minimised was seen by nobody, and took the next click. */
    @Test
    void aPopUpThatTheMainWindowCannotShowHasAWindowOfItsOwn() {
        popsUp("host-desk");
        robot.interact(() -> stage.setIconified(true));
        session.deck().port("key F13 everywhere").perform("host-desk", Gesture.PRESS, -1);
        soon(() -> popUp() != null);
        assertThat(find("#pop-up-page")).isNull();
        robot.interact(() -> stage.setIconified(false));
        Stage shown = popUp();
        robot.interact(() -> ((javafx.scene.control.Button) shown.getScene().lookup("#pop-up-close")).fire());
        assertThat(popUp()).isNull();
    }

    @Test
    void aPopUpBelongsToTheWindowThatThePressCameFrom() {
        popsUp("host-desk");
        key(KeyCode.P, KeyCode.CONTROL);
        SmallWindow small = session.window().stagework().small();
        soon(() -> small.showing());
        var tile = Session.onInterface(() -> small.scene().lookup("#small-host-desk"));
        click(tile);
        soon(() -> popUp() != null);
        assertThat(find("#pop-up-page")).isNull();
        robot.interact(popUp()::hide);
    }

    @Test
    void aPopUpThatWasNotSeenTakesNoClickAtOnce() {
        popsUp("host-desk");
        session.deck().port("mouse").perform("host-desk", Gesture.PRESS, -1);
        soon(() -> find("#pop-up-page") != null);
        Overlay overlay = (Overlay) there("#overlay");
        robot.interact(() -> overlay.shield(60_000));
        click(find("#pop-up-quiet"));
        click(find("#mode-build"));
        assertThat(find("#pop-up-page")).isNotNull();
        assertThat(bench().mode()).isEqualTo(Mode.LIVE);
        robot.interact(() -> overlay.shield(0));
        click(find("#pop-up-quiet"));
        soon(() -> find("#pop-up-page") == null);
    }

    @Test
    void theSmallWindowShowsMorePagesFadesAndGrows() {
        key(KeyCode.P, KeyCode.CONTROL);
        SmallWindow small = session.window().stagework().small();
        soon(small::showing);
        Node head = Session.onInterface(() -> small.scene().lookup("#small-head"));
        assertThat(head).isNotNull();
        robot.interact(() -> {
            ((MenuButton) small.scene().lookup("#small-pages")).getItems().stream().filter(i -> i.getText().equals(
                    "Levels")).findFirst().orElseThrow().fire();
            ((Slider) small.scene().lookup("#small-opacity")).setValue(0.5);
            ((ToggleButton) small.scene().lookup("#small-keys")).fire();
        });
        soon(() -> Session.onInterface(() -> small.scene().lookup("#small-host-level")) != null);
        assertThat(small.scene().getWindow().getOpacity()).isEqualTo(0.5);
        double before = Session.onInterface(() -> tileWidth(small));
        robot.interact(() -> {
            Node grip = small.scene().lookup("#small-grip");
            grip.fireEvent(at(MouseEvent.MOUSE_PRESSED, 0));
            grip.fireEvent(at(MouseEvent.MOUSE_DRAGGED, 300));
            grip.fireEvent(at(MouseEvent.MOUSE_RELEASED, 300));
            small.scene().getRoot().applyCss();
            small.scene().getRoot().layout();
        });
        assertThat(Session.onInterface(() -> tileWidth(small))).isGreaterThan(before * 1.1);
        robot.interact(() -> ((ButtonBase) small.scene().lookup("#small-close")).fire());
        assertThat(small.showing()).isFalse();
    }

    private static double tileWidth(SmallWindow small) {
        return ((Region) small.scene().lookup("#small-host-desk")).getWidth();
    }

    private static MouseEvent at(EventType<MouseEvent> type,
            double x) {
        return new MouseEvent(type, x, 0, x, 0, MouseButton.PRIMARY, 1, false, false, false, false,
                true, false, false, true, false, true, null);
    }
}
