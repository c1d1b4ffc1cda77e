package rombix.app.view.tile;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import javafx.scene.control.Label;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Styles;
import rombix.core.board.Control;
import rombix.core.board.Control.Axis;
import rombix.core.twin.Scale;
import rombix.running.face.FaceNow;

/** The levels of a dial, a fader or a pad on its tile: under the hand while it holds them, else as the gear says. */
final class TileLevels {
    private static final long HOLDING = Long.MAX_VALUE;
    private static final long ECHO_NANOS = 400_000_000L;

    private final Function<Axis, Optional<Scale>> scales;
    private final Label label = new Label();
    private @Nullable ControlLook look;
    /** Where the hand holds the levels, from 0 to 1; not a number where it does not. */
    private final double[] inHand = {Double.NaN, Double.NaN};
    private long letGoNanos;

    /** @param scales how levels are shown */
    TileLevels(Function<Axis, Optional<Scale>> scales) {
        this.scales = scales;
        label.getStyleClass().add("tile-level");
    }

    /** How the control looks; null for a button that is pushed. */
    @Nullable
    ControlLook look() {
        return look;
    }

    /** The levels in words. */
    Label label() {
        return label;
    }

    /** Shows where the levels of a control are now; where the hand holds one, there. */
    void show(@Nullable Control control, List<FaceNow.Level> levels) {
        if (control == null || control instanceof Control.Row || control instanceof Control.KeyPad
                || control instanceof Control.Items) {
            look = null;
            Styles.text(label, "");
            return;
        }
        ControlLook now = look == null || !look.control().equals(control) ? new ControlLook(control) : look;
        now.setMouseTransparent(true);
        look = now;
        double[] places = {Double.NaN, Double.NaN};
        List<String> words = new ArrayList<>();
        for (int i = 0; i < control.axes().size(); i++) {
            double held = held(i);
            Scale scale = Double.isNaN(held) ? null : scales.apply(control.axes().get(i)).orElse(null);
            FaceNow.Level level = scale == null ? levels.get(i) : FaceNow.Level.of(scale, scale.value(held));
            places[i] = level.place();
            words.add(level.words());
        }
        now.show(places);
        Styles.text(label, String.join("  ", words));
    }

    /** Where the hand holds a level, or has just left it; not a number where it does not. */
    double held(int axis) {
        return letGoNanos == HOLDING || System.nanoTime() - letGoNanos < ECHO_NANOS ? inHand[axis] : Double.NaN;
    }

    /** The hand holds a level at a place of its way. */
    void inHand(int axis, double place) {
        inHand[axis] = place;
        letGoNanos = HOLDING;
    }

    /** The hand has let go; what it did is shown until the gear has had time to say so. */
    void outOfHand() {
        letGoNanos = System.nanoTime();
    }
}
