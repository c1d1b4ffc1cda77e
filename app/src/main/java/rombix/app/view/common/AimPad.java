package rombix.app.view.common;

import java.util.Locale;
import javafx.scene.control.Label;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.layout.Pane;
import javafx.scene.shape.Line;
import rombix.core.card.Card.Param;

/** Where a fixture aims: pan to the right, tilt upwards. What is under the hand is told at once. */
public final class AimPad extends VBox {
    /** Told of both, in degrees. */
    @FunctionalInterface
    public interface Aimed {
        void at(double pan, double tilt);
    }

    private static final double SIZE = 200;
    private static final double KNOB = 14;
    private static final double STEPS = 100;

    private final Param pan;
    private final Param tilt;
    private final Aimed aimed;
    private final Pane plane = new Pane();
    private final Region knob = new Region();
    private final Label words = Styles.label("", "read", "quiet");
    private double panNow;
    private double tiltNow;

    public AimPad(Param pan, Param tilt, double panAt, double tiltAt, Aimed aimed) {
        super(Space.S4);
        this.pan = pan;
        this.tilt = tilt;
        this.aimed = aimed;
        plane.setId("aim-plane");
        plane.setMinSize(SIZE, SIZE);
        plane.setPrefSize(SIZE, SIZE);
        plane.setMaxSize(SIZE, SIZE);
        plane.getStyleClass().addAll("plane", "aim-plane");
        plane.setFocusTraversable(true);
        plane.setAccessibleText("Pan and tilt; arrow keys move the point");
        Line across = new Line(0, SIZE / 2, SIZE, SIZE / 2);
        Line down = new Line(SIZE / 2, 0, SIZE / 2, SIZE);
        across.getStyleClass().add("plane-line");
        down.getStyleClass().add("plane-line");
        knob.getStyleClass().add("plane-knob");
        knob.setMinSize(KNOB, KNOB);
        knob.setMaxSize(KNOB, KNOB);
        knob.setMouseTransparent(true);
        plane.getChildren().addAll(across, down, knob);
        plane.setOnMousePressed(e -> at(e.getX(), e.getY()));
        plane.setOnMouseDragged(e -> at(e.getX(), e.getY()));
        plane.setOnKeyPressed(this::key);
        getChildren().setAll(plane, words);
        show(panAt, tiltAt);
    }

    /** Shows where it aims; whoever is being told is not told of that. */
    public void show(double panAt, double tiltAt) {
        if (plane.isPressed()) {
            return; // The hand is on it.
        }
        panNow = Double.isNaN(panAt) ? 0 : panAt;
        tiltNow = Double.isNaN(tiltAt) ? 0 : tiltAt;
        look();
    }

    private static double low(Param p) {
        Double min = p.min();
        return min == null ? 0 : min;
    }

    private static double span(Param p) {
        Double max = p.max();
        return (max == null ? 100 : max) - low(p);
    }

    private void at(double x, double y) {
        panNow = rounded(pan, low(pan) + Math.clamp(x / SIZE, 0, 1) * span(pan));
        tiltNow = rounded(tilt, low(tilt) + (1 - Math.clamp(y / SIZE, 0, 1)) * span(tilt));
        tell();
    }

    private static double rounded(Param p, double value) {
        Double step = p.step();
        return step == null ? value : Math.rint(value / step) * step;
    }

    private void key(KeyEvent e) {
        double by = e.isShiftDown() ? STEPS / 10 : 1;
        switch (e.getCode()) {
            case LEFT -> panNow -= span(pan) / STEPS * by;
            case RIGHT -> panNow += span(pan) / STEPS * by;
            case UP -> tiltNow += span(tilt) / STEPS * by;
            case DOWN -> tiltNow -= span(tilt) / STEPS * by;
            default -> {
                return;
            }
        }
        e.consume();
        panNow = rounded(pan, Math.clamp(panNow, low(pan), low(pan) + span(pan)));
        tiltNow = rounded(tilt, Math.clamp(tiltNow, low(tilt), low(tilt) + span(tilt)));
        tell();
    }

    private void tell() {
        look();
        aimed.at(panNow, tiltNow);
    }

    private void look() {
        knob.relocate((panNow - low(pan)) / span(pan) * SIZE - KNOB / 2, (1 - (tiltNow - low(tilt)) / span(tilt)) * SIZE
                - KNOB / 2);
        knob.resize(KNOB, KNOB);
        words.setText(words(panNow, tiltNow));
    }

    /** In words: {@code pan 12.0°, tilt −30.0°}. */
    public static String words(double panAt, double tiltAt) {
        return String.format(Locale.ROOT, "pan %.1f°, tilt %.1f°", panAt, tiltAt).replace('-', '\u2212');
    }
}
