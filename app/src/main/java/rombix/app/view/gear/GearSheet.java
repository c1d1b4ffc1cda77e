package rombix.app.view.gear;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ListView;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Confirm;
import rombix.app.view.form.Fields;
import rombix.core.board.Board;
import rombix.core.board.Gear;
import rombix.core.edit.GearEdits;
import rombix.core.event.Known;
import rombix.core.event.Status;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;

/**
 * The gear of the board beside the rack, as high as the window: a list of all gear at the left, those in trouble first,
 * and the selected one at the right, in four tabs. Adding gear takes the place of the right side. Interface thread.
 */
@OwnedBy(Owner.INTERFACE)
public final class GearSheet {
    private static final double RACK_WIDTH = 290;
    private static final double MARGIN = 20;
    private static final double LEAST_WIDTH = 960;
    private static final double MOST_WIDTH = 1200;
    private static final double LIST_WIDTH = 244;
    /** More than any screen has: the sheet is as high as the window lets it be. */
    private static final double WHOLE_HEIGHT = 10_000;
    /** So many rows are seen above the one that is scrolled to. */
    private static final int ABOVE = 3;

    private final Desk desk;
    private final ListView<String> list = new ListView<>();
    private final VBox right = new VBox(Space.S10);
    private final GearDetail detail;
    private final AddGear adding;
    private final Supplier<Known> known;
    private final Runnable first;
    private final Button add = Fields.plain("Add gear…", "");
    /** What the status of each gear in trouble said when it was selected last. */
    private final Map<String, String> read = new HashMap<>();
    private boolean open;
    private boolean filling;
    private @Nullable Node anchor;

    /**
     * @param known what is known of the gear, for pages that are made from it
     * @param first begins with a button on an empty page
     */
    public GearSheet(Desk desk, GearDetail detail, AddGear adding, Supplier<Known> known, Runnable first) {
        this.desk = desk;
        this.known = known;
        this.first = first;
        this.detail = detail;
        this.adding = adding;
        list.setId("gear-all");
        list.setAccessibleText("Gear on this board");
        list.getStyleClass().add("gear-list");
        list.setCellFactory(_ -> new GearRow(desk, this::unread));
        list.getSelectionModel().selectedItemProperty().addListener((_, _, id) -> {
            if (open && !filling && id != null) {
                select(id);
            }
        });
        list.setOnKeyPressed(e -> {
            if (e.getCode() == KeyCode.ENTER) {
                detail.focusFirst();
                e.consume();
            }
        });
        add.setId("gear-add");
        add.setMaxWidth(Double.MAX_VALUE);
        add.setOnAction(_ -> kinds());
        detail.whenDeleted(this::delete);
        adding.whenAdded(id -> {
            select(id);
            detail.focusAddress();
        });
        desk.bench().watch(() -> {
            if (open) {
                refresh();
            }
        });
        desk.model().watch(c -> {
            if (open && !c.whole().isEmpty()) {
                list.refresh();
                detail.status();
            }
        });
    }

    /** @param gear the one that is selected; null for the first, those in trouble before the others */
    public void show(Node by, @Nullable String gear) {
        desk.overlay().close(); // Its own last one, too.
        anchor = by;
        open = true;
        VBox left = new VBox(Space.S8, Styles.label("Gear", "sheet-title"), list, add);
        VBox.setVgrow(list, Priority.ALWAYS);
        Fields.wide(left, LIST_WIDTH);
        HBox.setHgrow(right, Priority.ALWAYS);
        right.setMinWidth(0);
        HBox sheet = new HBox(Space.S16, left, right);
        sheet.setId("gear");
        double room = by.getScene().getWidth();
        double width = Math.clamp(room - RACK_WIDTH - MARGIN, LEAST_WIDTH, MOST_WIDTH);
        sheet.setPrefSize(width, WHOLE_HEIGHT);
        order();
        desk.overlay().showAt(sheet, Math.max(RACK_WIDTH, room - width) + width / 2, by.getScene().getHeight() / 2,
                () -> {
                    open = false;
                    detail.end();
                    adding.end();
                    by.requestFocus();
                });
        List<String> all = list.getItems();
        if (all.isEmpty()) {
            kinds();
        } else if (gear == null) {
            select(all.getFirst());
            list.requestFocus();
        } else {
            select(gear);
            list.scrollTo(Math.max(0, all.indexOf(gear) - ABOVE));
            detail.focusAddress();
        }
    }

    /** Opens on gear that can be added: what was discovered, and the kinds that there are cards for. */
    public void showAdding(Node by) {
        show(by, null);
        kinds();
    }

    /** Opens where the secret of a gear is set. */
    public void showSecret(Node by, String gear) {
        show(by, gear);
        Platform.runLater(detail::focusSecret); // Once it has found its place.
    }

    private void select(String gear) {
        Status s = desk.model().state().status(gear);
        if (!s.well()) {
            read.put(gear, s.words());
        }
        adding.end();
        filling = true;
        list.getSelectionModel().select(gear);
        filling = false;
        list.refresh();
        showRight(detail.of(gear));
        add.setDisable(false);
    }

    private void kinds() {
        filling = true;
        list.getSelectionModel().clearSelection();
        filling = false;
        detail.end();
        showRight(adding.begin());
        add.setDisable(true);
        adding.focusFirst();
    }

    /** A board that has gear and no button yet is offered pages as well. */
    private void showRight(Node content) {
        VBox.setVgrow(content, Priority.ALWAYS);
        right.getChildren().setAll(content);
        right.applyCss(); // What scrolls is found by its id only then.
        Board board = desk.bench().board();
        if (!board.gear().isEmpty() && board.pages().stream().allMatch(p -> p.buttons().isEmpty())) {
            right.getChildren().add(new FirstPages(desk, known, () -> {
                desk.overlay().close();
                first.run();
            }));
        }
    }

    /** Whether a gear is in trouble that was not looked at yet. */
    private boolean unread(String gear) {
        Status s = desk.model().state().status(gear);
        return !s.well() && !s.words().equals(read.get(gear));
    }

    /** The gear in trouble first, what was not looked at before the rest; else as on the board. */
    private void order() {
        List<String> ids = new ArrayList<>(desk.bench().board().gear().stream().map(Gear::id).toList());
        ids.sort(Comparator.comparing((String id) -> !unread(id)).thenComparing(id -> desk.model().state().status(id)
                .well()));
        filling = true;
        list.getItems().setAll(ids);
        filling = false;
    }

    /** After an edit: rows stay where they are, new gear comes last, and the hand stays in its field. */
    private void refresh() {
        Board board = desk.bench().board();
        List<String> now = new ArrayList<>(list.getItems());
        now.removeIf(id -> board.gear(id).isEmpty());
        board.gear().stream().map(Gear::id).filter(id -> !now.contains(id)).forEach(now::add);
        String selected = list.getSelectionModel().getSelectedItem();
        if (!now.equals(list.getItems())) {
            filling = true;
            list.getItems().setAll(now);
            filling = false;
        }
        list.refresh();
        if (selected == null) {
            return; // Gear is being added.
        }
        if (now.contains(selected)) {
            Node hand = right.getScene() == null ? null : right.getScene().getFocusOwner();
            String under = hand == null ? null : hand.getId();
            select(selected);
            if (under != null && right.lookup("#" + under) instanceof Node field) {
                field.requestFocus();
            }
        } else if (now.isEmpty()) {
            kinds();
        } else {
            select(now.getFirst());
        }
    }

    private void delete(Gear g) {
        Node by = anchor;
        if (by != null) {
            Confirm.ask(desk, by, "Delete the gear “" + g.name() + "”?", GearEdits.uses(desk.bench().board(), g.id()),
                    "Delete", () -> {
                        desk.bench().edit("delete “" + g.name() + "”", b -> GearEdits.without(b, g.id()));
                        show(by, null);
                    });
        }
    }
}
