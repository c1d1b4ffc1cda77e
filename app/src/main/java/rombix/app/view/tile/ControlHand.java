package rombix.app.view.tile;

import java.util.List;
import javafx.geometry.Point2D;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Desk;
import rombix.core.board.Control;
import rombix.core.board.Control.Axis;
import rombix.core.card.Scale;
import rombix.core.engine.Event;
import rombix.core.value.Value;

/**
 * A hand on a dial, a fader, a pad or a row, outside Build. A level never jumps to where it is touched: it goes by as far as
 * the hand does, and a tenth of that with Shift. The wheel and Ctrl with the arrow keys move it step by step.
 */
public final class ControlHand {
    private static final double PIXELS_A_DETENT = 9;
    private static final double STEP = 1.0 / Scale.DETENTS;
    private static final double FINER = 0.1;
    private static final double CLICK = 4;

    private final Desk desk;
    private final Tile tile;
    private final double[] places = new double[2];
    private double lastX;
    private double lastY;
    private double travelled;
    private double owed;
    private boolean down;

    public ControlHand(Desk desk, Tile tile) {
        this.desk = desk;
        this.tile = tile;
        tile.addEventHandler(MouseEvent.MOUSE_PRESSED, this::pressed);
        tile.addEventHandler(MouseEvent.MOUSE_DRAGGED, this::dragged);
        tile.addEventHandler(MouseEvent.MOUSE_RELEASED, this::released);
        tile.addEventHandler(ScrollEvent.SCROLL, this::scrolled);
        tile.addEventHandler(KeyEvent.KEY_PRESSED, this::key);
    }

    private @Nullable Control control() {
        return desk.building() ? null : tile.button().control();
    }

    private void pressed(MouseEvent e) {
        Control control = control();
        if (control == null || e.getButton() != MouseButton.PRIMARY) {
            return;
        }
        down = true;
        travelled = 0;
        owed = 0;
        lastX = e.getX();
        lastY = e.getY();
        take(control);
        tile.choice(e.getX(), e.getY());
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
        Value now = desk.model().reading(axis.gear(), axis.reading());
        return desk.words().scale(axis).map(s -> now == null ? unknown : s.position(now.asNumber())).orElse(unknown);
    }

    private void dragged(MouseEvent e) {
        Control control = control();
        if (!down || control == null) {
            return;
        }
        double dx = e.getX() - lastX;
        double dy = lastY - e.getY();
        lastX = e.getX();
        lastY = e.getY();
        travelled += Math.abs(dx) + Math.abs(dy);
        if (travelled < CLICK) {
            return;
        }
        Point2D span = tile.controlSpan();
        double rate = e.isShiftDown() ? FINER : 1;
        switch (control) {
            case Control.Dial _ -> {
                owed += (dx + dy) / PIXELS_A_DETENT;
                int detents = (int) owed;
                owed -= detents;
                turn(detents, e.isShiftDown());
            }
            case Control.Fader f -> move(List.of(f.level()), tile.controlAlong()
                    ? dx / span.getX() * rate
                    : dy / span.getY() * rate, 0);
            case Control.Pad p -> move(p.axes(), dx / span.getX() * rate, dy / span.getY() * rate);
            case Control.Row _ -> tile.choice(e.getX(), e.getY());
        }
    }

    private void turn(int detents, boolean fine) {
        if (detents != 0) {
            desk.post().accept(new Event.Turned(tile.button().id(), detents, fine, "mouse"));
        }
    }

    private void move(List<Axis> axes, double first, double second) {
        double[] by = {first, second};
        for (int i = 0; i < axes.size(); i++) {
            Scale scale = desk.words().scale(axes.get(i)).orElse(null);
            if (scale != null && by[i] != 0) {
                places[i] = Math.clamp(places[i] + by[i], 0, 1);
                tile.inHand(i, places[i]);
                desk.post().accept(new Event.Moved(tile.button().id(), i, scale.setting(places[i]), "mouse"));
            }
        }
    }

    private void released(MouseEvent e) {
        Control control = control();
        if (!down || e.getButton() != MouseButton.PRIMARY) {
            return;
        }
        down = false;
        tile.outOfHand();
        if (control instanceof Control.Row) {
            int chosen = tile.choice(e.getX(), e.getY());
            tile.choice(-1, -1);
            if (chosen >= 0) {
                desk.post().accept(new Event.Chosen(tile.button().id(), chosen, "mouse"));
            }
        }
        if (control instanceof Control.Dial && travelled < CLICK) {
            desk.press(tile.button().id(), "mouse");
            desk.release(tile.button().id(), "mouse");
        }
    }

    private void scrolled(ScrollEvent e) {
        Control control = control();
        double notches = e.getDeltaY() + e.getDeltaX(); // With Shift, some systems scroll along.
        if (control != null && notches != 0) {
            step(control, 0, notches > 0 ? 1 : -1, e.isShiftDown());
            e.consume();
        }
    }

    private void step(Control control, int axis, int by, boolean fine) {
        if (control instanceof Control.Dial || control instanceof Control.Row) {
            turn(control instanceof Control.Row && axis == 1 ? -by : by, fine);
            return;
        }
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
