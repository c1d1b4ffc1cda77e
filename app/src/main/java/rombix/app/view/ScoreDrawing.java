package rombix.app.view;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import javafx.application.Platform;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.AccessibleRole;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.shape.Line;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.Paths;
import rombix.app.edit.Score;
import rombix.app.edit.Score.Mark;
import rombix.app.edit.StepEdits;
import rombix.core.card.Figures;
import rombix.core.chain.Chain;
import rombix.core.chain.Step;
import rombix.core.engine.Status.Phase;

/** The drawing of a chain against time: a ruler, the steps that hold others as brackets, and a lane for each gear. */
final class ScoreDrawing extends ScrollPane {
    private static final PseudoClass PICKED = PseudoClass.getPseudoClass("picked");
    private static final double LANE_NAMES = 106;
    private static final double RULER = 20;
    private static final double WAITS = 18;
    private static final double ROW = 24;
    private static final double BRACKET_ROW = 21;
    private static final double LANE_PAD = 5;
    private static final double LETTER = 6.6;
    private static final double[] TICKS = {0.1, 0.2, 0.5, 1, 2, 5, 10, 30, 60, 300, 600, 1800, 3600, 7200, 21600};
    private static final double ZOOM_STEP = 1.25;

    private final Desk desk;
    private final StepPopover stepPopover;
    private final StepEdits edits;
    private final Pane drawing = new Pane();
    private final Line playhead = new Line();
    private double zoom = 1;
    private double perMilli = 0.1;
    private @Nullable Object drawn;

    /** What the drawing depends on: it is made anew when that changes. */
    private record Drawn(Chain chain, Object rig, double width, double zoom, Set<String> off,
            DeckModel.@Nullable LastRun last, int trouble) {
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
        desk.bench().watch(this::draw);
        desk.model().watch(c -> {
            if (!c.gear().isEmpty() || c.runs()) {
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
            case PLUS, ADD, EQUALS -> zoom(zoom * ZOOM_STEP);
            case MINUS, SUBTRACT -> zoom(zoom / ZOOM_STEP);
            case DIGIT0, NUMPAD0 -> zoom(1);
            case DELETE, BACK_SPACE -> edits.delete();
            case LEFT, RIGHT -> step(e.getCode() == KeyCode.RIGHT ? 1 : -1, e.isShiftDown());
            case O -> edits.switchOff();
            default -> {
                if (!e.isShortcutDown() || !copying(e.getCode())) {
                    return;
                }
            }
        }
        e.consume();
    }

    private boolean copying(KeyCode code) {
        switch (code) {
            case C -> edits.copy();
            case X -> edits.cut();
            case V -> edits.paste();
            case D -> edits.duplicate();
            case A -> {
                List<List<Integer>> all = new ArrayList<>();
                for (int i = 0; i < desk.bench().chain().steps().size(); i++) {
                    all.add(List.of(i));
                }
                desk.bench().selectSteps(all);
            }
            default -> {
                return false;
            }
        }
        return true;
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
            Node node = drawing.lookup("#" + id(marks.get(next).path()));
            if (node != null) {
                node.requestFocus();
            }
        }
    }

    private Set<String> off() {
        Set<String> off = new LinkedHashSet<>();
        for (String gear : desk.bench().rig().twins().keySet()) {
            if (desk.model().status(gear).phase() == Phase.OFF) {
                off.add(gear);
            }
        }
        return off;
    }

    private DeckModel.@Nullable LastRun lastRun() {
        DeckModel.LastRun last = desk.bench().button().map(b -> desk.model().lastRun(b.id())).orElse(null);
        return last != null && last.what().equals(desk.bench().part().place()) ? last : null;
    }

    private void draw() {
        if (!desk.building()) {
            return;
        }
        double width = Math.max(400, getViewportBounds().getWidth());
        DeckModel.LastRun last = lastRun();
        Drawn now = new Drawn(desk.bench().chain(), desk.bench().rig().twins(), width, zoom, off(), last, last == null
                ? 0
                : last.trouble().size() + last.picked().hashCode());
        if (now.equals(drawn)) {
            picked();
            return;
        }
        drawn = now;
        List<Node> nodes = new ArrayList<>();
        if (desk.bench().hasChain()) {
            draw(now, last, nodes);
        }
        drawing.getChildren().setAll(nodes);
        drawing.getChildren().add(playhead);
        playhead.setVisible(false);
        picked();
    }

    private void draw(Drawn now, DeckModel.@Nullable LastRun last, List<Node> nodes) {
        double room = now.width() - LANE_NAMES - 40;
        double length = Score.length(now.chain(), desk.bench().rig());
        perMilli = zoom * room / Math.max(1000, length * 1.25 + 250);
        Score score = Score.of(now.chain(), desk.bench().rig(), g -> desk.model().readings(g),
                text -> (text.length() * LETTER + 30) / perMilli);
        double width = Math.max(now.width(), LANE_NAMES + 40 + zoom * room);
        double y = RULER + (score.waits().isEmpty() ? 4 : WAITS);
        for (Mark m : score.brackets()) {
            nodes.add(bracket(m, y + m.row() * BRACKET_ROW));
        }
        y += score.bracketRows() * BRACKET_ROW + (score.bracketRows() > 0 ? 3 : 0);
        double bottom = Math.max(lanes(score, now, last, width, y, nodes), getViewportBounds().getHeight());
        ruler(width, bottom, nodes);
        waits(score, bottom, nodes);
        drawing.setPrefSize(width, Math.max(bottom, RULER + 10));
        drawing.setMinHeight(bottom);
    }

    private double x(double millis) {
        return LANE_NAMES + millis * perMilli;
    }

    private void ruler(double width, double bottom, List<Node> nodes) {
        double tick = TICKS[TICKS.length - 1];
        for (double t : TICKS) {
            if (t * 1000 * perMilli >= 64) {
                tick = t;
                break;
            }
        }
        for (int i = 0; x(i * tick * 1000) < width - 30; i++) {
            double x = Math.rint(x(i * tick * 1000)) + 0.5;
            Line line = new Line(x, 0, x, i == 0 ? bottom : RULER - 4);
            line.getStyleClass().add("ruler-line");
            line.setMouseTransparent(true);
            Label text = new Label(Figures.span(i * tick * 1000));
            text.getStyleClass().add("ruler-text");
            text.relocate(x + 5, 0);
            nodes.add(0, line);
            nodes.add(text);
        }
    }

    private double lanes(Score score, Drawn now, DeckModel.@Nullable LastRun last, double width, double top,
            List<Node> nodes) {
        double y = top;
        for (Score.Lane lane : score.lanes()) {
            double height = lane.rows() * ROW + 2 * LANE_PAD;
            boolean off = now.off().contains(lane.gear());
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
                nodes.add(mark(m, off, last, y + LANE_PAD + m.row() * ROW));
            }
            y += height;
        }
        return y;
    }

    private static String place(DeckModel.LastRun last, List<Integer> path) {
        StringBuilder place = new StringBuilder(last.what());
        for (int i = 0; i < path.size(); i++) {
            int p = path.get(i);
            place.append(p >= 0 ? "/" + p : i % 2 == 0 ? "/always/" + (-1 - p) : "/instead");
        }
        return place.toString();
    }

    private Node mark(Mark m, boolean off, DeckModel.@Nullable LastRun last, double y) {
        String trouble = last == null ? null : last.trouble().get(place(last, m.path()));
        String text = m.text() + (trouble == null ? "" : " · " + (trouble.endsWith("late") ? trouble : "failed"));
        Region node;
        if (m.lengthMillis() > 0) {
            Label label = new Label(text);
            label.setMinWidth(Region.USE_PREF_SIZE);
            StackPane bar = new StackPane();
            bar.getStyleClass().add("fade-bar");
            double w = Math.max(6, m.lengthMillis() * perMilli);
            bar.setMinSize(w, ROW - 4);
            bar.setPrefSize(w, ROW - 4);
            bar.setMaxSize(w, ROW - 4);
            HBox box = new HBox(bar, label);
            if (w > text.length() * LETTER + 12) {
                bar.getChildren().add(label);
                StackPane.setAlignment(label, Pos.CENTER_LEFT);
                box.getChildren().setAll(bar);
            }
            node = box;
            node.relocate(Math.rint(x(m.startMillis())), y + 1);
        } else {
            node = new HBox(Shapes.rhombus(13, "diamond"), new Label(text));
            node.relocate(Math.rint(x(m.startMillis()) - 6), y);
        }
        node.getStyleClass().add("mark-step");
        if (off || trouble != null && !trouble.endsWith("late")) {
            node.getStyleClass().add("off");
        }
        if (m.step().how().off()) {
            node.getStyleClass().add("switched-off");
        }
        works(node, m, trouble);
        return node;
    }

    private Node bracket(Mark m, double y) {
        Label label = new Label(m.text());
        label.setMinWidth(Region.USE_PREF_SIZE);
        HBox box = new HBox(label);
        box.setAlignment(Pos.CENTER_LEFT);
        box.getStyleClass().addAll("bracket", m.step() instanceof Step.Wait ? "bracket-wait" : "bracket-chain");
        if (m.step().how().off()) {
            box.getStyleClass().add("switched-off");
        }
        double w = Math.max(m.lengthMillis() * perMilli, 24);
        box.setMinWidth(w);
        box.setPrefHeight(BRACKET_ROW - 3);
        box.setMaxHeight(BRACKET_ROW - 3);
        box.relocate(Math.rint(x(m.startMillis())), y);
        works(box, m, null);
        return box;
    }

    private void waits(Score score, double bottom, List<Node> nodes) {
        for (Mark m : score.waits()) {
            Label text = new Label(m.text());
            StackPane band = new StackPane(text);
            StackPane.setAlignment(text, Pos.TOP_CENTER);
            band.getStyleClass().add("wait-band");
            double w = Math.max(10, m.lengthMillis() * perMilli - 16);
            text.setVisible(w > m.text().length() * 5.5);
            text.setMinWidth(Region.USE_PREF_SIZE);
            band.resizeRelocate(x(m.startMillis()) + 8, RULER, w, bottom - RULER - 1);
            band.setPrefSize(w, bottom - RULER - 1);
            band.setMinWidth(0);
            works(band, m, null);
            nodes.add(0, band);
        }
    }

    private static String id(List<Integer> path) {
        return "step-" + String.join("-", path.stream().map(p -> p < 0 ? "a" + (-1 - p) : String.valueOf(p)).toList());
    }

    private void works(Region node, Mark m, @Nullable String trouble) {
        node.setFocusTraversable(true);
        node.setAccessibleRole(AccessibleRole.BUTTON);
        node.setAccessibleText(m.text() + " at " + Figures.span(m.startMillis()) + (trouble == null
                ? ""
                : ", " + trouble));
        node.setId(id(m.path()));
        node.setUserData(m);
        String note = m.step().how().note();
        String manner = MannerForm.summary(m.step().how());
        if (trouble != null || note != null || !manner.isEmpty()) {
            Tooltip.install(node, new Tooltip(String.join("\n", java.util.stream.Stream.of(trouble, note, manner)
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
        new StepDrag(desk, edits, node, m, perMilli);
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
        Node now = drawing.lookup("#" + id(m.path()));
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
        DeckModel.Running run = desk.model().running(button);
        boolean runs = run != null && run.what().equals(desk.bench().part().place());
        playhead.setVisible(runs);
        if (run != null && runs) {
            double x = x((System.nanoTime() - run.startNanos()) / 1e6);
            playhead.setStartX(x);
            playhead.setEndX(x);
            playhead.setStartY(0);
            playhead.setEndY(drawing.getHeight());
            playhead.setVisible(x < drawing.getWidth());
        }
    }
}
