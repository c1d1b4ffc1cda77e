package rombix.app.view.step;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.scene.control.ComboBox;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import rombix.app.view.common.Space;
import rombix.core.computer.Keys;

/** A chord of keys: pressed to be entered, or chosen from the list of all keys. */
final class KeysField extends HBox {
    private static final double LIST_WIDTH = 132;

    private final Consumer<String> changed;
    private final TextField field = new TextField();
    /** The keys that are down in the field, in their order. */
    private final List<String> down = new ArrayList<>();
    private List<String> chord;

    KeysField(String id, String now, Consumer<String> changed) {
        super(Space.S6);
        this.changed = changed;
        this.chord = chord(now);
        field.setId(id + "-pressed");
        field.setEditable(false);
        field.setPromptText("Click, then press the keys");
        field.setAccessibleText("Keys: press them here");
        HBox.setHgrow(field, Priority.ALWAYS);
        field.addEventFilter(KeyEvent.KEY_PRESSED, this::pressed);
        field.addEventFilter(KeyEvent.KEY_RELEASED, e -> {
            down.clear(); // The chord is as it was when it was whole.
            e.consume();
        });
        ComboBox<String> list = new ComboBox<>();
        list.setId(id + "-list");
        list.setPromptText("Or choose…");
        list.setPrefWidth(LIST_WIDTH);
        list.setMinWidth(LIST_WIDTH);
        list.getItems().setAll(Keys.all());
        list.setAccessibleText("Choose a key; modifiers are added");
        list.setOnAction(_ -> {
            if (list.getValue() != null) {
                chosen(list.getValue());
            }
        });
        getChildren().addAll(field, list);
        show();
    }

    private static List<String> chord(String text) {
        try {
            return Keys.chord(text);
        } catch (IllegalArgumentException e) {
            return List.of();
        }
    }

    private void pressed(KeyEvent e) {
        e.consume();
        name(e).ifPresent(key -> {
            if (!down.contains(key)) {
                down.add(key);
                become(List.copyOf(down));
            }
        });
    }

    private static java.util.Optional<String> name(KeyEvent e) {
        return e.getCode() == KeyCode.PAUSE ? Keys.key("Pause Break") : Keys.key(e.getCode().getName());
    }

    /** A modifier is added before the key, another key takes its place. */
    private void chosen(String key) {
        List<String> next = new ArrayList<>(chord.stream().filter(Keys::modifier).filter(k -> !k.equals(key)).toList());
        next.add(key);
        if (Keys.modifier(key)) {
            chord.stream().filter(k -> !Keys.modifier(k)).forEach(next::add);
        }
        become(next);
    }

    private void become(List<String> next) {
        chord = next;
        show();
        changed.accept(String.join("+", chord));
    }

    private void show() {
        field.setText(String.join(" + ", chord));
    }
}
