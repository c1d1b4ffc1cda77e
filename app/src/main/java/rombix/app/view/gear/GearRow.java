package rombix.app.view.gear;

import java.util.function.Predicate;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Shapes;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.core.board.Gear;
import rombix.core.card.Card;
import rombix.core.event.Status;

/** A gear in the list: icon, name, protocol, and how it is in a word. */
final class GearRow extends ListCell<String> {
    private static final double PICTURE = 20;
    private static final double PICTURE_WIDTH = 26;

    private final Desk desk;
    private final Predicate<String> unread;
    private final StackPane picture = new StackPane();
    private final Label name = Styles.label("", "gear-name");
    private final Label under = Styles.label("", "quiet");
    private final Label state = Styles.label("");
    private final HBox row;

    /** @param unread whether a gear is in trouble that was not looked at yet */
    GearRow(Desk desk, Predicate<String> unread) {
        this.desk = desk;
        this.unread = unread;
        picture.setMinWidth(PICTURE_WIDTH);
        VBox words = new VBox(name, new HBox(Space.S6, under, state));
        words.setMinWidth(0);
        HBox.setHgrow(words, Priority.ALWAYS);
        row = new HBox(Space.S8, picture, words);
        row.setAlignment(Pos.CENTER_LEFT);
        row.setMaxWidth(Double.MAX_VALUE);
        setPrefWidth(0); // As wide as the list, and never wider.
    }

    @Override
    protected void updateItem(@Nullable String id, boolean empty) {
        super.updateItem(id, empty);
        Gear g = empty || id == null ? null : desk.bench().board().gear(id).orElse(null);
        setGraphic(g == null ? null : row);
        setId(g == null ? null : "gear-row-" + g.id());
        if (g == null) {
            setAccessibleText(null);
            return;
        }
        Card card = desk.bench().rig().cards().get(g.card());
        picture.getChildren().clear();
        Shapes.icon(card == null ? null : card.icon(), PICTURE).ifPresent(picture.getChildren()::setAll);
        Status s = desk.model().state().status(g.id());
        boolean fresh = unread.test(g.id());
        name.setText(g.name());
        under.setText(g.link().protocol().title());
        state.setText(word(s) + (fresh ? " · new" : ""));
        Styles.set(state, "label", s.well() ? "quiet" : "trouble");
        setAccessibleText(g.name() + ", " + under.getText() + ", " + state.getText());
    }

    /** One word of how it is, with a mark that goes without colour. */
    private static String word(Status s) {
        return switch (s.phase()) {
            case READY -> "✓ ready";
            case CONNECTING -> "… connecting";
            case SILENT -> "▲ silent";
            case OFF -> "✗ off";
        };
    }
}
