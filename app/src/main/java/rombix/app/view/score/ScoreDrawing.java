package rombix.app.view.score;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import javafx.application.Platform;
import javafx.css.PseudoClass;
import javafx.scene.AccessibleRole;
import javafx.scene.Node;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import javafx.scene.shape.Line;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.Score.Mark;
import rombix.app.edit.Score;
import rombix.app.edit.StepEdits;
import rombix.app.view.common.Desk;
import rombix.app.view.step.StepOptionsForm;
import rombix.app.view.step.StepPopover;
import rombix.core.board.Paths;
import rombix.core.chain.Chain;
import rombix.core.chain.Step;
import rombix.core.event.Status.Phase;
import rombix.core.twin.Figures;
import rombix.running.state.DeckState;

/** The drawing of a chain against time: a ruler, the steps that hold others as brackets, and a lane for each gear. */
public final class ScoreDrawing extends ScrollPane implements StepDrag.Lanes {
    private static final PseudoClass PICKED = PseudoClass.getPseudoClass("picked");
    private static final double ZOOM_STEP = 1.25;

    private final Desk desk;
    private final StepPopover stepPopover;
    private final StepEdits edits;
    private final Pane drawing = new Pane();
    private final Line playhead = new Line();
    private double zoom = 1;
    private double perMilli = 0.1;
    private List<ScorePainter.LaneBand> bands = List.of();
    private @Nullable Object drawn;

    /** What the drawing depends on: it is made anew when that changes. */
    private record Drawn(Chain chain, Object rig, double width, double zoom, Set<String> off,
            DeckState.@Nullable LastRun last, int trouble) {
    }

    ScoreDrawing(Desk desk, StepEdits edits) {
        this.desk = desk;
        this.edits = edits;
        this.stepPopover = new StepPopover(desk);
        getStyleClass().add("score-scroll");
        setId("score-drawing");
        setContent(drawing);
        setFitToHeight(true);
        playhead.getStyleClass().add("playhead");
        playhead.setMouseTransparent(true);
        // Not from within the layout: what is added there is not styled.
        viewportBoundsProperty().addListener((_, _, _) -> Platform.runLater(this::draw));
        addEventFilter(ScrollEvent.SCROLL, e -> {
            if (e.isShortcutDown()) {
                zoom(e.getDeltaY() > 0 ? zoom * ZOOM_STEP : zoom / ZOOM_STEP);
                e.consume();
            }
        });
        addEventHandler(KeyEvent.KEY_PRESSED, this::key);
        desk.bench().watch(() -> {
            draw();
            picked();
        });
        desk.model().watch(c -> {
            if (!c.whole().isEmpty() || c.runs()) {
                draw();
            }
            if (c.runs()) {
                playhead();
            }
        });
        draw();
    }

    private void zoom(double next) {
        zoom = Math.clamp(next, 1, 400);
        draw();
    }

    private void key(KeyEvent e) {
        switch (e.getCode()) {
            case PLUS, ADD, EQUALS -> zoomBy(1);
            case MINUS, SUBTRACT -> zoomBy(-1);
            case DIGIT0, NUMPAD0 -> zoomBy(0);
            case LEFT, RIGHT -> step(e.getCode() == KeyCode.RIGHT ? 1 : -1, e.isShiftDown());
            default -> {
                return;
            }
        }
        e.consume();
    }

    /** Zooms in or out by a step; 0 shows the whole chain. */
    public void zoomBy(int steps) {
        zoom(steps == 0 ? 1 : zoom * Math.pow(ZOOM_STEP, steps));
    }

    /** Puts the hand on the selected step, else on the first, else on the drawing. */
    void focusSelected() {
        Node selected = desk.bench().steps().isEmpty()
                ? null
                : drawing.lookup("#" + ScorePainter.id(desk.bench().steps().iterator().next()));
        if (selected != null) {
            selected.requestFocus();
        } else {
            requestFocus();
            step(1, false);
        }
    }

    /** Selects all steps of the chain itself. */
    public void selectAll() {
        List<List<Integer>> all = new ArrayList<>();
        for (int i = 0; i < desk.bench().chain().steps().size(); i++) {
            all.add(List.of(i));
        }
        desk.bench().selectSteps(all);
    }

    /** Goes to the next step as it is drawn, from left to right; with Shift it is selected as well. */
    private void step(int by, boolean more) {
        List<Mark> marks = drawing.getChildren().stream().filter(n -> n.getUserData() instanceof Mark)
                .map(n -> (Mark) n.getUserData()).sorted(java.util.Comparator.comparingDouble(Mark::startMillis))
                .toList();
        List<List<Integer>> selected = List.copyOf(desk.bench().steps());
        int now = -1;
        for (int i = 0; i < marks.size(); i++) {
            if (!selected.isEmpty() && marks.get(i).path().equals(selected.getLast())) {
                now = i;
            }
        }
        int next = now < 0 ? by > 0 ? 0 : marks.size() - 1 : now + by;
        if (next >= 0 && next < marks.size()) {
            Set<List<Integer>> all = new LinkedHashSet<>(more ? selected : List.of());
            all.add(marks.get(next).path());
            desk.bench().selectSteps(all);
            Node node = drawing.lookup("#" + ScorePainter.id(marks.get(next).path()));
            if (node != null) {
                node.requestFocus();
            }
        }
    }

    private Set<String> off() {
        Set<String> off = new LinkedHashSet<>();
        for (String gear : desk.bench().rig().twins().keySet()) {
            if (desk.model().state().status(gear).phase() == Phase.OFF) {
                off.add(gear);
            }
        }
        return off;
    }

    private DeckState.@Nullable LastRun lastRun() {
        DeckState.LastRun last = desk.bench().button().map(b -> desk.model().state().lastRuns().get(b.id()))
                .orElse(null);
        return last != null && last.what().equals(desk.bench().part().place()) ? last : null;
    }

    private void draw() {
        if (!desk.building()) {
            return;
        }
        double width = Math.max(400, getViewportBounds().getWidth());
        DeckState.LastRun last = lastRun();
        Drawn now = new Drawn(desk.bench().chain(), desk.bench().rig().twins(), width, zoom, off(), last, last == null
                ? 0
                : last.trouble().size() + last.picked().hashCode());
        if (now.equals(drawn)) {
            return;
        }
        drawn = now;
        drawing.getChildren().clear();
        bands = List.of();
        if (desk.bench().hasChain()) {
            draw(now, last);
        }
        drawing.getChildren().add(playhead);
        playhead.setVisible(false);
        picked();
    }

    private void draw(Drawn now, DeckState.@Nullable LastRun last) {
        double room = now.width() - ScorePainter.LANE_NAMES - 40;
        double length = Score.length(now.chain(), desk.bench().rig());
        perMilli = zoom * room / Math.max(1000, length * 1.25 + 250);
        Score score = Score.of(now.chain(), desk.bench().rig(), g -> desk.model().state().readings(g),
                text -> ScorePainter
                        .room(text, perMilli));
        double width = Math.max(now.width(), ScorePainter.LANE_NAMES + 40 + zoom * room);
        ScorePainter.Painted painted = new ScorePainter(perMilli, now.off(), last, this::works).paint(score, width,
                getViewportBounds().getHeight());
        drawing.getChildren().setAll(painted.nodes());
        bands = painted.bands();
        drawing.setPrefSize(width, painted.bottom());
        drawing.setMinHeight(painted.bottom());
    }

    private double x(double millis) {
        return ScorePainter.LANE_NAMES + millis * perMilli;
    }

    @Override
    public double length(Step step) {
        return Score.length(Chain.of(step), desk.bench().rig());
    }

    /** A step is dropped on the drawing: it is added at that time. */
    public void drop(Step step, String name, double sceneX, double sceneY) {
        double at = (drawing.sceneToLocal(sceneX, sceneY).getX() - ScorePainter.LANE_NAMES) / perMilli;
        edits.addAt(name, step, at, this::length);
    }

    @Override
    public @Nullable String gearAt(double sceneX, double sceneY) {
        double y = drawing.sceneToLocal(sceneX, sceneY).getY();
        return bands.stream().filter(b -> y >= b.top() && y < b.bottom()).map(ScorePainter.LaneBand::gear).findFirst()
                .orElse(null);
    }

    @Override
    public @Nullable Mark holder(List<Integer> path) {
        return path.size() < 3
                ? null
                : drawing.lookup("#" + ScorePainter.id(path.subList(0, path.size() - 2))) instanceof Node n
                        && n.getUserData() instanceof Mark m ? m : null;
    }

    @Override
    public @Nullable Node markAt(double sceneX, double sceneY, Node but) {
        Node found = null;
        for (Node n : drawing.getChildren()) {
            if (n != but && n.getUserData() instanceof Mark && !n.getStyleClass().contains("wait-band")
                    && n.getBoundsInParent().contains(drawing.sceneToLocal(sceneX, sceneY))) {
                found = n;
            }
        }
        return found;
    }

    private void works(Region node, Mark m, @Nullable String trouble) {
        node.setFocusTraversable(true);
        node.setAccessibleRole(AccessibleRole.BUTTON);
        node.setAccessibleText(m.text() + " at " + Figures.span(m.startMillis()) + (trouble == null
                ? ""
                : ", " + trouble));
        node.setId(ScorePainter.id(m.path()));
        node.setUserData(m);
        String note = m.step().how().note();
        String options = StepOptionsForm.summary(m.step().how());
        if (trouble != null || note != null || !options.isEmpty()) {
            Tooltip.install(node, new Tooltip(String.join("\n", java.util.stream.Stream.of(trouble, note, options)
                    .filter(s -> s != null && !s.isEmpty()).toList())));
        }
        node.setOnMouseClicked(e -> {
            if (e == null || e.isStillSincePress()) {
                clicked(m, e);
            }
        });
        node.addEventHandler(KeyEvent.KEY_PRESSED, e -> {
            if (e.getCode() == KeyCode.ENTER || e.getCode() == KeyCode.SPACE) {
                open(m);
                e.consume();
            } else if (!desk.bench().steps().contains(m.path())) {
                desk.bench().selectStep(m.path()); // What follows is done with the step that has the focus.
            }
        });
        new StepDrag(desk, edits, node, m, perMilli, this);
    }

    private void clicked(Mark m, @Nullable MouseEvent e) {
        if (e != null && (e.isShortcutDown() || e.isShiftDown())) {
            Set<List<Integer>> all = new LinkedHashSet<>(desk.bench().steps());
            if (!all.remove(m.path())) {
                all.add(m.path());
            }
            desk.bench().selectSteps(all);
        } else {
            open(m);
        }
    }

    private void picked() {
        for (Node n : drawing.getChildren()) {
            if (n.getUserData() instanceof Mark m) {
                n.pseudoClassStateChanged(PICKED, desk.bench().steps().contains(m.path()));
            }
        }
    }

    private void open(Mark m) {
        if (Paths.step(desk.bench().chain(), m.path()).isEmpty()) {
            desk.bench().cursor(Paths.within(m.path().subList(0, m.path().size() - 1), m.path().getLast(), 0));
            return;
        }
        desk.bench().selectStep(m.path());
        Node now = drawing.lookup("#" + ScorePainter.id(m.path()));
        if (now != null) {
            stepPopover.open(m.path(), now, () -> delete(m.path()));
        }
    }

    private void delete(List<Integer> path) {
        desk.overlay().close();
        desk.bench().editChain("delete a step", c -> Paths.changed(c, path, _ -> null));
    }

    /** Moves the line that shows how far the running chain is. */
    private void playhead() {
        String button = desk.bench().button().map(b -> b.id()).orElse("");
        DeckState.Running run = desk.model().state().running(button);
        boolean runs = run != null && run.what().equals(desk.bench().part().place());
        playhead.setVisible(runs);
        if (run != null && runs) {
            double x = x((desk.model().now() - run.startNanos()) / 1e6);
            playhead.setStartX(x);
            playhead.setEndX(x);
            playhead.setStartY(0);
            playhead.setEndY(drawing.getHeight());
            playhead.setVisible(x < drawing.getWidth());
        }
    }
}
