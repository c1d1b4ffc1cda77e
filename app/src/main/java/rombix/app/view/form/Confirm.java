package rombix.app.view.form;

import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.ButtonEdits;
import rombix.app.edit.UsageWords;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.core.board.Button;

/** Asks before something goes that is used elsewhere, and says where. What nothing uses goes at once: undo is cheap. */
public final class Confirm {
    private static final int MAX = 8;

    private Confirm() {
    }

    /** Deletes the selected buttons. */
    public static void deleteButtons(Desk desk, Node by, ButtonEdits edits) {
        List<Button> gone = desk.bench().buttons();
        List<String> ids = gone.stream().map(Button::id).toList();
        List<String> uses = gone.stream().flatMap(b -> UsageWords.ofButton(desk.bench().board(), b.id()).stream())
                .distinct()
                .toList();
        ask(desk, by, "Delete " + (gone.size() == 1 ? "“" + gone.getFirst().name() + "”" : gone.size() + " buttons")
                + "?", uses, "Delete", edits::delete, gone.size() == 1 ? instead(desk, gone.getFirst(), ids) : null);
    }

    /** Another button that the steps could name from then on. */
    private static Node instead(Desk desk, Button gone, List<String> ids) {
        List<Button> others = desk.bench().board().buttons().filter(b -> !ids.contains(b.id())).toList();
        var choice = Fields.choice("confirm-instead", others, null, Button::name, other -> {
            desk.overlay().close();
            desk.bench().edit("delete “" + gone.name() + "” for “" + other.name() + "”",
                    b -> UsageWords.withoutButton(UsageWords
                            .repointed(b, gone.id(), other.id()), gone.id()));
        });
        choice.setPromptText("use another button instead…");
        choice.setAccessibleText("Delete it and put another button in those steps");
        return choice;
    }

    public static void ask(Desk desk, Node by, String question, List<String> uses, String yes, Runnable then) {
        ask(desk, by, question, uses, yes, then, null);
    }

    private static void ask(Desk desk, Node by, String question, List<String> uses, String yes, Runnable then,
            @Nullable Node instead) {
        if (uses.isEmpty()) {
            then.run();
            return;
        }
        VBox box = new VBox(Space.S8);
        box.setId("confirm");
        Label text = new Label(question);
        text.getStyleClass().add("gear-name");
        text.setWrapText(true);
        text.setMaxWidth(420);
        box.getChildren().addAll(text, Fields.read("Used by:"));
        uses.stream().limit(MAX).forEach(u -> box.getChildren().add(Fields.read("· " + u)));
        if (uses.size() > MAX) {
            box.getChildren().add(Fields.read("and " + (uses.size() - MAX) + " more"));
        }
        box.getChildren().add(Fields.read("Steps that use it will be deleted, too. Undo restores everything."));
        if (instead != null) {
            box.getChildren().add(instead);
        }
        var go = Fields.plain(yes, "");
        go.setId("confirm-yes");
        go.setOnAction(_ -> {
            desk.overlay().close();
            then.run();
        });
        var stay = Fields.plain("Cancel", "Esc");
        stay.setOnAction(_ -> desk.overlay().close());
        box.getChildren().add(new HBox(Space.S8, go, stay));
        desk.overlay().show(box, by, () -> {
        });
        stay.requestFocus();
    }
}
