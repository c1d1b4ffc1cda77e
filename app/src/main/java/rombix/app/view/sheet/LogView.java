package rombix.app.view.sheet;

import java.io.File;
import java.io.IOException;
import java.io.StringWriter;
import java.nio.file.Path;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.function.Consumer;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TableRow;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import javafx.util.Duration;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.Places;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Fields;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.core.board.Walk;
import rombix.core.store.WholeFile;
import rombix.running.log.LogCsv;
import rombix.running.log.LogRow.Kind;
import rombix.running.log.LogRow;
import rombix.running.log.LogStore.Query;
import rombix.running.log.LogStore;

/**
 * The as-run log: followed live, searched, narrowed to presses or faults or to what one press did, and written as CSV.
 * What is asked of it is looked up on a thread of its own.
 */
public final class LogView {
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH:mm:ss.SSS");
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMM, HH:mm:ss", Locale.ROOT);
    private static final int MAX = 500;
    private static final int MAX_WRITTEN = 500_000;
    private static final int PAGE = 5000;
    private static final double WIDTH = 1060;
    private static final double HEIGHT = 600;

    private final Desk desk;
    private final @Nullable LogStore store;
    private final Consumer<String> notice;
    private final TableView<LogRow> table = new TableView<>();
    private final TextField words = new TextField();
    private final ToggleGroup kinds = new ToggleGroup();
    private final ToggleButton follow = new ToggleButton("Follow");
    private final Button press = Fields.plain("What this press did", "");
    private final Button step = Fields.plain("Show the step", "Enter");
    private final Label told = Fields.read("");
    /** What went wrong in the selected row, in full. */
    private final Label detail = Fields.read("");
    private final Timeline timer = new Timeline(new KeyFrame(Duration.millis(500), _ -> {
        if (follow.isSelected()) {
            look();
        }
    }));
    private long onePress;
    private long asked;

    /** @param notice told in words of what could not be done */
    public LogView(Desk desk, @Nullable LogStore store, Consumer<String> notice) {
        this.desk = desk;
        this.store = store;
        this.notice = notice;
        detail.getStyleClass().add("trouble");
        detail.managedProperty().bind(detail.textProperty().isNotEmpty());
        timer.setCycleCount(Timeline.INDEFINITE);
        table.setId("log");
        table.setColumnResizePolicy(TableView.CONSTRAINED_RESIZE_POLICY_FLEX_LAST_COLUMN);
        table.setPlaceholder(Fields.read("Nothing in the log matches."));
        table.getColumns()
                .setAll(List.of(Fields.<LogRow>column("time", 126, LogView::time),
                        Fields.<LogRow>column("", 70, r -> r.kind().words()),
                        Fields.<LogRow>column("button", 140, r -> r.name().isEmpty() ? "—" : r.name()),
                        Fields.<LogRow>column("what", 236, r -> r.words()),
                        Fields.<LogRow>column("by", 96, LogRow::who),
                        Fields.<LogRow>column("late, took", 82, LogView::late),
                        Fields.<LogRow>column("what went wrong", 296,
                                LogRow::message)));
        table.setRowFactory(_ -> new TableRow<>() {
            @Override
            protected void updateItem(@Nullable LogRow row, boolean empty) {
                super.updateItem(row, empty);
                Styles.set(this, "cell", "indexed-cell", "table-row-cell", row != null && row.kind() == Kind.FAULT
                        ? "fault-row"
                        : row != null && row.kind() == Kind.PRESS ? "press-row" : "plain-row");
            }
        });
        table.getSelectionModel().selectedItemProperty().addListener((_, _, row) -> {
            detail.setText(row == null || row.message().isEmpty() ? "" : row.message());
            press.setDisable(row == null || row.press() == 0);
            step.setDisable(row == null || !desk.building() || spot(row) == null);
        });
        table.addEventFilter(KeyEvent.KEY_PRESSED, e -> {
            if (e.getCode() == KeyCode.ENTER && !step.isDisabled()) {
                step.fire();
                e.consume();
            }
        });
        words.setId("log-words");
        words.setPromptText("Search for a button, a step, a fault or gear");
        words.setAccessibleText("Search the log");
        words.textProperty().addListener((_, _, _) -> look());
        HBox.setHgrow(words, Priority.ALWAYS);
        press.setId("log-press");
        press.setOnAction(_ -> only(table.getSelectionModel().getSelectedItem()));
        step.setId("log-step");
        step.setOnAction(_ -> show(table.getSelectionModel().getSelectedItem()));
        step.setTooltip(new Tooltip("Show it in the score (in Build)"));
    }

    private static String time(LogRow row) {
        var at = Instant.ofEpochMilli(row.atMillis()).atZone(ZoneId.systemDefault());
        boolean today = at.toLocalDate().equals(java.time.LocalDate.now());
        return (today ? TIME : DAY).format(at) + (row.rehearsed() ? " (twins)" : "");
    }

    private static String late(LogRow row) {
        return row.kind() != Kind.STEP && row.kind() != Kind.FAULT && row.kind() != Kind.ANSWER
                ? ""
                : String.format(Locale.ROOT, "%.1f ms", row.lateMicros() / 1000.0);
    }

    public void open(Node by) {
        if (store == null) {
            notice.accept("The as-run log cannot be kept here, so there is none to show.");
            return;
        }
        onePress = 0;
        ToggleButton all = kind("all", EnumSet.noneOf(Kind.class));
        HBox top = new HBox(Space.S6, words, all, kind("presses", EnumSet.of(Kind.PRESS)), kind("faults", EnumSet.of(
                Kind.FAULT)), kind("stops", EnumSet.of(Kind.STOP)));
        top.setAlignment(Pos.CENTER_LEFT);
        kinds.selectToggle(all);
        follow.getStyleClass().setAll("toggle-button", "tab");
        follow.setId("log-follow");
        follow.setSelected(true);
        follow.setTooltip(new Tooltip("Follow new entries"));
        Button csv = Fields.plain("Save as CSV…", "");
        csv.setId("log-csv");
        csv.setOnAction(_ -> chooseCsv());
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        Button close = Fields.plain("Close", "Esc");
        close.setOnAction(_ -> desk.overlay().close());
        HBox foot = new HBox(Space.S8, press, step, told, space, follow, csv, close);
        foot.setAlignment(Pos.CENTER_LEFT);
        VBox.setVgrow(table, Priority.ALWAYS);
        VBox box = new VBox(Space.S8, top, table, detail, foot);
        box.setId("log-view");
        box.setPrefSize(WIDTH, HEIGHT);
        press.setDisable(true);
        step.setDisable(true);
        look();
        timer.play();
        desk.overlay().show(box, by, timer::stop);
        words.requestFocus();
    }

    private ToggleButton kind(String text, Set<Kind> of) {
        ToggleButton kind = new ToggleButton(text);
        kind.getStyleClass().setAll("toggle-button", "tab");
        kind.setId("log-" + text);
        kind.setMinWidth(Region.USE_PREF_SIZE);
        kind.setUserData(of);
        kind.setToggleGroup(kinds);
        kind.setOnAction(_ -> {
            kind.setSelected(true);
            onePress = 0;
            look();
        });
        return kind;
    }

    @SuppressWarnings("unchecked")
    private Query query(long before, int max) {
        Set<Kind> of = kinds.getSelectedToggle() == null
                ? Set.of()
                : (Set<Kind>) kinds.getSelectedToggle().getUserData();
        return new Query(words.getText(), onePress == 0 ? of : Set.of(), onePress, before, max);
    }

    /** Looks up what is asked for; an answer that comes after a newer question is let go. */
    private void look() {
        LogStore from = store;
        if (from == null) {
            return;
        }
        long mine = ++asked;
        Query query = query(Long.MAX_VALUE, MAX);
        Thread.startVirtualThread(() -> {
            try {
                List<LogRow> rows = from.find(query);
                Platform.runLater(() -> {
                    if (mine == asked) {
                        fill(rows);
                    }
                });
            } catch (LogStore.Trouble e) {
                Platform.runLater(() -> told.setText("The log cannot be read: " + e.getMessage()));
            }
        });
    }

    private void fill(List<LogRow> rows) {
        if (!rows.equals(table.getItems())) {
            LogRow selected = table.getSelectionModel().getSelectedItem();
            table.getItems().setAll(rows);
            if (selected != null) {
                table.getSelectionModel().select(selected);
            }
        }
        told.setText(onePress != 0
                ? "press " + onePress + " alone; choose “all” for the rest"
                : rows.size() == MAX ? "the newest " + MAX + "; search for more" : rows.size() + " rows");
    }

    private void only(@Nullable LogRow row) {
        if (row != null && row.press() != 0) {
            onePress = row.press();
            words.clear();
            look();
        }
    }

    private Walk.@Nullable Spot spot(LogRow row) {
        Walk.Spot[] found = new Walk.Spot[1];
        Walk.steps(desk.bench().board(), s -> {
            if (found[0] == null && s.owner().button() != null && s.owner().button().id().equals(row.button()) && s
                    .place().equals(row.place())) {
                found[0] = s;
            }
        });
        return found[0];
    }

    private void show(@Nullable LogRow row) {
        Walk.Spot spot = row == null ? null : spot(row);
        if (spot != null) {
            desk.overlay().close();
            Places.go(desk.bench(), spot.owner(), spot.place());
        }
    }

    private void chooseCsv() {
        FileChooser chooser = new FileChooser();
        chooser.setTitle("Save the log as CSV");
        chooser.setInitialFileName("as-run.csv");
        File file = chooser.showSaveDialog(table.getScene().getWindow());
        if (file != null) {
            write(file.toPath());
        }
    }

    /** Writes all rows that are asked for, oldest first. */
    public void write(Path file) {
        LogStore from = store;
        if (from == null) {
            return;
        }
        Query first = query(Long.MAX_VALUE, PAGE);
        Thread.startVirtualThread(() -> {
            try {
                StringWriter out = new StringWriter();
                List<LogRow> all = new ArrayList<>();
                List<LogRow> page = from.find(first);
                while (!page.isEmpty() && all.size() < MAX_WRITTEN) {
                    all.addAll(page);
                    page = from.find(new Query(first.text(), first.kinds(), first.press(), page.getLast().id(), PAGE));
                }
                LogCsv.write(all.reversed(), ZoneId.systemDefault(), out);
                WholeFile.write(file, out.toString(), WholeFile.Readers.AS_BEFORE);
                Platform.runLater(() -> told.setText(all.size() + " rows saved to " + file.getFileName()));
            } catch (IOException | LogStore.Trouble e) {
                Platform.runLater(() -> notice.accept("The log could not be saved: " + e.getMessage()));
            }
        });
    }
}
