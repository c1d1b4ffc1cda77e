package rombix.app.view.tile;

import java.util.List;
import javafx.geometry.Point2D;
import javafx.scene.layout.Region;
import javafx.scene.shape.Arc;
import javafx.scene.shape.ArcType;
import javafx.scene.shape.Line;
import javafx.scene.shape.LineTo;
import javafx.scene.shape.MoveTo;
import javafx.scene.shape.Path;
import javafx.scene.shape.Polygon;
import javafx.scene.shape.Rectangle;
import rombix.app.view.common.Shapes;
import rombix.core.board.Control;

/**
 * How a dial, a fader or a pad looks on its tile: the way with its ticks, and a rhombus where the level is. Places on the
 * way go from 0 to 1; where one is not known no rhombus is shown.
 */
final class ControlLook extends Region {
    private static final int TICKS = 8;
    private static final int RIDGES = 7;
    private static final double SWEEP = 270;
    private static final double GRIP = 20;

    private final Control control;
    private final Rectangle field = new Rectangle();
    private final Arc round = new Arc();
    private final Arc done = new Arc();
    private final Line way = new Line();
    private final Line part = new Line();
    private final Path ticks = new Path();
    private final Polygon grip = Shapes.rhombus(GRIP, "control-grip");
    private boolean along;
    private double[] places = {Double.NaN, Double.NaN};

    ControlLook(Control control) {
        this.control = control;
        field.getStyleClass().add("control-field");
        round.getStyleClass().add("control-way");
        done.getStyleClass().add("control-part");
        way.getStyleClass().add("control-way");
        part.getStyleClass().add("control-part");
        ticks.getStyleClass().add("control-ticks");
        round.setType(ArcType.OPEN);
        done.setType(ArcType.OPEN);
        getChildren().setAll(switch (control) {
            case Control.Dial _ -> List.of(ticks, round, done, grip);
            case Control.Fader _ -> List.of(ticks, way, part, grip);
            case Control.Pad _ -> List.of(field, ticks, grip);
            case Control.PointerField _ -> List.of(field, ticks);
            case Control.WheelStrip _ -> List.of(field, ticks);
            case Control.Row _,Control.KeyPad _,Control.Items _ -> List.of();
        });
    }

    Control control() {
        return control;
    }

    /** Shows where the levels are, from 0 to 1. */
    void show(double[] now) {
        if (!java.util.Arrays.equals(now, places)) {
            places = now.clone();
            requestLayout();
        }
    }

    /** How far the hand has to go for the whole way, across and up, in pixels. */
    Point2D span() {
        return new Point2D(Math.max(40, getWidth() - GRIP), Math.max(40, getHeight() - GRIP));
    }

    /** Whether a fader lies along. */
    boolean along() {
        return along;
    }

    /** Lays a fader along, or upright. */
    void along(boolean on) {
        along = on;
    }

    @Override
    protected void layoutChildren() {
        ticks.getElements().clear();
        grip.setVisible(!Double.isNaN(places[0]));
        switch (control) {
            case Control.Dial _ -> dial();
            case Control.Fader _ -> fader();
            case Control.Pad _ -> pad();
            case Control.PointerField _ -> surface();
            case Control.WheelStrip s -> strip(s.both());
            case Control.Row _,Control.KeyPad _,Control.Items _ -> {
            }
        }
    }

    private void grip(double x, double y) {
        grip.relocate(Math.rint(x - GRIP / 2), Math.rint(y - GRIP / 2));
    }

    private void tick(double x1, double y1, double x2, double y2) {
        ticks.getElements().addAll(new MoveTo(Math.rint(x1) + 0.5, Math.rint(y1) + 0.5), new LineTo(Math.rint(x2) + 0.5,
                Math.rint(y2) + 0.5));
    }

    private void fader() {
        double length = (along ? getWidth() : getHeight()) - GRIP;
        double middle = Math.rint((along ? getHeight() : getWidth()) / 2);
        double reach = Math.min(middle, 16);
        double at = Double.isNaN(places[0]) ? 0 : places[0];
        for (int i = 0; i <= TICKS; i++) {
            double t = GRIP / 2 + length * i / TICKS;
            double r = i % (TICKS / 2) == 0 ? reach : reach * 0.6;
            if (along) {
                tick(t, middle - r, t, middle + r);
            } else {
                tick(middle - r, t, middle + r, t);
            }
        }
        if (along) {
            line(way, GRIP / 2, middle, GRIP / 2 + length, middle);
            line(part, GRIP / 2, middle, GRIP / 2 + length * at, middle);
            grip(GRIP / 2 + length * at, middle);
        } else {
            line(way, middle, GRIP / 2, middle, GRIP / 2 + length);
            line(part, middle, GRIP / 2 + length, middle, GRIP / 2 + length * (1 - at));
            grip(middle, GRIP / 2 + length * (1 - at));
        }
        part.setVisible(at > 0);
    }

    private static void line(Line line, double x1, double y1, double x2, double y2) {
        line.setStartX(x1);
        line.setStartY(y1);
        line.setEndX(x2);
        line.setEndY(y2);
    }

    private void dial() {
        double r = Math.max(8, Math.min(getWidth(), getHeight()) / 2 - GRIP / 2);
        double x = getWidth() / 2;
        double y = getHeight() / 2;
        double start = 90 + SWEEP / 2;
        for (Arc a : new Arc[]{round, done}) {
            a.setCenterX(x);
            a.setCenterY(y);
            a.setRadiusX(r);
            a.setRadiusY(r);
            a.setStartAngle(start);
        }
        double at = Double.isNaN(places[0]) ? 0 : places[0];
        round.setLength(-SWEEP);
        done.setLength(-SWEEP * at);
        double angle = Math.toRadians(start - SWEEP * at);
        grip(x + r * Math.cos(angle), y - r * Math.sin(angle));
    }

    /** A surface: its corners, and a cross where a tap lands. */
    private void surface() {
        double w = getWidth();
        double h = getHeight();
        field.setWidth(w);
        field.setHeight(h);
        double arm = Math.min(14, Math.min(w, h) / 4);
        for (double x : new double[]{6, w - 6}) {
            for (double y : new double[]{6, h - 6}) {
                tick(x, y, x + Math.copySign(arm, w / 2 - x), y);
                tick(x, y, x, y + Math.copySign(arm, h / 2 - y));
            }
        }
        tick(w / 2 - arm / 2, h / 2, w / 2 + arm / 2, h / 2);
        tick(w / 2, h / 2 - arm / 2, w / 2, h / 2 + arm / 2);
    }

    /** A wheel seen from its edge: ridges, closer at the ends, and an arrow at each end. */
    private void strip(boolean both) {
        double w = getWidth();
        double h = getHeight();
        field.setWidth(w);
        field.setHeight(h);
        ridges(w, h, along);
        if (both) {
            ridges(w, h, !along);
        }
    }

    private void ridges(double w, double h, boolean across) {
        double length = across ? w : h;
        double middle = (across ? h : w) / 2;
        double reach = Math.min(middle * 0.5, 18);
        for (int i = -RIDGES; i <= RIDGES; i++) {
            double t = length / 2 + Math.sin(i * Math.PI / 2 / (RIDGES + 1)) * (length / 2 - 12);
            segment(across, t, middle - reach, t, middle + reach);
        }
        for (double end : new double[]{5, length - 5}) {
            double back = Math.copySign(5, length / 2 - end);
            segment(across, end + back, middle - 5, end, middle);
            segment(across, end, middle, end + back, middle + 5);
        }
    }

    private void segment(boolean across, double a1, double b1, double a2, double b2) {
        if (across) {
            tick(a1, b1, a2, b2);
        } else {
            tick(b1, a1, b2, a2);
        }
    }

    private void pad() {
        double w = getWidth();
        double h = getHeight();
        field.setWidth(w);
        field.setHeight(h);
        tick(w / 2, 4, w / 2, h - 4);
        tick(4, h / 2, w - 4, h / 2);
        double up = Double.isNaN(places[1]) ? 0.5 : places[1];
        grip(GRIP / 2 + (w - GRIP) * (Double.isNaN(places[0]) ? 0.5 : places[0]), GRIP / 2 + (h - GRIP) * (1 - up));
        grip.setVisible(!Double.isNaN(places[0]) || !Double.isNaN(places[1]));
    }
}
