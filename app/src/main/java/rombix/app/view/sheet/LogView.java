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
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.stage.FileChooser;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.Places;
import rombix.app.view.common.Desk;
import rombix.app.view.form.Fields;
import rombix.core.board.Walk;
import rombix.core.store.WholeFile;
import rombix.running.log.LogCsv;
import rombix.running.log.LogRow;
import rombix.running.log.LogRow.Kind;
import rombix.running.log.LogStore;
import rombix.running.log.LogStore.Query;

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
    private final FollowedTable<LogRow, Set<Kind>> rows;
    private final Button press = Fields.plain("What this press did", "");
    private final Button step = Fields.plain("Show the step", "Enter");
    private long onePress;
    private long asked;

    /** @param notice told in words of what could not be done */
    public LogView(Desk desk, @Nullable LogStore store, Consumer<String> notice) {
        this.desk = desk;
        this.store = store;
        this.notice = notice;
        rows = new FollowedTable<>("log", desk, this::look, 500, this::look);
        rows.detail().getStyleClass().add("trouble");
        rows.columns("No entries match.", r -> r.kind() == Kind.FAULT
                ? "fault-row"
                : r.kind() == Kind.PRESS ? "press-row" : "plain-row", List.of(
                        Fields.<LogRow>column("Time", 126, LogView::time), Fields.<LogRow>column("", 70, r -> r.kind()
                                .words()),
                        Fields.<LogRow>column("Button", 140, r -> r.name().isEmpty() ? "—" : r.name()),
                        Fields.<LogRow>column("Event", 236, r -> r.words()),
                        Fields.<LogRow>column("By", 96, LogRow::who),
                        Fields.<LogRow>column("Late, took", 82, LogView::lateness),
                        Fields.<LogRow>column("Problems", 296, LogRow::message)));
        rows.table().getSelectionModel().selectedItemProperty().addListener((_, _, row) -> {
            rows.detail().setText(row == null || row.message().isEmpty() ? "" : row.message());
            press.setDisable(row == null || row.press() == 0);
            step.setDisable(row == null || !desk.building() || spot(row) == null);
        });
        rows.table().addEventFilter(KeyEvent.KEY_PRESSED, e -> {
            if (e.getCode() == KeyCode.ENTER && !step.isDisabled()) {
                step.fire();
                e.consume();
            }
        });
        rows.search("Search buttons, steps, gear, faults", "Search the log");
        press.setId("log-press");
        press.setOnAction(_ -> only(rows.selected()));
        step.setId("log-step");
        step.setOnAction(_ -> show(rows.selected()));
        step.setTooltip(new Tooltip("Show it in the score (Build only)"));
    }

    private static String time(LogRow row) {
        var at = Instant.ofEpochMilli(row.atMillis()).atZone(ZoneId.systemDefault());
        boolean today = at.toLocalDate().equals(java.time.LocalDate.now());
        return (today ? TIME : DAY).format(at) + (row.rehearsed() ? " (twins)" : "");
    }

    private static String lateness(LogRow row) {
        return row.kind() != Kind.STEP && row.kind() != Kind.FAULT && row.kind() != Kind.ANSWER
                ? ""
                : String.format(Locale.ROOT, "%.1f ms", row.lateMicros() / 1000.0);
    }

    public void open(Node by) {
        if (store == null) {
            notice.accept("No log: the as-run log can't be kept here.");
            return;
        }
        onePress = 0;
        ToggleButton all = kind("all", EnumSet.noneOf(Kind.class));
        Button csv = Fields.plain("Save as CSV…", "");
        csv.setId("log-csv");
        csv.setOnAction(_ -> chooseCsv());
        rows.open(by, WIDTH, HEIGHT, all, List.of(all, kind("presses", EnumSet.of(Kind.PRESS)), kind("faults", EnumSet
                .of(Kind.FAULT)), kind("notes", EnumSet.of(Kind.NOTE)), kind("stops", EnumSet.of(Kind.STOP))), List.of(
                        press, step),
                List.of(csv));
    }

    private ToggleButton kind(String text, Set<Kind> of) {
        return rows.kind(text, of, () -> onePress = 0);
    }

    private Query query(long before, int max) {
        return new Query(rows.words().getText(), onePress == 0 ? rows.kind(Set.of()) : Set.of(), onePress, before,
                max);
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
                List<LogRow> found = from.find(query);
                Platform.runLater(() -> {
                    if (mine == asked) {
                        fill(found);
                    }
                });
            } catch (LogStore.Trouble e) {
                Platform.runLater(() -> rows.summary().setText("Can't read the log: " + e.getMessage()));
            }
        });
    }

    private void fill(List<LogRow> found) {
        rows.fill(found, r -> r);
        rows.summary().setText(onePress != 0
                ? "press " + onePress + " only; choose “all” for everything"
                : found.size() == MAX ? "the newest " + MAX + "; search for more" : found.size() + " rows");
    }

    private void only(@Nullable LogRow row) {
        if (row != null && row.press() != 0) {
            onePress = row.press();
            rows.words().clear();
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
        File file = chooser.showSaveDialog(rows.table().getScene().getWindow());
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
                Platform.runLater(() -> rows.summary().setText(all.size() + " rows saved to " + file.getFileName()));
            } catch (IOException | LogStore.Trouble e) {
                Platform.runLater(() -> notice.accept("Can't save the log: " + e.getMessage()));
            }
        });
    }
}
