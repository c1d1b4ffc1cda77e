package rombix.app.view.step;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.PasswordField;
import javafx.scene.layout.VBox;
import rombix.app.view.common.Space;
import rombix.app.view.form.Fields;
import rombix.running.owner.Secrets;

/** A text that this computer keeps and no board holds: chosen by its name, and set here. */
final class SecretField extends VBox {
    private final Secrets secrets = new Secrets();
    private final String id;
    private final Consumer<String> changed;

    SecretField(String id, String now, Consumer<String> changed) {
        super(Space.S4);
        this.id = id;
        this.changed = changed;
        show(now);
    }

    private void show(String now) {
        List<String> names = new ArrayList<>(secrets.names());
        if (!now.isEmpty() && !names.contains(now)) {
            names.addFirst(now);
        }
        names.add("");
        ComboBox<String> which = Fields.choice(id + "-name", names, now, n -> n.isEmpty() ? "a new one" : n, n -> {
            changed.accept(n);
            show(n);
        });
        which.setMaxWidth(Double.MAX_VALUE);
        PasswordField text = new PasswordField();
        text.setId(id + "-text");
        text.setPromptText(now.isEmpty()
                ? "type the text, then Enter"
                : secrets.has(now)
                        ? "set: type to replace, then Enter"
                        : "missing: type it, then Enter");
        text.setAccessibleText("Text of the secret");
        text.setOnAction(_ -> set(now, text.getText()));
        getChildren().setAll(which, text);
        if (now.isEmpty()) {
            getChildren().add(
                    Fields.read("The text stays on this computer. The board and the log only contain its name."));
        }
    }

    private void set(String name, String typed) {
        String kept = name;
        for (int n = 1; kept.isEmpty(); n++) {
            kept = secrets.has("typed-" + n) ? "" : "typed-" + n;
        }
        try {
            secrets.set(kept, typed);
            changed.accept(kept);
            show(kept);
        } catch (IOException | IllegalArgumentException e) {
            Label why = Fields.read(String.valueOf(e.getMessage()));
            why.getStyleClass().add("trouble");
            getChildren().add(why);
        }
    }
}
