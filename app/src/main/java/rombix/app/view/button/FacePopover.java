package rombix.app.view.button;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.TextInputControl;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.shape.SVGPath;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.ButtonEdits;
import rombix.app.edit.Conditions;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Shapes;
import rombix.app.view.common.Space;
import rombix.app.view.form.Confirm;
import rombix.app.view.form.Fields;
import rombix.app.view.step.ConditionField;
import rombix.app.view.tile.Tile;
import rombix.core.board.Button.Proposed;
import rombix.core.board.Face.Mark;
import rombix.core.board.State;
import rombix.core.chain.Condition;
import rombix.core.edit.Copies;
import rombix.core.edit.Edits;
import rombix.core.edit.Proposals;

/** Edits a button's name and the looks of its states, by the button itself: all states side by side at their real size. */
public final class FacePopover {
    private static final double WIDTH = 660;
    private static final double COLUMN = 304;

    private final Desk desk;
    private final ButtonEdits edits;
    private final Consumer<String> trouble;
    /** Whether what is made now is for a popover that opens: then the hand goes to the name. */
    private boolean opening;

    /** @param trouble told in words of a picture that cannot be used */
    public FacePopover(Desk desk, ButtonEdits edits, Consumer<String> trouble) {
        this.desk = desk;
        this.edits = edits;
        this.trouble = trouble;
    }

    public void open(Node by) {
        String id = desk.bench().button().map(b -> b.id()).orElse(null);
        if (id == null) {
            return;
        }
        double[] size = by instanceof Tile t ? new double[]{t.getWidth(), t.getHeight()} : new double[]{150, 100};
        VBox box = new VBox(Space.S8);
        box.setPrefWidth(WIDTH);
        box.setId("face-popover");
        opening = true;
        fill(box, id, by, size);
        opening = false;
        desk.overlay().show(box, by, by::requestFocus);
        boolean[] filling = {false};
        int[] shown = {desk.bench().stateIndex(), states(id)};
        desk.bench().watchWhile(() -> {
            int[] now = {desk.bench().stateIndex(), states(id)};
            if (!filling[0] && !java.util.Arrays.equals(now, shown)) {
                filling[0] = true;
                System.arraycopy(now, 0, shown, 0, 2);
                fill(box, id, by, size);
                filling[0] = false;
            }
        }, () -> box.getScene() != null);
    }

    private int states(String id) {
        return desk.bench().rig().button(id).map(b -> b.states().size()).orElse(0);
    }

    private void fill(VBox box, String id, Node anchor, double[] size) {
        rombix.core.board.Button button = desk.bench().rig().button(id).orElse(null);
        if (button == null) {
            desk.overlay().close();
            return;
        }
        int index = desk.bench().stateIndex();
        FaceSubject subject = new FaceSubject(desk, id, index);
        VBox left = words(button, subject);
        VBox right = new VBox(Space.S8, new FacePictures(subject, trouble).node(), new FaceColours(subject).node());
        left.setPrefWidth(COLUMN);
        right.setPrefWidth(COLUMN);
        left.setMinWidth(COLUMN);
        right.setMinWidth(COLUMN);
        left.setMaxWidth(COLUMN);
        right.setMaxWidth(COLUMN);
        VBox all = new VBox(Space.S8, new HBox(Space.S16, left, right),
                Fields.named("Show this state while", when(id, index,
                        button.states().get(index))),
                new LampsForm(desk, subject));
        if (button.states().size() > 1) { // One alone is seen on the page itself, beside this.
            all.getChildren().addFirst(strip(button, index, size));
        }
        ScrollPane scroll = new ScrollPane(all);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.getStyleClass().add("popover-scroll");
        VBox.setVgrow(scroll, Priority.ALWAYS);
        box.getChildren().setAll(scroll, foot(button, index, anchor));
        desk.overlay().requestLayout();
    }

    /** All states at the size that they have on the page; the one under the hand is framed. */
    private Node strip(rombix.core.board.Button button, int index, double[] size) {
        HBox strip = new HBox(Space.S10);
        strip.setAlignment(Pos.TOP_LEFT);
        List<Runnable> shows = new ArrayList<>();
        for (int i = 0; i < button.states().size(); i++) {
            int state = i;
            Tile tile = new Tile(button, desk);
            tile.setId("face-state-" + i);
            tile.setPrefSize(size[0], size[1]);
            tile.setMinSize(size[0], size[1]);
            tile.setMaxSize(size[0], size[1]);
            shows.add(() -> desk.bench().rig().button(button.id()).filter(b -> state < b.states().size())
                    .ifPresent(b -> tile.preview(b, state, state == index)));
            tile.setOnMouseClicked(_ -> desk.bench().selectState(state));
            tile.setOnKeyPressed(e -> {
                if (e.getCode() == javafx.scene.input.KeyCode.ENTER
                        || e.getCode() == javafx.scene.input.KeyCode.SPACE) {
                    desk.bench().selectState(state);
                    e.consume();
                }
            });
            Label name = new Label(button.states().get(i).name());
            name.getStyleClass().add(i == index ? "gear-name" : "field-name");
            strip.getChildren().add(new VBox(Space.S3, tile, name));
        }
        shows.forEach(Runnable::run);
        desk.bench().watchWhile(() -> shows.forEach(Runnable::run), () -> strip.getScene() != null);
        ScrollPane scroll = new ScrollPane(strip);
        scroll.setVbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.getStyleClass().add("popover-scroll");
        scroll.setMinHeight(size[1] + 26);
        return scroll;
    }

    private VBox words(rombix.core.board.Button button, FaceSubject subject) {
        State state = button.states().get(subject.state());
        boolean several = button.states().size() > 1;
        TextField name = text("face-name", button.name(), words -> desk.bench().edit("name " + words, b -> Edits.button(
                b, button.id(), x -> Proposals.chosen(x.withName(words), Proposed.NAME))));
        if (opening) {
            // The content of a scroll pane stands in the scene only once that was styled.
            name.sceneProperty().addListener((_, _, scene) -> {
                if (scene != null) {
                    javafx.application.Platform.runLater(name::requestFocus);
                }
            });
        }
        var label = new javafx.scene.control.TextArea(state.face().label() == null ? "" : state.face().label());
        label.setId("face-label");
        label.setPromptText("same as the name");
        label.setPrefRowCount(2);
        label.setWrapText(true);
        committed(label, words -> subject.edit(null, f -> f.withLabel(words.isBlank() ? null : words.strip())));
        TextField second = Fields.text("face-second", state.face().second() == null ? "" : state.face().second(),
                words -> subject.edit(null, f -> f.withSecond(words.isBlank() ? null : words.strip())));
        second.setPromptText("none");
        var readings = Fields.choice("face-insert",
                Conditions.names(desk.bench().rig(), g -> desk.model().state().readings(g), List
                        .of()),
                null, Conditions.Name::words, n -> {
                    TextInputControl into = second.isFocused() ? second : label;
                    into.insertText(into.getCaretPosition(), "{" + n.name() + "}");
                    subject.edit(null, f -> f.withLabel(label.getText().isBlank() ? null : label.getText().strip()));
                });
        readings.setPromptText("Insert a reading or value");
        VBox words = new VBox(Space.S8, Fields.named("Button name", name), Fields.named(several
                ? "Label for “" + state.name() + "”"
                : "Label", label, "Up to three lines; Shift+Enter starts a new one"), readings, Fields.named(
                        "Second line, smaller", second));
        if (several) {
            words.getChildren().add(Fields.named("State name", text("state-name", state.name(), given -> desk
                    .bench().edit("name the state", b -> Edits.state(b, button.id(), subject.state(), s -> s.withName(
                            given))))));
        }
        words.getChildren().add(Fields.named("Mark", marks(subject)));
        return words;
    }

    private static void committed(javafx.scene.control.TextArea area, Consumer<String> changed) {
        String[] told = {area.getText()};
        Runnable tell = () -> {
            if (!area.getText().equals(told[0])) {
                told[0] = area.getText();
                changed.accept(area.getText());
            }
        };
        area.focusedProperty().addListener((_, _, in) -> {
            if (!in) {
                tell.run();
            }
        });
        area.addEventFilter(javafx.scene.input.KeyEvent.KEY_PRESSED, e -> {
            if (e.getCode() == javafx.scene.input.KeyCode.ENTER && !e.isShiftDown()) {
                tell.run();
                e.consume();
            } else if (e.getCode() == javafx.scene.input.KeyCode.ENTER) {
                area.insertText(area.getCaretPosition(), "\n");
                e.consume();
            } else if (e.getCode() == javafx.scene.input.KeyCode.TAB) {
                // Tab goes on, as everywhere.
                area.fireEvent(new javafx.scene.input.KeyEvent(e.getSource(), e.getTarget(),
                        javafx.scene.input.KeyEvent.KEY_PRESSED, "", "\t", javafx.scene.input.KeyCode.TAB, e
                                .isShiftDown(),
                        true, false, false));
                e.consume();
            }
        });
    }

    private static TextField text(String id, String value, Consumer<String> changed) {
        return Fields.text(id, value, words -> {
            if (!words.isBlank()) {
                changed.accept(words.strip());
            }
        });
    }

    /** A shape in the corner that tells a state from the others. */
    private Node marks(FaceSubject subject) {
        HBox row = new HBox(Space.S4);
        List<@Nullable Mark> all = new ArrayList<>();
        all.add(null);
        all.addAll(List.of(Mark.values()));
        Runnable[] fill = new Runnable[1];
        fill[0] = () -> {
            row.getChildren().clear();
            for (Mark mark : all) {
                String name = mark == null ? "none" : mark.name().toLowerCase(Locale.ROOT);
                Button choice = new Button(mark == null ? "none" : "");
                choice.getStyleClass().setAll("button", "swatch", "mark-choice");
                choice.setId("mark-" + name);
                if (mark != null) {
                    SVGPath shape = new SVGPath();
                    shape.setContent(Shapes.mark(mark));
                    shape.getStyleClass().add("tile-mark");
                    choice.setGraphic(shape);
                }
                choice.setAccessibleText("mark " + name);
                choice.setTooltip(new Tooltip(name));
                if (subject.face().mark() == mark) {
                    choice.getStyleClass().add("now");
                }
                choice.setOnAction(_ -> {
                    subject.edit(null, f -> f.withMark(mark));
                    fill[0].run();
                });
                row.getChildren().add(choice);
            }
        };
        fill[0].run();
        return row;
    }

    private HBox foot(rombix.core.board.Button button, int index, Node anchor) {
        HBox foot = new HBox(Space.S8);
        Button delete = Fields.plain("Delete button", "Delete");
        delete.setOnAction(_ -> {
            desk.overlay().close();
            Confirm.deleteButtons(desk, anchor, edits);
        });
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        foot.getChildren().addAll(delete, space);
        if (button.states().size() > 1) {
            Button all = Fields.plain("Use this face for all states", "");
            all.setId("face-all-states");
            all.setOnAction(_ -> desk.bench().edit("copy a face to all states", b -> Copies.faceOnAllStates(b, button
                    .id(), index)));
            foot.getChildren().add(all);
        }
        int others = desk.bench().buttons().size();
        if (others > 1) {
            Button match = Fields.plain("Make these " + others + " match", "Ctrl+M");
            match.setId("face-match");
            match.setOnAction(_ -> edits.match());
            foot.getChildren().add(match);
        }
        Button done = Fields.plain("Done", "Esc");
        done.setId("face-done");
        done.setOnAction(_ -> desk.overlay().close());
        foot.getChildren().add(done);
        return foot;
    }

    private Node when(String id, int index, State state) {
        return new ConditionField(desk, "state-when", state.when(), List.of(ConditionField.none(
                "pressed (no condition)"),
                new Conditions.Offered("no other state's condition is true",
                        new Condition.Otherwise())),
                c -> desk.bench().edit("follow a condition", b -> Edits.state(b, id,
                        index, s -> s.withWhen(c))));
    }
}
