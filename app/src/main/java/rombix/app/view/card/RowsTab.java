package rombix.app.view.card;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TableView;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.CardEdits;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.core.board.Gear;
import rombix.core.card.Card;
import rombix.core.card.Card.Command;
import rombix.core.listen.CardMaking;
import rombix.core.store.CardRows;
import rombix.core.store.CardRows.Part;
import rombix.core.store.CardRows.Row;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.twin.Figures;
import rombix.core.twin.Twin;
import rombix.core.twin.Twin.Readings;
import rombix.core.value.Value;

/**
 * The card as rows: what the gear reports and what it can be told, each with what it looks like on the wire; one of them
 * is renamed, written anew with the check beside it, tried, or taken away. The interface's thread's.
 */
@OwnedBy(Owner.INTERFACE)
final class RowsTab {
    private static final double FORM_WIDTH = 430;
    private static final double PART_WIDTH = 132;
    private static final int MOST = 3;
    private static final int LINES = 7;

    private final Desk desk;
    private final CardEdits edits;
    private final TableView<Row> table = new TableView<>();
    private final TextField title = new TextField();
    private final TextArea text = new TextArea();
    private final Label check = Fields.read("");
    private final Label changes = Fields.read("");
    private final Button take = new Button("Apply");
    private final Button gone = Fields.plain("Delete…", "");
    private final Button attempt = Fields.plain("Send it", "");
    private final FlowPane parts = new FlowPane(Space.S8, Space.S6);
    private final HBox node;
    private @Nullable Card card;
    /** Whether a part is being said, so that the others stay as they are. */
    private boolean saying;
    private String gear = "";
    private @Nullable Twin twin;

    RowsTab(Desk desk, CardEdits edits) {
        this.desk = desk;
        this.edits = edits;
        table.setId("card-rows");
        table.setColumnResizePolicy(TableView.CONSTRAINED_RESIZE_POLICY_FLEX_LAST_COLUMN);
        table.setPlaceholder(Fields.read("The card is empty. Use Listen or Try to fill it."));
        table.getColumns().setAll(List.of(Fields.<Row>column("", 84, r -> r.command() ? "Command" : "reports"), Fields
                .<Row>column("what", 190, Row::title), Fields.<Row>column("Message", 300, Row::wire),
                Fields
                        .<Row>column("now", 110, this::now)));
        table.getSelectionModel().selectedItemProperty().addListener((_, _, row) -> show(row));
        check.setId("row-check");
        title.setId("row-title");
        title.setOnAction(_ -> take());
        text.setId("row-text");
        text.setPrefRowCount(LINES);
        text.setWrapText(true);
        text.getStyleClass().add("row-text");
        text.textProperty().addListener((_, _, _) -> {
            checked();
            if (!saying && text.isFocused()) {
                Row row = table.getSelectionModel().getSelectedItem();
                parts(row == null ? null : new Row(row.command(), row.id(), row.title(), row.wire(), text.getText()));
            }
        });
        title.textProperty().addListener((_, _, _) -> checked());
        take.setId("row-take");
        take.setOnAction(_ -> take());
        gone.setId("row-gone");
        gone.setOnAction(_ -> delete());
        attempt.setId("row-try");
        attempt.setOnAction(_ -> attempt());
        HBox ways = new HBox(Space.S8, take, attempt, gone);
        ways.setAlignment(Pos.CENTER_LEFT);
        VBox.setVgrow(text, Priority.ALWAYS);
        VBox form = new VBox(Space.S8, Fields.named("Name", title), changes, parts, Fields.named(
                "As JSON", text), check, ways);
        form.setMinWidth(FORM_WIDTH);
        form.setPrefWidth(FORM_WIDTH);
        HBox.setHgrow(table, Priority.ALWAYS);
        node = new HBox(Space.S16, table, form);
        show(null);
    }

    Node node() {
        return node;
    }

    void card(Gear g, Twin now) {
        gear = g.id();
        twin = now;
        Row chosen = table.getSelectionModel().getSelectedItem();
        card = desk.bench().rig().cards().get(g.card());
        List<Row> rows = card == null ? List.of() : CardRows.of(card, now.protocol());
        if (!rows.equals(table.getItems())) {
            table.getItems().setAll(rows);
            rows.stream().filter(r -> chosen != null && r.id().equals(chosen.id()) && r.command() == chosen.command())
                    .findFirst().ifPresentOrElse(r -> table.getSelectionModel().select(r), () -> show(null));
        }
    }

    private String now(Row row) {
        return row.command() ? "" : desk.spoken(gear, row.id());
    }

    private void show(@Nullable Row row) {
        title.setText(row == null ? "" : row.title());
        text.setText(row == null ? "" : row.text());
        for (Node n : new Node[]{title, text, take, gone, attempt}) {
            n.setDisable(row == null);
        }
        attempt.setVisible(row != null && row.command());
        gone.setText("Delete…"); // What was said of another row is said of that alone.
        changes.setText(row == null ? "Select a row." : effect(row));
        parts(row);
        checked();
    }

    /** A field for each part, with what is wrong with it beneath. */
    private void parts(@Nullable Row row) {
        parts.getChildren().clear();
        Twin now = twin;
        if (row == null || now == null) {
            return;
        }
        for (Part part : CardRows.parts(row, now.protocol())) {
            TextField field = new TextField(part.value());
            field.setId("part" + part.pointer().replace('/', '-'));
            field.setPrefWidth(part.pointer().endsWith("args") || part.pointer().endsWith("json")
                    || part.pointer().endsWith("pattern")
                            ? FORM_WIDTH
                            : part.pointer().matches(".*/(to|from)") ? 2 * PART_WIDTH : PART_WIDTH);
            Label wrong = Styles.label("", "read", "trouble");
            wrong.setId(field.getId() + "-wrong");
            wrong.setWrapText(true);
            wrong.managedProperty().bind(wrong.textProperty().isNotEmpty());
            field.textProperty().addListener((_, _, said) -> wrong.setText(rewrite(part, said)));
            field.setOnAction(_ -> take());
            VBox named = Fields.named(part.label(), field);
            named.getChildren().add(wrong);
            named.setMaxWidth(FORM_WIDTH);
            parts.getChildren().add(named);
        }
    }

    /** Replaces a part of the row's text; returns the error, empty if none. */
    private String rewrite(Part part, String value) {
        saying = true;
        try {
            text.setText(CardRows.with(text.getText(), part, value));
            written();
            return "";
        } catch (IllegalArgumentException e) {
            return String.valueOf(e.getMessage());
        } finally {
            saying = false;
        }
    }

    /** What a command would change, as its twin says: worked out with what its step would have at first. */
    private String effect(Row row) {
        Twin now = twin;
        Command command = now == null ? null : now.card().command(row.id()).orElse(null);
        if (now == null || !row.command() || command == null) {
            return row.command() ? "" : "A reading: buttons can follow it, and steps can wait for it.";
        }
        Readings known = desk.model().state().readings(gear);
        List<String> all = new ArrayList<>();
        try {
            now.order(command, first(now, command, known), known).changes().forEach((id, to) -> now.reading(id, known)
                    .ifPresent(r -> {
                        Value before = known.apply(id);
                        all.add(r.title() + (before == null ? "" : " from " + now.spoken(r, before, known)) + " to "
                                + now
                                        .spoken(r, to, known));
                    }));
        } catch (IllegalArgumentException e) {
            return "Its effect can't be determined yet: " + e.getMessage();
        }
        return all.isEmpty()
                ? "It changes no reading of the card."
                : "It changes " + String.join(", ", all.subList(0, Math.min(MOST, all.size()))) + (all
                        .size() > MOST ? " and " + (all.size() - MOST) + " more" : "") + ".";
    }

    /** What a step of a command has at first. */
    private static Map<String, Value> first(Twin twin, Command command, Readings known) {
        Map<String, Value> args = new HashMap<>();
        command.params().stream().filter(p -> p.preset() == null).forEach(p -> {
            switch (p.type()) {
                case CHOICE ->
                    twin.items(p.list(), known).stream().findFirst().ifPresent(i -> args.put(p.id(), Value.of(
                            i.id())));
                case FLAG -> args.put(p.id(), Value.of(true));
                case NUMBER -> {
                    Double most = p.max();
                    args.put(p.id(), Value.of(most == null ? 1 : most));
                }
                default -> args.put(p.id(), Value.of(""));
            }
        });
        return args;
    }

    private @Nullable Card written() {
        Row row = table.getSelectionModel().getSelectedItem();
        Twin now = twin;
        Card of = card;
        return row == null || now == null || of == null
                ? null
                : CardRows.with(of, row, title.getText(), text.getText());
    }

    private void checked() {
        Row row = table.getSelectionModel().getSelectedItem();
        String wrong = null;
        try {
            written();
        } catch (IllegalArgumentException e) {
            wrong = String.valueOf(e.getMessage());
        }
        boolean same = row == null || row.title().equals(title.getText()) && row.text().equals(text.getText());
        Styles.set(check, "label", "read", wrong == null ? "quiet" : "trouble");
        check.setText(wrong != null ? wrong : same ? "" : "Valid. Apply puts it to use at once.");
        take.setDisable(row == null || wrong != null || same);
    }

    private void take() {
        Row row = table.getSelectionModel().getSelectedItem();
        if (row != null && !take.isDisabled()) {
            String called = title.getText();
            String said = text.getText();
            done(edits.change("change “" + row.title() + "”", gear, card -> CardRows.with(card, row, called, said)));
        }
    }

    private void attempt() {
        Row row = table.getSelectionModel().getSelectedItem();
        if (row != null) {
            desk.tell(gear, row.id(), Map.of());
        }
    }

    private void delete() {
        Row row = table.getSelectionModel().getSelectedItem();
        if (row == null) {
            return;
        }
        UnaryOperator<Card> without = card -> row.command()
                ? CardMaking.withoutCommand(card, row.id())
                : CardMaking.withoutReading(card, row.id());
        List<String> lost = edits.lost(gear, without);
        if (!lost.isEmpty() && !gone.getText().startsWith("Delete it")) {
            gone.setText("Delete it and its " + Figures.count(lost.size(), "use"));
            check.setText("Used in: " + lost.stream().limit(4).collect(Collectors.joining("; ")) + (lost.size() > 4
                    ? "; …"
                    : ""));
            return;
        }
        gone.setText("Delete…");
        done(edits.change("delete “" + row.title() + "”", gear, without));
    }

    private void done(List<String> lost) {
        if (!lost.isEmpty()) {
            check.setText("Removed, as it no longer fits: " + String.join("; ", lost));
        }
    }
}
