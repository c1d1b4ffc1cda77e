package rombix.app.view.sheet;

import java.util.List;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import rombix.app.edit.Part;
import rombix.app.edit.UsageWords;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.form.Confirm;
import rombix.app.view.form.Fields;
import rombix.core.board.Board;
import rombix.core.board.Board.AfterCrash;
import rombix.core.board.Board.BoardValue;
import rombix.core.board.Board.NamedChain;
import rombix.core.board.RunDown;
import rombix.core.chain.Step;
import rombix.core.edit.Edits;
import rombix.core.value.Value;

/** The values and the chains of the board itself: added, named, opened, deleted with what uses them said first. */
public final class PartsPopover {
    private static final double NOW = 96;

    private final Desk desk;

    public PartsPopover(Desk desk) {
        this.desk = desk;
    }

    public void show(Node by) {
        VBox content = new VBox(Space.S6);
        fill(content, by);
        ScrollPane scroll = new ScrollPane(content);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.getStyleClass().add("popover-scroll");
        VBox box = new VBox(scroll);
        box.setPrefWidth(440);
        box.setId("parts");
        desk.overlay().show(box, by, by::requestFocus);
    }

    private void fill(VBox content, Node by) {
        Board board = desk.bench().board();
        content.getChildren().setAll(head("Values: set by chains, shown in labels and formulas"));
        for (BoardValue v : board.values()) {
            TextField initial = Fields.text("value-" + v.id(), v.initial().toString(), text -> edit(content, by,
                    "change a value", b -> b.withValues(b.values().stream().map(x -> x.id().equals(v.id())
                            ? x.withInitial(typed(text))
                            : x).toList())));
            initial.setPrefColumnCount(6);
            initial.setAccessibleText("What " + v.name() + " is at the start");
            content.getChildren().add(row(name("value-name-" + v.id(), v.name(), name -> edit(content, by,
                    "name a value", b -> b.withValues(b.values().stream().map(x -> x.id().equals(v.id())
                            ? x.withName(name)
                            : x).toList()))),
                    initial, now(v), removeButton("value " + v.name(), () -> delete(by, "Delete the value “" + v
                            .name() + "”?", UsageWords.value(v.id()), b -> Edits.removeValue(b, v.id())))));
        }
        content.getChildren().addAll(add("value-add", "+ value", () -> edit(content, by, "add a value", b -> Edits
                .addValue(b, "Value " + (b.values().size() + 1), Value.of(0)))), head(
                        "Chains that any button can use"));
        for (NamedChain c : board.chains()) {
            TextField params = Fields.text("chain-params-" + c.id(), String.join(", ", c.params()), text -> chain(
                    content, by, c.id(),
                    x -> x.withParams(List.of(text.split("[,\\s]+")).stream().filter(p -> !p.isBlank()).toList())));
            params.setPromptText("arguments");
            params.setPrefColumnCount(8);
            params.setAccessibleText("Arguments of " + c.name());
            Button open = Fields.plain("Open", "");
            open.setId("chain-open-" + c.id());
            open.setOnAction(_ -> {
                desk.overlay().close();
                desk.bench().selectPart(new Part(null, c.id()));
            });
            content.getChildren().add(row(name("chain-name-" + c.id(), c.name(), name -> chain(content, by, c.id(),
                    x -> x.withName(name))), params, open, removeButton("chain " + c.name(),
                            () -> delete(by, "Delete the chain “" + c.name() + "”?", UsageWords.chain(c.id()),
                                    b -> Edits
                                            .removeNamedChain(b, c.id())))));
        }
        content.getChildren().add(add("chain-add", "+ chain", () -> edit(content, by, "add a chain", b -> Edits
                .addNamedChain(b, "Chain " + (b.chains().size() + 1)))));
        if (!board.runDowns().isEmpty()) {
            content.getChildren().add(head("Run-downs: shown by lists, advanced by steps"));
        }
        for (RunDown r : board.runDowns()) {
            Label items = Fields.read(r.items().size() + " items");
            items.setMinWidth(Region.USE_PREF_SIZE);
            content.getChildren().add(row(name("run-down-name-" + r.id(), r.name(), name -> edit(content, by,
                    "name the run-down", b -> b.withRunDowns(b.runDowns().stream().map(x -> x.id().equals(r.id())
                            ? x.withName(name)
                            : x).toList()))),
                    items, removeButton("run-down " + r.name(), () -> delete(by, "Delete the run-down “"
                            + r.name() + "”?", UsageWords.runDown(r.id()), b -> Edits.removeRunDown(b, r.id())))));
        }
        AfterCrash now = board.afterCrash() == null ? AfterCrash.ASK : board.afterCrash();
        content.getChildren().add(Fields.named("After a crash, end what was held at the next start",
                Fields.choice("after-crash", List.of(AfterCrash.values()), now, c -> switch (c) {
                    case ASK -> "after asking";
                    case ALWAYS -> "always";
                    case NEVER -> "never";
                }, c -> edit(content, by, "choose what happens after a crash", b -> b.withAfterCrash(c)))));
    }

    /** What a value is now, behind what it is at the start. */
    private Label now(BoardValue value) {
        Label now = Fields.read("");
        now.setId("value-now-" + value.id());
        now.setMinWidth(NOW);
        now.setMaxWidth(NOW);
        now.setWrapText(false);
        Runnable show = () -> {
            Value is = desk.model().state().named(value.id(), "", desk.words()::wall);
            now.setText(is == null ? "" : "now " + is);
        };
        show.run();
        desk.whileShown(now, show);
        return now;
    }

    private static Label head(String text) {
        Label head = Fields.read(text);
        VBox.setMargin(head, new javafx.geometry.Insets(Space.S6, 0, 0, 0));
        return head;
    }

    private void chain(VBox content, Node by, String id, UnaryOperator<NamedChain> change) {
        edit(content, by, "change a chain of the board", b -> b.withChains(b.chains().stream().map(c -> c.id().equals(
                id) ? change.apply(c) : c).toList()));
    }

    private void edit(VBox content, Node by, String name, UnaryOperator<Board> change) {
        desk.bench().edit(name, change);
        fill(content, by);
        desk.overlay().requestLayout();
    }

    private void delete(Node by, String question, Predicate<Step> uses, UnaryOperator<Board> gone) {
        desk.overlay().close();
        Confirm.ask(desk, by, question, UsageWords.of(desk.bench().board(), uses), "Delete",
                () -> desk.bench().edit(question
                        .replace("Delete", "delete").replace("?", ""),
                        b -> gone.apply(Edits.chains(b, c -> c.without(uses)))));
    }

    private static TextField name(String id, String now, java.util.function.Consumer<String> changed) {
        TextField name = Fields.text(id, now, text -> {
            if (!text.isBlank()) {
                changed.accept(text.strip());
            }
        });
        HBox.setHgrow(name, Priority.ALWAYS);
        name.setAccessibleText("Name");
        return name;
    }

    private static Button removeButton(String what, Runnable run) {
        Button gone = Fields.plain("×", "");
        gone.setAccessibleText("Delete the " + what);
        gone.setOnAction(_ -> run.run());
        return gone;
    }

    private static Button add(String id, String text, Runnable run) {
        Button add = Fields.plain(text, "");
        add.setId(id);
        add.setOnAction(_ -> run.run());
        return add;
    }

    private static HBox row(Node... nodes) {
        HBox row = new HBox(Space.S6, nodes);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    private static Value typed(String text) {
        String plain = text.strip();
        return switch (plain) {
            case "yes", "true" -> Value.of(true);
            case "no", "false" -> Value.of(false);
            default -> plain.matches("[-\u2212]?\\d+([.,]\\d+)?") ? Value.of(Fields.parsed(plain, 0)) : Value.of(plain);
        };
    }
}
