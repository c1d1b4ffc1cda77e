package rombix.app.view;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.Tests;
import rombix.core.board.Edits;
import rombix.core.board.Face;
import rombix.core.board.Face.Fill;
import rombix.core.board.State;
import rombix.core.board.StepWords;
import rombix.core.chain.Condition;

/** Edits a button's name and the look of its selected state, by the button itself. */
final class FacePopover {
    private static final int MOST_ICONS = 72;

    private final Desk desk;

    FacePopover(Desk desk) {
        this.desk = desk;
    }

    /** A condition to choose, in words; none where {@code condition} is null. */
    private record When(String words, @Nullable Condition condition) {
    }

    void open(Node by) {
        String id = desk.bench().button().map(b -> b.id()).orElse(null);
        if (id == null) {
            return;
        }
        VBox box = new VBox();
        box.setPrefWidth(340);
        box.setId("face-popover");
        fill(box, id, by);
        desk.overlay().show(box, by, by::requestFocus);
        box.lookupAll(".text-field").stream().findFirst().ifPresent(Node::requestFocus);
    }

    private void fill(VBox box, String id, Node anchor) {
        rombix.core.board.Button button = desk.bench().board().button(id).orElse(null);
        if (button == null) {
            return;
        }
        int index = desk.bench().stateIndex();
        State state = button.states().get(index);
        box.getChildren().setAll(
                Fields.named("Name of the button", text("face-name", button.name(), name -> desk.bench().edit(
                        "name " + name, b -> Edits.button(b, id, x -> x.withName(name))))),
                Fields.named(button.states().size() > 1 ? "Label while “" + state.name() + "”" : "Label",
                        text("face-label", state.face().label() == null ? "" : state.face().label(),
                                words -> face(id, index, f -> f.withLabel(words.isBlank() ? null : words)),
                                "as the name")),
                Fields.named("Icon", icons(id, index)), Fields.named("Tint", fills(id, index)));
        if (button.states().size() > 1) {
            box.getChildren().add(Fields.named("Name of the state", text("state-name", state.name(),
                    name -> desk.bench().edit("name the state",
                            b -> Edits.state(b, id, index, s -> s.withName(name))))));
        }
        box.getChildren().add(Fields.named("This state is shown while", when(id, index, state)));
        Button delete = Fields.plain("Delete button", "Delete");
        delete.setOnAction(_ -> {
            desk.overlay().close();
            Confirm.deleteButton(desk, anchor, button);
        });
        Button done = Fields.plain("Done", "Esc");
        done.setOnAction(_ -> desk.overlay().close());
        HBox foot = new HBox(8, delete, new javafx.scene.layout.Region(), done);
        HBox.setHgrow(foot.getChildren().get(1), Priority.ALWAYS);
        box.getChildren().add(foot);
    }

    private void face(String id, int index, java.util.function.UnaryOperator<Face> change) {
        desk.bench().edit("change the face", b -> Edits.state(b, id, index, s -> s.withFace(change.apply(s.face()))));
    }

    private static TextField text(String id, String value, java.util.function.Consumer<String> changed,
            String... prompt) {
        TextField field = new TextField(value);
        field.setId(id);
        if (prompt.length > 0) {
            field.setPromptText(prompt[0]);
        }
        field.setOnAction(_ -> changed.accept(field.getText().strip()));
        field.focusedProperty().addListener((_, _, focused) -> {
            if (!focused && !field.getText().strip().equals(value)) {
                changed.accept(field.getText().strip());
            }
        });
        return field;
    }

    private Node icons(String id, int index) {
        TextField search = new TextField();
        search.setId("icon-search");
        search.setPromptText("search: lamp, telescope, door …");
        FlowPane found = new FlowPane(2, 2);
        found.setPrefWrapLength(316);
        found.setPrefHeight(108);
        found.setMinHeight(108);
        Runnable list = () -> {
            String now = desk.bench().state().map(s -> s.face().icon()).orElse(null);
            found.getChildren().clear();
            List<String> names = new ArrayList<>(Icons.find(search.getText(), MOST_ICONS / 2));
            if (search.getText().isBlank() && now != null) {
                names.remove(now);
                names.addFirst(now);
            }
            for (String literal : names.subList(0, Math.min(MOST_ICONS / 2 - 6, names.size()))) {
                Button cell = new Button();
                cell.getStyleClass().add("icon-cell");
                if (literal.equals(now)) {
                    cell.getStyleClass().add("now");
                }
                Shapes.icon(literal, 22).ifPresent(cell::setGraphic);
                cell.setAccessibleText("icon " + Icons.words(literal));
                cell.setTooltip(new Tooltip(Icons.words(literal)));
                cell.setOnAction(_ -> face(id, index, f -> f.withIcon(literal)));
                found.getChildren().add(cell);
            }
        };
        search.textProperty().addListener((_, _, _) -> list.run());
        list.run();
        desk.bench().watch(() -> {
            if (found.getScene() != null) {
                list.run();
            }
        });
        return new VBox(4, search, found);
    }

    private Node fills(String id, int index) {
        HBox row = new HBox(4);
        for (Fill fill : Fill.values()) {
            String name = fill.name().toLowerCase(Locale.ROOT);
            Button swatch = new Button(name);
            swatch.getStyleClass().setAll("button", "swatch", name);
            HBox.setHgrow(swatch, Priority.ALWAYS);
            swatch.setMaxWidth(Double.MAX_VALUE);
            if (desk.bench().state().filter(s -> s.face().fill() == fill).isPresent()) {
                swatch.getStyleClass().add("now");
            }
            swatch.setOnAction(_ -> {
                face(id, index, f -> f.withFill(fill));
                row.getChildren().forEach(s -> s.getStyleClass().remove("now"));
                swatch.getStyleClass().add("now");
            });
            row.getChildren().add(swatch);
        }
        return row;
    }

    private Node when(String id, int index, State state) {
        List<When> all = new ArrayList<>(conditions());
        When now = all.stream().filter(w -> java.util.Objects.equals(w.condition(), state.when())).findFirst()
                .orElseGet(() -> new When(words(state.when()), state.when()));
        if (!all.contains(now)) {
            all.add(1, now);
        }
        return Fields.choice("state-when", all, now, When::words, w -> desk.bench().edit("follow a reading",
                b -> Edits.state(b, id, index, s -> s.withWhen(w.condition()))));
    }

    private String words(@Nullable Condition c) {
        return c == null ? "" : new StepWords(desk.bench().rig(), g -> desk.model().readings(g)).of(c);
    }

    /** What can be followed: each flag's two words, and each choice. */
    private List<When> conditions() {
        List<When> all = new ArrayList<>();
        all.add(new When("pressed (follows no gear)", null));
        for (Tests.Offered o : Tests.all(desk.bench().rig(), g -> desk.model().readings(g))) {
            if (o.test() instanceof Condition c && c.is() != null) {
                all.add(new When(o.words(), c));
            }
        }
        return all;
    }
}
