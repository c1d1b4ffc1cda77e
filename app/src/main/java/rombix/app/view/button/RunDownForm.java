package rombix.app.view.button;

import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextArea;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.form.Fields;
import rombix.core.board.RunDown;
import rombix.core.edit.Edits;

/** The run-down that a list shows: which one, its name, and its items, a line each, typed, pasted or from a file. */
final class RunDownForm extends VBox {
    private static final RunDown ANOTHER = new RunDown("-", "a new run-down…", List.of());

    private final Desk desk;
    private final Consumer<String> chosen;

    /** @param chosen told of the id of another run-down that is to be shown */
    RunDownForm(Desk desk, String id, Consumer<String> chosen) {
        super(Space.S8);
        this.desk = desk;
        this.chosen = chosen;
        List<RunDown> all = new ArrayList<>(desk.bench().board().runDowns());
        RunDown now = desk.bench().board().runDown(id).orElse(null);
        all.add(ANOTHER);
        getChildren()
                .add(Fields.named("Run-down", Fields.choice("run-down", all, now, RunDown::name, r -> chosen.accept(
                        r == ANOTHER ? made(desk) : r.id()))));
        if (now != null) {
            edit(now);
        }
    }

    /** The first run-down of the board; a new one where it has none. */
    static String any(Desk desk) {
        return desk.bench().board().runDowns().stream().findFirst().map(RunDown::id).orElseGet(() -> made(desk));
    }

    private static String made(Desk desk) {
        List<String> taken = desk.bench().board().runDowns().stream().map(RunDown::id).toList();
        String id = Edits.freshId("run-down", "run-down", taken::contains);
        desk.bench().edit("add a run-down", b -> {
            List<RunDown> all = new ArrayList<>(b.runDowns());
            all.add(new RunDown(id, "Run-down", List.of(new RunDown.Item("Welcome", "", 60), new RunDown.Item("Goodbye",
                    "", 60))));
            return b.withRunDowns(all);
        });
        return id;
    }

    private void edit(RunDown now) {
        TextArea lines = new TextArea(now.lines());
        lines.setId("run-down-items");
        lines.setPrefRowCount(8);
        lines.setPromptText("Welcome | Good evening, everyone | 2:00");
        Label count = Fields.read(words(now));
        lines.focusedProperty().addListener((_, _, in) -> {
            if (!in) {
                items(now.id(), lines.getText(), count);
            }
        });
        Button file = Fields.plain("From a file…", "");
        file.setId("run-down-file");
        file.setOnAction(_ -> {
            FileChooser chooser = new FileChooser();
            chooser.setTitle("Items from a text file or table (CSV)");
            File from = chooser.showOpenDialog(getScene().getWindow());
            if (from != null) {
                read(now.id(), from, lines, count);
            }
        });
        HBox foot = new HBox(Space.S8, file, count);
        foot.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
        getChildren().addAll(
                Fields.named("Name", Fields.text("run-down-name", now.name(), t -> {
                    if (!t.isBlank()) {
                        change("name the run-down", now.id(), r -> r.withName(t.strip()));
                    }
                })),
                Fields.named("Items", lines, "One per line: name | text | planned time"), foot);
    }

    private static String words(RunDown of) {
        long seconds = of.items().stream().mapToLong(RunDown.Item::seconds).sum();
        return "%d items%s".formatted(of.items().size(), seconds == 0 ? "" : ", " + RunDown.time(seconds));
    }

    private void read(String id, File from, TextArea lines, Label count) {
        try {
            String text = Files.readString(from.toPath());
            // A table's commas part its columns where nothing else does.
            lines.setText(text.contains(",") && !text.matches("(?s).*[\t;|].*") ? text.replace(",", " | ") : text);
            items(id, lines.getText(), count);
        } catch (IOException e) {
            count.setText("“%s” can't be read as text".formatted(from.getName()));
        }
    }

    private void items(String id, String lines, Label count) {
        List<RunDown.Item> items = RunDown.items(lines);
        if (items.size() > RunDown.MOST) {
            count.setText("%d is the limit; this file has %d items".formatted(RunDown.MOST, items.size()));
            return;
        }
        desk.bench().board().runDown(id).filter(r -> !r.items().equals(items)).ifPresent(_ -> {
            change("change the run-down", id, r -> r.withItems(items));
            desk.bench().board().runDown(id).ifPresent(r -> count.setText(words(r)));
        });
    }

    private void change(String what, String id, UnaryOperator<RunDown> change) {
        desk.bench().edit(what, b -> b.withRunDowns(b.runDowns().stream().map(r -> r.id().equals(id)
                ? change.apply(r)
                : r).toList()));
    }
}
