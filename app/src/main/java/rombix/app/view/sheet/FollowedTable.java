package rombix.app.view.sheet;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableRow;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.Duration;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;

/**
 * A long list of rows, the newest first: searched by words, narrowed to kinds, followed or held still, with the selected
 * row in full below it. The interface's thread's.
 *
 * @param <T> a row
 * @param <K> what it is narrowed by
 */
final class FollowedTable<T, K> {
    private final String id;
    private final Desk desk;
    private final Runnable changed;
    private final TableView<T> table = new TableView<>();
    private final TextField words = new TextField();
    private final ToggleGroup kinds = new ToggleGroup();
    private final ToggleButton follow = new ToggleButton("Follow");
    private final Label told = Fields.read("");
    private final Label detail = Fields.read("");
    private final Timeline timer;

    /**
     * @param id that of the table; all else in the sheet has one that begins so
     * @param changed what is asked for is otherwise: the rows are to be filled in anew
     * @param millis how often it is looked for new ones, while it follows
     */
    FollowedTable(String id, Desk desk, Runnable changed, int millis, Runnable look) {
        this.id = id;
        this.desk = desk;
        this.changed = changed;
        timer = new Timeline(new KeyFrame(Duration.millis(millis), _ -> {
            if (follow.isSelected()) {
                look.run();
            }
        }));
        timer.setCycleCount(Timeline.INDEFINITE);
        table.setId(id);
        table.setColumnResizePolicy(TableView.CONSTRAINED_RESIZE_POLICY_FLEX_LAST_COLUMN);
        words.setId(id + "-words");
        words.textProperty().addListener((_, _, _) -> changed.run());
        HBox.setHgrow(words, Priority.ALWAYS);
        follow.getStyleClass().setAll("toggle-button", "tab");
        follow.setId(id + "-follow");
        follow.setTooltip(new Tooltip("Scroll to new entries as they arrive"));
        detail.managedProperty().bind(detail.textProperty().isNotEmpty());
    }

    /** @param style the class of a row that shows something */
    void columns(String empty, Function<T, String> style, List<TableColumn<T, ?>> columns) {
        table.setPlaceholder(Fields.read(empty));
        table.getColumns().setAll(columns);
        table.setRowFactory(_ -> new TableRow<>() {
            @Override
            protected void updateItem(@Nullable T row, boolean none) {
                super.updateItem(row, none);
                Styles.set(this, "cell", "indexed-cell", "table-row-cell", row == null
                        ? "plain-row"
                        : style.apply(row));
            }
        });
    }

    /** @param accessible what the field searches, for those who do not see it */
    void search(String prompt, String accessible) {
        words.setPromptText(prompt);
        words.setAccessibleText(accessible);
    }

    TableView<T> table() {
        return table;
    }

    TextField words() {
        return words;
    }

    /** The summary of the rows. */
    Label summary() {
        return told;
    }

    /** The selected row in full. */
    Label detail() {
        return detail;
    }

    @Nullable
    T selected() {
        return table.getSelectionModel().getSelectedItem();
    }

    /** A kind that the list can be narrowed to; {@code chosen} is done first when it is. */
    ToggleButton kind(String text, K of, Runnable chosen) {
        ToggleButton kind = new ToggleButton(text);
        kind.getStyleClass().setAll("toggle-button", "tab");
        kind.setId(id + "-" + text.replace(' ', '-'));
        kind.setMinWidth(Region.USE_PREF_SIZE);
        kind.setUserData(of);
        kind.setToggleGroup(kinds);
        kind.setOnAction(_ -> {
            kind.setSelected(true);
            chosen.run();
            changed.run();
        });
        return kind;
    }

    /** The kind that it is narrowed to. */
    @SuppressWarnings("unchecked") // Each toggle of the group was made with one.
    K kind(K otherwise) {
        return kinds.getSelectedToggle() == null ? otherwise : (K) kinds.getSelectedToggle().getUserData();
    }

    /** Shows these rows; the one that was selected stays so, by what it is called by. */
    void fill(List<T> rows, Function<T, Object> key) {
        if (rows.equals(table.getItems())) {
            return;
        }
        T before = selected();
        table.getItems().setAll(rows);
        if (before != null) {
            rows.stream().filter(r -> key.apply(r).equals(key.apply(before))).findFirst().ifPresent(r -> table
                    .getSelectionModel().select(r));
        }
    }

    /**
     * Opens the sheet, and follows.
     *
     * @param first the kind that it is narrowed to at first
     * @param top what stands behind the words that are searched
     * @param row what can be done with the selected row
     * @param ways what else can be done
     */
    void open(Node by, double width, double height, ToggleButton first, List<? extends Node> top, List<Button> row,
            List<Button> ways) {
        Button close = Fields.plain("Close", "Esc");
        close.setOnAction(_ -> desk.overlay().close());
        List<Button> all = new ArrayList<>(ways);
        all.add(close);
        VBox box = inside(first, top, row, all);
        box.setPrefSize(width, height);
        desk.overlay().show(box, by, this::end);
        words.requestFocus();
    }

    /** The same as a part of another sheet; it follows until {@link #end}. */
    VBox inside(ToggleButton first, List<? extends Node> top, List<Button> row, List<Button> ways) {
        kinds.getToggles().removeIf(t -> !top.contains(t)); // Those of when it was shown before.
        kinds.selectToggle(first);
        follow.setSelected(true);
        HBox head = new HBox(Space.S6, words);
        head.getChildren().addAll(top);
        head.setAlignment(Pos.CENTER_LEFT);
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        HBox foot = new HBox(Space.S8);
        foot.getChildren().addAll(row);
        foot.getChildren().addAll(told, space, follow);
        foot.getChildren().addAll(ways);
        foot.setAlignment(Pos.CENTER_LEFT);
        VBox.setVgrow(table, Priority.ALWAYS);
        VBox box = new VBox(Space.S8, head, table, detail, foot);
        box.setId(id + "-view");
        row.forEach(b -> b.setDisable(true));
        changed.run();
        timer.play();
        return box;
    }

    void end() {
        timer.stop();
    }
}
