package rombix.app.view.rack;

import java.util.Locale;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Shapes;
import rombix.app.view.common.Styles;
import rombix.app.view.gear.GearSheet;
import rombix.app.view.page.PageView;
import rombix.core.event.Status;
import rombix.core.twin.Twin;

/** One gear: its head, which folds it, and a row for each thing it reports. */
final class GearBox extends VBox {
    private final Desk desk;
    private final Twin twin;
    private final RackMemory memory;
    private final Label status = new Label();
    private final Button fold = new Button();
    private final GearRows rows;
    private boolean sought;

    GearBox(Desk desk, PageView page, Twin twin, GearSheet gear, RackMemory memory) {
        this.desk = desk;
        this.twin = twin;
        this.memory = memory;
        this.rows = new GearRows(desk, page, twin, memory, false);
        Label name = new Label(twin.title());
        name.getStyleClass().add("gear-name");
        name.setMinWidth(Region.USE_PREF_SIZE);
        status.getStyleClass().addAll("gear-status", "quiet");
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        fold.setId("rack-fold-" + twin.gear());
        fold.getStyleClass().setAll("button", "rack-fold");
        fold.setOnAction(_ -> {
            memory.fold(twin.gear(), !memory.folded(twin.gear()));
            folded();
        });
        HBox head = new HBox(fold);
        head.getStyleClass().add("gear-head");
        Shapes.icon(twin.card().icon(), 17).ifPresent(head.getChildren()::add);
        head.getChildren().addAll(name, space, status);
        head.setOnMouseClicked(_ -> {
            if (desk.building()) {
                gear.show(head, twin.gear());
            }
        });
        getChildren().addAll(head, rows);
        folded();
        refresh();
    }

    /** What is searched for is shown although it is folded. */
    private void folded() {
        boolean closed = memory.folded(twin.gear()) && !sought;
        rows.setVisible(!closed);
        rows.setManaged(!closed);
        fold.setText(closed ? "▸" : "▾");
        fold.setAccessibleText((closed ? "Unfold " : "Fold ") + twin.title());
    }

    /** Shows only rows with these words; all of them where the gear has them in its name, and nothing without a match. */
    void filter(String words) {
        sought = !words.isEmpty();
        boolean all = twin.title().toLowerCase(Locale.ROOT).contains(words);
        boolean some = rows.filter(all ? "" : words);
        setVisible(all || some);
        setManaged(all || some);
        folded();
    }

    void refresh() {
        Status s = desk.model().state().status(twin.gear());
        status.setText(s.words() + (s.ignored() > 0 ? " · " + s.ignored() + " ignored" : ""));
        Styles.set(status, "label", "gear-status", s.well() ? "quiet" : "trouble");
        status.setTooltip(s.hint().isEmpty() && s.ignored() == 0
                ? null
                : new Tooltip(s.hint() + (s.ignored() > 0
                        ? "\n" + s.ignored() + " packets were malformed or aren't on the card."
                        : "")));
        rows.refresh();
    }

    void catchUp() {
        rows.catchUp();
    }

    void refresh(String reading) {
        rows.refresh(reading);
    }
}
