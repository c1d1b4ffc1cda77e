package rombix.app.view.window;

import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import rombix.app.view.form.Fields;

/** Sentences that are shown until they are dismissed, in rows of their own: they cover nothing. */
final class Notices extends VBox {
    private static final String MATTER = "matter";

    Notices() {
        setId("notices");
    }

    /** What can be done about what a notice says. */
    record Way(String id, String words, Runnable run) {
    }

    /** Shows what is so, in place of what was said of the same matter before; nothing where it is so no more. */
    void state(String matter, String text, Way... ways) {
        getChildren().removeIf(n -> matter.equals(n.getProperties().get(MATTER)));
        if (!text.isEmpty()) {
            show(text, ways);
            getChildren().stream().filter(n -> text.equals(n.getUserData())).forEach(n -> n.getProperties().put(MATTER,
                    matter));
        }
    }

    /** Shows a sentence; one that is shown already is not shown twice. */
    void show(String text, Way... ways) {
        if (getChildren().stream().anyMatch(n -> text.equals(n.getUserData()))) {
            return;
        }
        Label words = new Label(text);
        words.setWrapText(true);
        words.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(words, Priority.ALWAYS);
        Button dismiss = Fields.plain("Dismiss", "");
        dismiss.setMinWidth(Region.USE_PREF_SIZE);
        HBox box = new HBox(words);
        for (Way way : ways) {
            Button take = Fields.plain(way.words(), "");
            take.setId(way.id());
            take.setMinWidth(Region.USE_PREF_SIZE);
            take.setOnAction(_ -> {
                getChildren().remove(box);
                way.run().run();
            });
            box.getChildren().add(take);
        }
        box.getChildren().add(dismiss);
        box.setUserData(text);
        box.getStyleClass().add("notice");
        dismiss.setOnAction(_ -> getChildren().remove(box));
        getChildren().add(box);
    }
}
