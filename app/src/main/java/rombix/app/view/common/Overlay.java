package rombix.app.view.common;

import java.util.function.DoubleSupplier;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import org.jspecify.annotations.Nullable;

/**
 * The popover over the window: one at a time, kept inside the window whatever its anchor. A click outside or
 * Escape closes it.
 */
public final class Overlay extends Pane {
    private static final double GAP = 6;
    private static final double WHOLE = 0.8;
    private @Nullable Region open;
    private @Nullable Node anchor;
    private @Nullable Runnable closed;
    /** Where the popover's middle is to be; null where it stands by its anchor. */
    private @Nullable Point2D point;
    private DoubleSupplier head = () -> 0;
    private DoubleSupplier foot = () -> 0;
    /** Where the anchor was: an edit may have put another node in its place. */
    private @Nullable Bounds lastAnchor;

    private long shieldedUntil = System.nanoTime();

    public Overlay() {
        setId("overlay");
        setPickOnBounds(false);
        setMouseTransparent(false);
        sceneProperty().addListener((_, _, scene) -> {
            if (scene != null) {
                scene.addEventFilter(MouseEvent.MOUSE_PRESSED, e -> {
                    Region popover = open;
                    if (popover != null && System.nanoTime() - shieldedUntil < 0) {
                        e.consume(); // The popover is too new for this click to be meant for it.
                    } else if (popover != null && e.getTarget() instanceof Node hit && !within(hit, popover)) {
                        close();
                    }
                });
                scene.addEventFilter(KeyEvent.KEY_PRESSED, e -> {
                    if (e.getCode() == KeyCode.ESCAPE && open != null) {
                        boolean goesOn = e.getTarget() == anchor; // What opened it may have more to leave.
                        close();
                        if (!goesOn) {
                            e.consume();
                        }
                    }
                });
            }
        });
    }

    private static boolean within(Node node, Node ancestor) {
        for (Node n = node; n != null; n = n.getParent()) {
            if (n == ancestor) {
                return true;
            }
        }
        return false;
    }

    /** Takes no click for a while, neither in the popover that is open nor beside it. */
    public void shield(long millis) {
        shieldedUntil = System.nanoTime() + millis * 1_000_000L;
    }

    /** Keeps clear of what must always be seen: so much at the top of the window, and so much at its foot. */
    public void keepClear(DoubleSupplier atTheTop, DoubleSupplier atTheFoot) {
        head = atTheTop;
        foot = atTheFoot;
    }

    /** Shows a popover by a node; one that was open closes. */
    public void show(Region popover, Node by, Runnable whenClosed) {
        close();
        if (!popover.getStyleClass().contains("popover")) {
            popover.getStyleClass().add("popover");
        }
        open = popover;
        anchor = by;
        point = null;
        lastAnchor = null;
        closed = whenClosed;
        getChildren().setAll(popover);
        if (popover.getScene() != null) {
            popover.applyCss(); // A field takes no letters before it was styled, and those typed at once would be lost.
        }
        requestLayout();
    }

    /** Shows a popover at a point of the scene, as far as it stays inside the window; one that was open closes. */
    public void showAt(Region popover, double sceneX, double sceneY, Runnable whenClosed) {
        show(popover, this, whenClosed);
        point = sceneToLocal(sceneX, sceneY);
    }

    public boolean showing(Node by) {
        return open != null && anchor == by;
    }

    public boolean showing() {
        return open != null;
    }

    public void close() {
        if (open != null) {
            Runnable then = closed;
            open = null;
            anchor = null;
            closed = null;
            getChildren().clear();
            if (then != null) {
                then.run();
            }
        }
    }

    @Override
    protected void layoutChildren() {
        Region popover = open;
        Node by = anchor;
        if (popover == null || by == null) {
            return;
        }
        double w = Math.min(popover.prefWidth(-1), getWidth() - 2 * GAP);
        double top = head.getAsDouble() + GAP;
        double bottom = getHeight() - foot.getAsDouble() - GAP;
        double h = Math.min(popover.prefHeight(w), bottom - top);
        if (point != null) {
            place(popover, point.getX() - w / 2, point.getY() - h / 2, w, h);
            return;
        }
        Bounds at = by.getScene() == null ? lastAnchor : sceneToLocal(by.localToScene(by.getBoundsInLocal()));
        if (at != null && at.getWidth() > getWidth() * WHOLE && at.getHeight() > getHeight() * WHOLE) {
            at = null; // By the whole window means in its middle.
        }
        lastAnchor = at;
        double x = at == null ? (getWidth() - w) / 2 : at.getMinX();
        double y = at == null ? (top + bottom - h) / 2 : at.getMaxY() + GAP;
        if (at != null && y + h > bottom) {
            double above = at.getMinY() - GAP - h;
            if (above >= top) {
                y = above;
            } else {
                x = at.getMaxX() + GAP + w <= getWidth() ? at.getMaxX() + GAP : at.getMinX() - GAP - w;
                y = bottom - h;
            }
        }
        place(popover, x, y, w, h);
    }

    /** Inside the window, whatever was asked. */
    private void place(Region popover, double x, double y, double w, double h) {
        double top = head.getAsDouble() + GAP;
        popover.resizeRelocate(Math.rint(Math.clamp(x, GAP, Math.max(GAP, getWidth() - w - GAP))),
                Math.rint(Math.clamp(y, top, Math.max(top, getHeight() - foot.getAsDouble() - h - GAP))), Math.rint(w),
                Math.rint(h));
    }
}
