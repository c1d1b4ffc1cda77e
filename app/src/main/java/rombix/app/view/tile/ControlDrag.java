package rombix.app.view.tile;

import java.util.List;
import java.util.Set;
import java.util.function.BiConsumer;
import javafx.geometry.Point2D;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import javafx.scene.input.TouchEvent;
import javafx.scene.input.TouchPoint;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Desk;
import rombix.core.board.Control;
import rombix.core.board.Control.Axis;
import rombix.core.twin.Scale;
import rombix.core.value.Value;

/**
 * A hand on a control, outside Build. A level never jumps to where it is touched: it goes by as far as
 * the hand does, and a tenth of that with Shift. The wheel and Ctrl with the arrow keys move it step by step.
 */
public final class ControlDrag {
    private static final double PIXELS_A_DETENT = 9;
    private static final double STEP = 1.0 / Scale.DETENTS;
    private static final double FINER = 0.1;
    private static final double PIXELS_A_NOTCH = 18;
    private static final double KEY_PIXELS = 10;
    private static final double CLICK = 4;
    private static final int ROWS_A_NOTCH = 3;
    private static final double PIXELS_A_ROW = 30;

    private final Desk desk;
    private final Tile tile;
    private final double[] places = new double[2];
    private double lastX;
    private double lastY;
    private double travelled;
    private double owed;
    private double owedUp;
    private Set<Integer> held = Set.of();
    private boolean down;
    private final BiConsumer<String, Boolean> holds;
    private int finger = -1;
    private boolean fingers;

    /** @param holds told of what is held down from now on, or no more, so that it can be let go of */
    public ControlDrag(Desk desk, Tile tile, BiConsumer<String, Boolean> holds) {
        this.holds = holds;
        this.desk = desk;
        this.tile = tile;
        tile.addEventHandler(MouseEvent.MOUSE_PRESSED, e -> {
            if (startedHere(e)) {
                pressed(e.getX(), e.getY());
            }
        });
        tile.addEventHandler(MouseEvent.MOUSE_DRAGGED, e -> {
            if (!fromTouch(e)) {
                dragged(e.getX(), e.getY(), e.isShiftDown());
            }
        });
        tile.addEventHandler(MouseEvent.MOUSE_RELEASED, e -> {
            if (startedHere(e)) {
                released(e.getX(), e.getY());
            }
        });
        tile.addEventHandler(TouchEvent.ANY, this::touched);
        tile.addEventHandler(ScrollEvent.SCROLL, this::scrolled);
        tile.addEventHandler(KeyEvent.KEY_PRESSED, this::key);
    }

    private @Nullable Control control() {
        return desk.building() ? null : tile.button().control();
    }

    /** Whether a mouse event was synthesised from a touch that is already handled. */
    private boolean fromTouch(MouseEvent e) {
        return fingers && e.isSynthesized();
    }

    private boolean startedHere(MouseEvent e) {
        return e.getButton() == MouseButton.PRIMARY && !fromTouch(e);
    }

    /** A finger on this control; others may be on others. */
    private void touched(TouchEvent e) {
        TouchPoint point = e.getTouchPoint();
        fingers = true;
        if (e.getEventType() == TouchEvent.TOUCH_PRESSED && !down) {
            finger = point.getId();
            pressed(point.getX(), point.getY());
        } else if (finger == point.getId() && e.getEventType() == TouchEvent.TOUCH_MOVED) {
            dragged(point.getX(), point.getY(), e.isShiftDown());
        } else if (finger == point.getId() && e.getEventType() == TouchEvent.TOUCH_RELEASED) {
            finger = -1;
            released(point.getX(), point.getY());
        }
    }

    private void pressed(double x, double y) {
        Control control = control();
        if (control == null) {
            return;
        }
        down = true;
        travelled = 0;
        owed = 0;
        owedUp = 0;
        lastX = x;
        lastY = y;
        take(control);
        held = Set.of();
        switch (control) {
            case Control.Row _ -> tile.chosen(x, y);
            case Control.Items _ -> tile.chosen(x, y);
            case Control.KeyPad _ -> hold(tile.chosen(x, y));
            case Control.PointerField p when p.holds() -> {
                holds.accept(tile.button().id(), true);
                desk.port().press(tile.button().id());
            }
            default -> {
            }
        }
    }

    /** These ways of a key pad are held now. */
    private void hold(Set<Integer> ways) {
        if (!ways.equals(held)) {
            held = ways;
            tile.under(ways);
            holds.accept(tile.button().id(), !ways.isEmpty());
            desk.port().ways(tile.button().id(), ways);
        }
    }

    private void stroke(double across, double up) {
        if (across != 0 || up != 0) {
            desk.port().stroke(tile.button().id(), across, up);
        }
    }

    /**
     * Starts from where the levels are, or from where the hand just left them, which the gear may not have told yet. One
     * that is not known starts at the low end; on a pad, in the middle.
     */
    private void take(Control control) {
        for (int i = 0; i < control.axes().size(); i++) {
            double held = tile.held(i);
            places[i] = Double.isNaN(held)
                    ? place(control.axes().get(i), control instanceof Control.Pad ? 0.5 : 0)
                    : held;
        }
    }

    private double place(Axis axis, double unknown) {
        Value now = desk.model().state().reading(axis.gear(), axis.reading());
        return desk.words().scale(axis).map(s -> now == null ? unknown : s.position(now.asNumber())).orElse(unknown);
    }

    private void dragged(double x, double y, boolean fine) {
        Control control = control();
        if (!down || control == null) {
            return;
        }
        double dx = x - lastX;
        double dy = lastY - y;
        lastX = x;
        lastY = y;
        travelled += Math.abs(dx) + Math.abs(dy);
        if (travelled < CLICK) {
            return;
        }
        Point2D span = tile.controlSpan();
        double rate = fine ? FINER : 1;
        switch (control) {
            case Control.Dial _ -> {
                owed += (dx + dy) / PIXELS_A_DETENT;
                int detents = (int) owed;
                owed -= detents;
                turn(detents, fine);
            }
            case Control.Fader f -> move(List.of(f.level()), tile.controlAlong()
                    ? dx / span.getX() * rate
                    : dy / span.getY() * rate, 0);
            case Control.Pad p -> move(p.axes(), dx / span.getX() * rate, dy / span.getY() * rate);
            case Control.Row _ -> tile.chosen(x, y);
            case Control.Items _ -> scroll(dy);
            case Control.KeyPad _ -> hold(tile.chosen(x, y));
            case Control.PointerField _ -> stroke(dx * rate, dy * rate);
            case Control.WheelStrip s -> roll(s, dx, dy, fine);
        }
    }

    /** A strip goes by whole notches; what is over counts for the next. */
    private void roll(Control.WheelStrip strip, double dx, double dy, boolean fine) {
        owed += strip.both() || tile.controlAlong() ? dx / PIXELS_A_NOTCH : 0;
        owedUp += strip.both() || !tile.controlAlong() ? dy / PIXELS_A_NOTCH : 0;
        int across = (int) owed;
        int up = (int) owedUp;
        owed -= across;
        owedUp -= up;
        if (strip.both()) {
            stroke(across, up);
        } else {
            turn(across + up, fine);
        }
    }

    /** A hand that slides over a list takes it along. */
    private void scroll(double up) {
        owed += up / PIXELS_A_ROW;
        int rows = (int) owed;
        owed -= rows;
        if (rows != 0) {
            tile.under(Set.of());
            tile.scroll(rows);
        }
    }

    private void turn(int detents, boolean fine) {
        desk.port().turn(tile.button().id(), detents, fine);
    }

    private void move(List<Axis> axes, double first, double second) {
        double[] by = {first, second};
        for (int i = 0; i < axes.size(); i++) {
            Scale scale = desk.words().scale(axes.get(i)).orElse(null);
            if (scale != null && by[i] != 0) {
                places[i] = Math.clamp(places[i] + by[i], 0, 1);
                tile.inHand(i, places[i]);
                desk.port().move(tile.button().id(), i, scale.setting(places[i]));
            }
        }
    }

    private void released(double x, double y) {
        Control control = control();
        if (!down) {
            return;
        }
        down = false;
        tile.outOfHand();
        switch (control) {
            case Control.Row _ -> {
                tile.chosen(x, y).forEach(state -> desk.port().choose(tile.button().id(), state));
                tile.under(Set.of());
            }
            case Control.Items _ -> {
                if (travelled < CLICK) { // A hand that slid only looked.
                    tile.chosen(x, y).forEach(item -> desk.port().choose(tile.button().id(), item));
                }
                tile.under(Set.of());
            }
            case Control.KeyPad _ -> hold(Set.of());
            case Control.PointerField p when p.holds() -> {
                desk.port().release(tile.button().id());
                holds.accept(tile.button().id(), false);
            }
            case Control.Dial _,Control.PointerField _ -> {
                if (travelled < CLICK) {
                    desk.port().press(tile.button().id());
                    desk.port().release(tile.button().id());
                }
            }
            case null, default -> {
            }
        }
    }

    private void scrolled(ScrollEvent e) {
        Control control = control();
        double notches = e.getDeltaY() + e.getDeltaX(); // With Shift, some systems scroll along.
        if (control != null && notches != 0 && !(control instanceof Control.KeyPad)) {
            if (control instanceof Control.Items) { // The wheel looks; it goes to none.
                tile.scroll(notches > 0 ? -ROWS_A_NOTCH : ROWS_A_NOTCH);
                e.consume();
                return;
            }
            boolean upright = control instanceof Control.WheelStrip || control instanceof Control.PointerField;
            step(control, upright ? 1 : 0, notches > 0 ? 1 : -1, e.isShiftDown());
            e.consume();
        }
    }

    private void step(Control control, int axis, int by, boolean fine) {
        switch (control) {
            case Control.Dial _ -> turn(by, fine);
            case Control.Row _ -> turn(axis == 1 ? -by : by, fine);
            case Control.Items _ -> turn(axis == 1 ? -by : by, fine);
            case Control.WheelStrip s when s.both() -> stroke(axis == 0 ? by : 0, axis == 1 ? by : 0);
            case Control.WheelStrip _ -> turn(by, fine);
            case Control.PointerField _ -> stroke(axis == 0 ? by * (fine ? 1 : KEY_PIXELS) : 0, axis == 1
                    ? by * (fine ? 1 : KEY_PIXELS)
                    : 0);
            case Control.KeyPad p -> {
                hold(p.toward(axis == 0 ? by : 0, axis == 1 ? by : 0));
                hold(Set.of());
            }
            case Control.Fader _,Control.Pad _ -> level(control, axis, by, fine);
        }
    }

    private void level(Control control, int axis, int by, boolean fine) {
        if (!down) {
            take(control);
        }
        double way = by * STEP * (fine ? FINER : 1);
        move(control.axes(), axis == 0 ? way : 0, axis == 1 ? way : 0);
        if (!down) {
            tile.outOfHand();
        }
    }

    private void key(KeyEvent e) {
        Control control = control();
        if (control == null || !e.isControlDown() || !e.getCode().isArrowKey()) {
            return;
        }
        boolean upright = switch (e.getCode()) {
            case UP, DOWN -> true;
            default -> false;
        };
        int by = switch (e.getCode()) {
            case UP, RIGHT -> 1;
            default -> -1;
        };
        step(control, upright && !(control instanceof Control.Dial || control instanceof Control.Fader) ? 1 : 0, by,
                e.isShiftDown());
        e.consume();
    }
}
