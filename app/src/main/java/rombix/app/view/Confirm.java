package rombix.app.view;

import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import rombix.app.edit.Uses;

/** Asks before something goes that is used elsewhere, and says where. What nothing uses goes at once: undo is cheap. */
final class Confirm {
    private static final int MOST = 8;

    private Confirm() {
    }

    /** Deletes a button. */
    static void deleteButton(Desk desk, Node by, rombix.core.board.Button button) {
        ask(desk, by, "Delete “" + button.name() + "”?", Uses.ofButton(desk.bench().board(), button.id()), "Delete",
                () -> desk.bench().edit("delete " + button.name(), b -> Uses.withoutButton(b, button.id())));
    }

    static void ask(Desk desk, Node by, String question, List<String> uses, String yes, Runnable then) {
        if (uses.isEmpty()) {
            then.run();
            return;
        }
        VBox box = new VBox(8);
        box.setId("confirm");
        Label text = new Label(question);
        text.getStyleClass().add("gear-name");
        text.setWrapText(true);
        text.setMaxWidth(420);
        box.getChildren().addAll(text, Fields.read("It is used by:"));
        uses.stream().limit(MOST).forEach(u -> box.getChildren().add(Fields.read("· " + u)));
        if (uses.size() > MOST) {
            box.getChildren().add(Fields.read("and " + (uses.size() - MOST) + " more"));
        }
        box.getChildren().add(Fields.read("The steps that name it go with it; undo brings all back."));
        Button go = Fields.plain(yes, "");
        go.setId("confirm-yes");
        go.setOnAction(_ -> {
            desk.overlay().close();
            then.run();
        });
        Button stay = Fields.plain("Keep it", "Esc");
        stay.setOnAction(_ -> desk.overlay().close());
        box.getChildren().add(new HBox(8, go, stay));
        desk.overlay().show(box, by, () -> {
        });
        stay.requestFocus();
    }
}
