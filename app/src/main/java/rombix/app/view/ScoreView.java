package rombix.app.view;

import java.util.ArrayList;
import java.util.List;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.AccessibleRole;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Line;
import rombix.app.edit.Paths;
import rombix.app.edit.Score;
import rombix.app.edit.Score.Mark;
import rombix.core.board.Edits;
import rombix.core.board.State;
import rombix.core.card.Figures;
import rombix.core.chain.Gesture;
import rombix.core.engine.Status.Phase;

/** The score of the selected chain, along the foot: a lane for each gear, against time. */
final class ScoreView extends VBox {
    private static final PseudoClass PICKED = PseudoClass.getPseudoClass("picked");
    private static final double LANE_NAMES = 106;
    private static final double RULER = 20;
    private static final double WAITS = 18;
    private static final double ROW = 24;
    private static final double LANE_PAD = 5;
    private static final double[] TICKS = {0.1, 0.2, 0.5, 1, 2, 5, 10, 30, 60, 300, 600, 3600};

    private final Desk desk;
    private final StepPopover stepPopover;
    private final FinderField finder;
    private final Runnable editFace;
    private final HBox head = new HBox();
    private final Pane drawing = new Pane();
    private final ScrollPane scroll = new ScrollPane(drawing);

    ScoreView(Desk desk, Runnable editFace) {
        this.desk = desk;
        this.editFace = editFace;
        this.stepPopover = new StepPopover(desk);
        this.finder = new FinderField(desk);
        getStyleClass().add("score");
        setId("score");
        head.getStyleClass().add("score-head");
        head.setMinHeight(42);
        scroll.getStyleClass().add("score-scroll");
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        HBox foot = new HBox(finder);
        foot.setPadding(new javafx.geometry.Insets(6, 14, 10, 14));
        HBox.setHgrow(finder, Priority.ALWAYS);
        getChildren().addAll(head, scroll, foot);
        setPrefHeight(296);
        setMinHeight(220);
        scroll.viewportBoundsProperty().addListener((_, _, _) -> draw());
        desk.bench().watch(this::rebuild);
        desk.model().watch(c -> {
            if (!c.gear().isEmpty()) {
                draw();
            }
        });
        rebuild();
    }

    /** Puts the hand where a step is added by typing. */
    void focusFinder() {
        finder.requestFocus();
    }

    private void rebuild() {
        heading();
        draw();
    }

    private void heading() {
        head.getChildren().clear();
        rombix.core.board.Button button = desk.bench().button().orElse(null);
        finder.setDisable(button == null);
        if (button == null) {
            Label none = new Label("Select a button to see its score, or click an empty cell to make one.");
            none.getStyleClass().addAll("read", "quiet");
            head.getChildren().add(none);
            return;
        }
        Label title = new Label(button.name());
        title.getStyleClass().add("score-title");
        title.setMinWidth(Region.USE_PREF_SIZE);
        HBox states = new HBox(2);
        states.setAlignment(Pos.CENTER_LEFT);
        for (int i = 0; i < button.states().size(); i++) {
            int index = i;
            State s = button.states().get(i);
            ToggleButton tab = new ToggleButton(s.name(), Shapes.rhombus(11, "pip",
                    desk.bench().stateIndex() == i ? "now" : "other"));
            tab.getStyleClass().setAll("toggle-button", "tab");
            tab.setId("state-" + i);
            tab.setSelected(desk.bench().stateIndex() == i);
            tab.setOnAction(_ -> desk.bench().selectState(index));
            states.getChildren().add(tab);
        }
        Button add = FacePopover.plain("+ state", "");
        add.setId("add-state");
        add.setOnAction(_ -> {
            desk.bench().edit("add a state", b -> Edits.addState(b, button.id()));
            desk.bench().selectState(button.states().size());
        });
        states.getChildren().add(add);
        if (button.states().size() > 1) {
            Button remove = FacePopover.plain("− state", "");
            remove.setTooltip(new Tooltip("Delete the state “" + button.states().get(desk.bench().stateIndex()).name()
                    + "”"));
            remove.setOnAction(_ -> desk.bench().edit("delete a state",
                    b -> Edits.removeState(b, button.id(), desk.bench().stateIndex())));
            states.getChildren().add(remove);
        }
        HBox gestures = new HBox(2);
        gestures.setAlignment(Pos.CENTER_LEFT);
        for (Gesture g : Gesture.values()) {
            int steps = desk.bench().state().map(s -> s.chain(g).steps().size()).orElse(0);
            ToggleButton tab = new ToggleButton(g.name().toLowerCase(java.util.Locale.ROOT)
                    + (steps > 0 ? " · " + steps : ""));
            tab.getStyleClass().setAll("toggle-button", "tab");
            tab.setId("gesture-" + g.name().toLowerCase(java.util.Locale.ROOT));
            tab.setSelected(desk.bench().gesture() == g);
            tab.setOnAction(_ -> desk.bench().selectGesture(g));
            gestures.getChildren().add(tab);
        }
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        Label summary = new Label(summary());
        summary.getStyleClass().addAll("read", "quiet");
        Button face = FacePopover.plain("Face…", "F2");
        face.setId("edit-face");
        face.setOnAction(_ -> editFace.run());
        head.getChildren().addAll(title, states, gestures, space, summary, face);
    }

    private Score score() {
        double width = Math.max(300, scroll.getViewportBounds().getWidth() - LANE_NAMES - 40);
        Score rough = Score.of(desk.bench().chain(), desk.bench().rig(), g -> desk.model().readings(g), _ -> 0.0);
        double perMilli = perMilli(rough.lengthMillis(), width);
        return Score.of(desk.bench().chain(), desk.bench().rig(), g -> desk.model().readings(g),
                text -> (text.length() * 6.6 + 30) / perMilli);
    }

    private static double perMilli(double lengthMillis, double width) {
        return width / Math.max(1000, lengthMillis * 1.25 + 250);
    }

    private String summary() {
        int steps = desk.bench().chain().steps().size();
        if (steps == 0) {
            return "No steps yet: type below what it should do";
        }
        Score s = Score.of(desk.bench().chain(), desk.bench().rig(), g -> desk.model().readings(g), _ -> 0.0);
        long off = s.lanes().stream().filter(l -> desk.model().status(l.gear()).phase() == Phase.OFF).count();
        String gear = s.lanes().size() == 1 ? "1 gear" : s.lanes().size() + " gear";
        return Figures.span(s.lengthMillis()) + " · " + gear + (off > 0 ? " · " + off + " off" : "");
    }

    private void draw() {
        List<Node> nodes = new ArrayList<>();
        if (desk.bench().button().isPresent()) {
            Score score = score();
            double width = Math.max(400, scroll.getViewportBounds().getWidth());
            double perMilli = perMilli(score.lengthMillis(), width - LANE_NAMES - 40);
            double bottom = Math.max(lanes(score, perMilli, width, nodes), scroll.getViewportBounds().getHeight());
            ruler(perMilli, width, bottom, nodes);
            waits(score, perMilli, bottom, nodes);
            drawing.setPrefSize(width, Math.max(bottom, RULER + 10));
        }
        drawing.getChildren().setAll(nodes);
    }

    private void ruler(double perMilli, double width, double bottom, List<Node> nodes) {
        double tick = TICKS[TICKS.length - 1];
        for (double t : TICKS) {
            if (t * 1000 * perMilli >= 64) {
                tick = t;
                break;
            }
        }
        for (int i = 0; LANE_NAMES + i * tick * 1000 * perMilli < width - 30; i++) {
            double x = Math.rint(LANE_NAMES + i * tick * 1000 * perMilli) + 0.5;
            Line line = new Line(x, 0, x, i == 0 ? bottom : RULER - 4);
            line.getStyleClass().add("ruler-line");
            Label text = new Label(Figures.withUnit(Math.round(i * tick * 100) / 100.0, "s"));
            text.getStyleClass().add("ruler-text");
            text.relocate(x + 4, 0);
            nodes.add(0, line);
            nodes.add(text);
        }
    }

    private double lanes(Score score, double perMilli, double width, List<Node> nodes) {
        double y = RULER + (score.waits().isEmpty() ? 4 : WAITS);
        for (Score.Lane lane : score.lanes()) {
            double height = lane.rows() * ROW + 2 * LANE_PAD;
            boolean off = desk.model().status(lane.gear()).phase() == Phase.OFF;
            Label name = new Label(off ? lane.title() + " · off" : lane.title());
            name.getStyleClass().add("lane-name");
            if (off) {
                name.getStyleClass().add("off");
            }
            name.relocate(14, y + LANE_PAD + 3);
            Line line = new Line(0, Math.rint(y + height) + 0.5, width, Math.rint(y + height) + 0.5);
            line.getStyleClass().add("lane-line");
            nodes.add(line);
            nodes.add(name);
            for (Mark m : lane.marks()) {
                nodes.add(mark(m, off, Math.rint(LANE_NAMES + m.startMillis() * perMilli - 6),
                        y + LANE_PAD + m.row() * ROW));
            }
            y += height;
        }
        return y;
    }

    private Node mark(Mark m, boolean off, double x, double y) {
        HBox box = new HBox(Shapes.rhombus(13, "diamond"), new Label(m.text()));
        box.getStyleClass().add("mark-step");
        if (off) {
            box.getStyleClass().add("off");
        }
        box.relocate(x, y);
        box.setAccessibleText(m.text() + " at " + Figures.span(m.startMillis()));
        works(box, m);
        return box;
    }

    private void waits(Score score, double perMilli, double bottom, List<Node> nodes) {
        for (Mark m : score.waits()) {
            Label text = new Label(m.text());
            StackPane band = new StackPane(text);
            StackPane.setAlignment(text, Pos.TOP_CENTER);
            band.getStyleClass().add("wait-band");
            double w = Math.max(10, m.lengthMillis() * perMilli - 16);
            text.setVisible(w > 50);
            text.setMinWidth(Region.USE_PREF_SIZE);
            band.resizeRelocate(LANE_NAMES + m.startMillis() * perMilli + 8, RULER, w, bottom - RULER - 1);
            band.setPrefSize(w, bottom - RULER - 1);
            band.setMinWidth(0);
            band.setAccessibleText(m.text() + " at " + Figures.span(m.startMillis()));
            works(band, m);
            nodes.add(0, band);
        }
    }

    private void works(Region node, Mark m) {
        node.setFocusTraversable(true);
        node.setAccessibleRole(AccessibleRole.BUTTON);
        node.setId("step-" + String.join("-", m.path().stream().map(String::valueOf).toList()));
        node.pseudoClassStateChanged(PICKED, desk.bench().step().filter(m.path()::equals).isPresent());
        node.setOnMouseClicked(_ -> open(m));
        node.addEventHandler(KeyEvent.KEY_PRESSED, e -> {
            if (e.getCode() == KeyCode.ENTER || e.getCode() == KeyCode.SPACE) {
                open(m);
                e.consume();
            } else if (e.getCode() == KeyCode.DELETE || e.getCode() == KeyCode.BACK_SPACE) {
                delete(m.path());
                e.consume();
            }
        });
    }

    private void open(Mark m) {
        desk.bench().selectStep(m.path());
        Node now = drawing.lookup("#step-" + String.join("-", m.path().stream().map(String::valueOf).toList()));
        if (now != null) {
            stepPopover.open(m.path(), now, () -> delete(m.path()));
        }
    }

    private void delete(List<Integer> path) {
        desk.overlay().close();
        desk.bench().button().ifPresent(b -> desk.bench().edit("delete a step", board -> Edits.chain(board, b.id(),
                desk.bench().stateIndex(), desk.bench().gesture(), c -> Paths.changed(c, path, _ -> null))));
    }
}
