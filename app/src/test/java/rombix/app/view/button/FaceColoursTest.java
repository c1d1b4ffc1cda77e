package rombix.app.view.button;

import static org.assertj.core.api.Assertions.assertThat;

import javafx.event.ActionEvent;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CustomMenuItem;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import org.junit.jupiter.api.Test;
import rombix.app.view.form.ColourField;
import rombix.app.view.window.AtTheWindow;
import rombix.core.board.Contrast;
import rombix.core.board.Face;
import rombix.core.edit.Edits;

/** A face's own colours and its label, by hand, offscreen. */
class FaceColoursTest extends AtTheWindow {
    private Face face() {
        return bench().board().button("doors-open").orElseThrow().states().getFirst().face();
    }

    /** Part of the open picker for a custom colour. */
    private Node part(String id) {
        ColourField own = (ColourField) find("#tint-own");
        own.show();
        return ((CustomMenuItem) own.getItems().getFirst()).getContent().lookup(id);
    }

    /** Symptom: after an undo the form went on showing the colours that had been taken back. */
    @Test
    void theFormShowsTheColoursThatAnUndoBroughtBack() {
        robot.interact(() -> bench().select("doors-open"));
        key(KeyCode.F2);
        soon(() -> find("#tint-honey") != null);
        robot.interact(((Button) find("#tint-honey"))::fire);
        soon(() -> find("#contrast") != null);
        robot.interact(() -> bench().undo());
        soon(() -> find("#contrast") == null);
    }

    @Test
    void aColourIsTypedMovedByKeysAndMadeReadable() {
        robot.interact(() -> bench().select("doors-open"));
        key(KeyCode.F2);
        soon(() -> find("#tint-own") != null);
        robot.interact(() -> {
            TextField code = (TextField) part("#colour-code");
            code.setText("204060");
            code.fireEvent(new ActionEvent());
        });
        assertThat(face().tint()).isEqualTo("#204060");
        robot.interact(() -> ((ColourField) find("#tint-own")).hide());
        soon(() -> find("#tint-own") != null && find("#contrast") != null);
        robot.interact(() -> part("#colour-plane").fireEvent(new KeyEvent(KeyEvent.KEY_PRESSED, "", "", KeyCode.RIGHT,
                false, false, false, false)));
        assertThat(face().tint()).isNotEqualTo("#204060");
        robot.interact(() -> ((ColourField) find("#tint-own")).hide());
        robot.interact(
                () -> bench().edit("look", b -> Edits.state(b, "doors-open", 0, s -> s.withFace(s.face().withTint(
                        "#F4F1E6").withInk("#FFFFFF")))));
        soon(() -> label("#contrast").contains("Too low"));
        robot.interact(((Button) find("#make-readable"))::fire);
        assertThat(Contrast.of(face().ink() == null ? Contrast.inkOn("#F4F1E6") : face().ink(), "#F4F1E6"))
                .isGreaterThanOrEqualTo(Contrast.TEXT);
    }

    @Test
    void aLabelOfTwoLinesIsKeptAsItWasTyped() {
        robot.interact(() -> bench().select("doors-open"));
        key(KeyCode.F2);
        soon(() -> find("#face-label") != null);
        robot.interact(() -> {
            find("#face-label").requestFocus();
            ((TextArea) find("#face-label")).setText("Doors\nopen");
            find("#face-second").requestFocus();
        });
        soon(() -> "Doors\nopen".equals(face().label()));
    }
}
