package rombix.app.view.form;

import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import rombix.app.view.common.Desk;
import rombix.app.view.common.KeyNames;
import rombix.app.view.common.Space;

/** A few things to choose from, by mouse, arrow keys or Enter. */
public final class Chooser {
    private static final double WIDTH = 300;

    private Chooser() {
    }

    /** Something to choose; {@code key} is the key that does it without being asked, empty where none does. */
    public record Item(String id, String words, String key, Runnable run) {
    }

    public static void open(Desk desk, Node by, String title, List<Item> items) {
        VBox box = new VBox(Space.S1);
        box.addEventFilter(KeyEvent.KEY_PRESSED, e -> items.stream().filter(i -> !i.key().equals("Esc") && i.key()
                .equals(KeyNames.shown(KeyNames.name(e)))).findFirst().ifPresent(i -> {
                    e.consume();
                    desk.overlay().close();
                    i.run().run();
                }));
        box.setId("chooser");
        box.setPrefWidth(WIDTH);
        Label head = new Label(title);
        head.getStyleClass().add("gear-name");
        head.setWrapText(true);
        VBox.setMargin(head, new javafx.geometry.Insets(0, 0, Space.S6, 0));
        box.getChildren().add(head);
        for (Item item : items) {
            Label key = new Label(item.key());
            key.getStyleClass().add("where");
            Label words = new Label(item.words());
            words.setMinWidth(0);
            Region space = new Region();
            HBox.setHgrow(space, Priority.ALWAYS);
            HBox row = new HBox(Space.S10, words, space, key);
            row.setAlignment(Pos.CENTER_LEFT);
            key.setMinWidth(Region.USE_PREF_SIZE);
            Button choice = new Button();
            choice.setGraphic(row);
            row.setPrefWidth(WIDTH - 20);
            choice.getStyleClass().setAll("button", "choice");
            choice.setId(item.id());
            choice.setAccessibleText(item.words());
            choice.setMaxWidth(Double.MAX_VALUE);
            choice.setOnAction(_ -> {
                desk.overlay().close();
                item.run().run();
            });
            // Enter chooses, as Space does.
            choice.setOnKeyPressed(e -> {
                if (e.getCode() == javafx.scene.input.KeyCode.ENTER) {
                    choice.fire();
                    e.consume();
                }
            });
            box.getChildren().add(choice);
        }
        desk.overlay().show(box, by, () -> {
            if (by.getScene() != null && by.isFocusTraversable()) {
                by.requestFocus();
            }
        });
        box.getChildren().stream().filter(Button.class::isInstance).findFirst().ifPresent(Node::requestFocus);
    }
}
