package rombix.app.view.panels;

import static org.assertj.core.api.Assertions.assertThat;

import javafx.scene.Node;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.Labeled;
import javafx.scene.control.ToggleButton;
import org.junit.jupiter.api.Test;
import rombix.app.show.Session;
import rombix.app.view.window.AtTheWindow;
import rombix.standins.set.Panels;

/** The stand-ins' panels beside the board: both ways. */
class PanelsWindowTest extends AtTheWindow {
    private PanelsWindow panels;

    private Node on(String id) {
        return Session.onInterface(() -> {
            panels.scene().getRoot().applyCss(); // What scrolls is there once it has its looks.
            panels.refresh();
            return panels.scene().getRoot().lookupAll("*").stream().filter(n -> id.equals(n.getId())).findFirst()
                    .orElseThrow(() -> new AssertionError("no " + id));
        });
    }

    @Test
    void whatIsWorkedOnThePanelIsSeenOnTheDeckAndTheOtherWayRound() {
        panels = Session.onInterface(() -> new PanelsWindow(Panels.of(gear), stage.getScene()));
        ToggleButton gate = (ToggleButton) on("stand-in-house-house-lock-gate");
        assertThat(gate.isSelected()).isTrue();
        robot.interact(gate::fire);
        soon(() -> label("#rack-house-locked/gate").equals("OPEN"));
        // What the deck is told shows on the panel, with what came.
        robot.interact(() -> ((ButtonBase) find("#rack-house-locked/gate")).fire());
        soon(() -> ((ToggleButton) on("stand-in-house-house-lock-gate")).isSelected());
        assertThat(Session
                .onInterface(() -> panels.scene().getRoot().lookupAll(".stand-in-came").stream().map(n -> ((Labeled) n)
                        .getText()).toList()))
                .anyMatch(t -> t.contains("house/lock/gate/set LOCK"));
        ButtonBase go = (ButtonBase) on("stand-in-lamp-cues-go-house-lights");
        robot.interact(go::fire);
        soon(() -> gear.cues().cue("house-lights") == 1);
    }
}
