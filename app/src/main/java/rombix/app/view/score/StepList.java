package rombix.app.view.score;

import java.util.ArrayList;
import java.util.List;
import javafx.css.PseudoClass;
import javafx.geometry.Insets;
import javafx.scene.AccessibleRole;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import rombix.app.edit.StepEdits;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Shapes;
import rombix.app.view.common.Space;
import rombix.app.view.form.Fields;
import rombix.app.view.step.StepOptionsForm;
import rombix.app.view.step.StepPopover;
import rombix.core.board.Paths;
import rombix.core.board.StepWords;
import rombix.core.chain.Chain;
import rombix.core.chain.DeckStep;
import rombix.core.chain.Step;

/** The chain under the hand as a plain list, for those who read rather than look: the same steps, one a line. */
final class StepList extends ScrollPane {
    private static final PseudoClass PICKED = PseudoClass.getPseudoClass("picked");
    private static final double INDENT = 22;

    private final Desk desk;
    private final StepEdits edits;
    private final StepPopover popover;
    private final VBox lines = new VBox();

    StepList(Desk desk, StepEdits edits) {
        this.desk = desk;
        this.edits = edits;
        this.popover = new StepPopover(desk);
        setContent(lines);
        setFitToWidth(true);
        setId("step-list");
        getStyleClass().add("score-scroll");
        lines.setPadding(new Insets(Space.S4, Space.S14, Space.S8, Space.S14));
        desk.bench().watch(this::build);
        visibleProperty().addListener((_, _, _) -> build());
    }

    private void build() {
        if (!isVisible()) {
            return;
        }
        lines.getChildren().clear();
        chain(desk.bench().chain(), List.of(), 0);
    }

    private void chain(Chain chain, List<Integer> at, int depth) {
        for (int i = 0; i < chain.steps().size(); i++) {
            step(chain.steps().get(i), plus(at, i), depth, "");
        }
        for (int i = 0; i < chain.always().size(); i++) {
            step(chain.always().get(i), plus(at, -1 - i), depth, "always: ");
        }
    }

    private static List<Integer> plus(List<Integer> at, int i) {
        List<Integer> all = new ArrayList<>(at);
        all.add(i);
        return List.copyOf(all);
    }

    private void step(Step step, List<Integer> path, int depth, String prefix) {
        StepWords words = new StepWords(desk.bench().rig(), g -> desk.model().state().readings(g));
        String options = StepOptionsForm.summary(step.how());
        Label text = new Label(prefix + words.of(step));
        Label more = new Label(step.how().note() == null ? options : step.how().note());
        more.getStyleClass().add("quiet");
        HBox line = new HBox(Space.S10, Shapes.rhombus(9, "diamond"), text, more);
        line.getStyleClass().addAll("mark-step", "list-step");
        if (step.how().off()) {
            line.getStyleClass().add("switched-off");
        }
        VBox.setMargin(line, new Insets(0, 0, 0, depth * INDENT));
        line.setFocusTraversable(true);
        line.setAccessibleRole(AccessibleRole.LIST_ITEM);
        line.setAccessibleText(text.getText());
        line.setId("line-" + String.join("-", path.stream().map(String::valueOf).toList()));
        line.pseudoClassStateChanged(PICKED, desk.bench().steps().contains(path));
        line.setOnMouseClicked(_ -> open(path, line));
        line.focusedProperty().addListener((_, _, in) -> {
            if (in && !desk.bench().steps().contains(path)) {
                desk.bench().selectStep(path);
                javafx.application.Platform.runLater(() -> {
                    if (lines.lookup("#" + line.getId()) instanceof javafx.scene.Node n) {
                        n.requestFocus();
                    }
                });
            }
        });
        line.addEventHandler(KeyEvent.KEY_PRESSED, e -> {
            if (e.getCode() == KeyCode.ENTER || e.getCode() == KeyCode.SPACE) {
                open(path, line);
                e.consume();
            } else if (e.getCode() == KeyCode.DOWN || e.getCode() == KeyCode.UP) {
                int to = lines.getChildren().indexOf(line) + (e.getCode() == KeyCode.DOWN ? 1 : -1);
                if (to >= 0 && to < lines.getChildren().size()) {
                    lines.getChildren().get(to).requestFocus();
                }
                e.consume();
            }
        });
        lines.getChildren().add(line);
        List<Chain> inner = step.inner();
        for (int c = 0; c < inner.size(); c++) {
            if (inner.size() > 1) {
                Label choice = Fields.read(name(step, c));
                choice.setPadding(new Insets(Space.S2, Space.S4, Space.S2, Space.S4 + chainIndent(depth)));
                lines.getChildren().add(choice);
            }
            chain(inner.get(c), plus(path, c), depth + 1);
        }
        Chain instead = step.how().instead();
        if (instead != null) {
            Label fails = Fields.read("if it fails");
            fails.setPadding(new Insets(Space.S2, Space.S4, Space.S2, Space.S4 + chainIndent(depth)));
            lines.getChildren().add(fails);
            chain(instead, plus(path, Paths.INSTEAD), depth + 1);
        }
    }

    static String name(Step step, int c) {
        return switch (step) {
            case Step.Pick p -> p.choices().get(c).label(c);
            case DeckStep.Ask a -> a.choices().get(c).label(c);
            case Step.If _ -> c == 0 ? "then" : "else";
            default -> "chain " + (c + 1);
        };
    }

    private void open(List<Integer> path, HBox line) {
        desk.bench().selectStep(path);
        javafx.scene.Node now = lines.lookup("#" + line.getId());
        popover.open(path, now == null ? line : now, () -> {
            desk.overlay().close();
            desk.bench().selectStep(path);
            edits.delete();
        });
    }

    /** How far in the name of a chain stands that a step at a depth holds. */
    private static double chainIndent(int depth) {
        return (depth + 1) * INDENT - 10;
    }
}
