package rombix.app.view.score;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.shape.Line;
import javafx.scene.shape.Polygon;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.Score.Mark;
import rombix.app.edit.Score;
import rombix.app.view.common.Shapes;
import rombix.core.chain.Step;
import rombix.core.twin.Figures;
import rombix.running.state.DeckState;

/** Makes the nodes of a score: a ruler, waits as bands, steps that hold others as brackets, and a lane for each gear. */
final class ScorePainter {
    static final double LANE_NAMES = 106;
    private static final double RULER = 20;
    private static final double WAITS = 18;
    private static final double ROW = 24;
    private static final double BRACKET_ROW = 21;
    private static final double LANE_PAD = 5;
    private static final double LETTER = 6.6;
    private static final double[] TICKS = {0.1, 0.2, 0.5, 1, 2, 5, 10, 30, 60, 300, 600, 1800, 3600, 7200, 21600};

    private final double perMilli;
    private final Set<String> off;
    private final DeckState.@Nullable LastRun last;
    private final Works works;
    private final List<Node> nodes = new ArrayList<>();
    private final List<LaneBand> bands = new ArrayList<>();

    /** Gives a step's node what it can do. */
    interface Works {
        void on(Region node, Mark mark, @Nullable String trouble);
    }

    /** Where a gear's lane lies in the drawing, from top to bottom. */
    record LaneBand(String gear, double top, double bottom) {
    }

    /** What was painted, and how high it is. */
    record Painted(List<Node> nodes, List<LaneBand> bands, double width, double bottom) {
    }

    /**
     * @param perMilli how many pixels a millisecond takes
     * @param off the gear that cannot be reached
     * @param last what the chain last did
     */
    ScorePainter(double perMilli, Set<String> off, DeckState.@Nullable LastRun last, Works works) {
        this.perMilli = perMilli;
        this.off = off;
        this.last = last;
        this.works = works;
    }

    /** How many milliseconds of the drawing a step's text takes. */
    static double room(String text, double perMilli) {
        return (text.length() * LETTER + 30) / perMilli;
    }

    Painted paint(Score score, double width, double height) {
        double y = RULER + (score.waits().isEmpty() ? 4 : WAITS);
        for (Mark m : score.brackets()) {
            nodes.add(bracket(m, y + m.row() * BRACKET_ROW));
        }
        y += score.bracketRows() * BRACKET_ROW + (score.bracketRows() > 0 ? 3 : 0);
        double bottom = Math.max(lanes(score, width, y), height);
        ruler(width, bottom);
        waits(score, bottom);
        return new Painted(nodes, bands, width, Math.max(bottom, RULER + 10));
    }

    private double x(double millis) {
        return LANE_NAMES + millis * perMilli;
    }

    private void ruler(double width, double bottom) {
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

    private double lanes(Score score, double width, double top) {
        double y = top;
        for (Score.Lane lane : score.lanes()) {
            double height = lane.rows() * ROW + 2 * LANE_PAD;
            boolean gone = off.contains(lane.gear());
            Label name = new Label(gone ? lane.title() + " · off" : lane.title());
            name.getStyleClass().add("lane-name");
            if (gone) {
                name.getStyleClass().add("off");
            }
            name.relocate(14, y + LANE_PAD + 3);
            Line line = new Line(0, Math.rint(y + height) + 0.5, width, Math.rint(y + height) + 0.5);
            line.getStyleClass().add("lane-line");
            nodes.add(line);
            nodes.add(name);
            for (Mark m : lane.marks()) {
                nodes.add(mark(m, gone, y + LANE_PAD + m.row() * ROW));
            }
            bands.add(new LaneBand(lane.gear(), y, y + height));
            y += height;
        }
        return y;
    }

    private static String place(DeckState.LastRun last, List<Integer> path) {
        StringBuilder place = new StringBuilder(last.what());
        for (int i = 0; i < path.size(); i++) {
            int p = path.get(i);
            place.append(p >= 0 ? "/" + p : i % 2 == 0 ? "/always/" + (-1 - p) : "/instead");
        }
        return place.toString();
    }

    private Node mark(Mark m, boolean gone, double y) {
        String trouble = last == null ? null : last.trouble().get(place(last, m.path()));
        String text = m.text() + (trouble == null ? "" : " · " + (trouble.endsWith("late") ? trouble : "failed"));
        Region node;
        if (m.lengthMillis() > 0) {
            Label label = new Label(text);
            label.setMinWidth(Region.USE_PREF_SIZE);
            StackPane bar = new StackPane();
            bar.getStyleClass().add("fade-bar");
            double w = Math.max(6, m.lengthMillis() * perMilli);
            if (!m.outline().isEmpty()) {
                bar.getStyleClass().add("clip-bar");
                bar.getChildren().add(outline(m.outline(), w, ROW - 6));
            }
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
        if (gone || trouble != null && !trouble.endsWith("late")) {
            node.getStyleClass().add("off");
        }
        if (m.step().how().off()) {
            node.getStyleClass().add("switched-off");
        }
        node.setCache(true);
        works.on(node, m, trouble);
        return node;
    }

    /** How loud a clip is along its bar, drawn from the middle both ways. */
    private static Polygon outline(String parts, double width, double height) {
        Polygon shape = new Polygon();
        List<Double> points = shape.getPoints();
        double step = width / parts.length();
        for (int way = 1; way >= -1; way -= 2) {
            for (int i = 0; i < parts.length(); i++) {
                int at = way > 0 ? i : parts.length() - 1 - i;
                double half = Math.max(0.5, Character.digit(parts.charAt(at), 16) / 15.0 * height / 2);
                points.addAll(List.of((at + 0.5) * step, height / 2 - way * half));
            }
        }
        shape.getStyleClass().add("clip-outline");
        shape.setMouseTransparent(true);
        return shape;
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
        works.on(box, m, null);
        return box;
    }

    private void waits(Score score, double bottom) {
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
            band.setCache(true);
            works.on(band, m, null);
            nodes.add(0, band);
        }
    }

    static String id(List<Integer> path) {
        return "step-" + String.join("-", path.stream().map(p -> p < 0 ? "a" + (-1 - p) : String.valueOf(p)).toList());
    }

}
