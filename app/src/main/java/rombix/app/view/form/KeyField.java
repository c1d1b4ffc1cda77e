package rombix.app.view.form;

import java.util.function.Consumer;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import rombix.app.view.common.KeyNames;

/** A field that records the key that is pressed in it; Delete takes it away. */
public final class KeyField {
    private KeyField() {
    }

    /** @param pressed told of the key, or of an empty text where it is taken away */
    public static TextField of(String id, String now, Consumer<String> pressed) {
        TextField field = new TextField(now);
        field.setId(id);
        field.setEditable(false);
        field.setPromptText("Click, then press a key. Delete clears it.");
        field.addEventFilter(KeyEvent.KEY_PRESSED, e -> {
            if (e.getCode() == KeyCode.TAB || e.getCode() == KeyCode.ESCAPE || e.getCode().isModifierKey()) {
                return;
            }
            boolean gone = e.getCode() == KeyCode.DELETE || e.getCode() == KeyCode.BACK_SPACE;
            String key = gone ? "" : KeyNames.name(e);
            field.setText(key);
            pressed.accept(key);
            e.consume();
        });
        return field;
    }
}
