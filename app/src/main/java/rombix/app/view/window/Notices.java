package rombix.app.view.window;

import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import rombix.app.view.common.Fields;

/** Sentences that are shown until they are dismissed, in rows of their own: they cover nothing. */
final class Notices extends VBox {
    Notices() {
        setId("notices");
    }

    /** Shows a sentence; one that is shown already is not shown twice. */
    void show(String text) {
        if (getChildren().stream().anyMatch(n -> text.equals(n.getUserData()))) {
            return;
        }
        Label words = new Label(text);
        words.setWrapText(true);
        words.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(words, Priority.ALWAYS);
        Button dismiss = Fields.plain("Dismiss", "");
        dismiss.setMinWidth(Region.USE_PREF_SIZE);
        HBox box = new HBox(words, dismiss);
        box.setUserData(text);
        box.getStyleClass().add("notice");
        dismiss.setOnAction(_ -> getChildren().remove(box));
        getChildren().add(box);
    }
}
