package rombix.app.view;

import javafx.css.PseudoClass;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.AccessibleRole;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.shape.Polygon;
import javafx.scene.shape.Rectangle;
import javafx.scene.text.Font;
import javafx.scene.text.TextAlignment;
import java.util.function.BiFunction;
import org.jspecify.annotations.Nullable;
import org.kordamp.ikonli.javafx.FontIcon;
import rombix.core.board.Button;
import rombix.core.board.Face;
import rombix.core.board.State;
import rombix.core.card.Card.Tone;
import rombix.core.check.Contrast;

/** A button's face on the page: a flat tile with one cut corner. It shows; what is done with it is the page's affair. */
final class Tile extends Region {
    private static final PseudoClass PICKED = PseudoClass.getPseudoClass("picked");
    private static final PseudoClass HELD = PseudoClass.getPseudoClass("held");
    private static final double CUT = 14;

    private final Polygon body = new Polygon();
    private final Polygon focusLine = new Polygon();
    private final Rectangle bar = new Rectangle();
    private final Polygon notch = new Polygon();
    private final Label label = new Label();
    private final Label tally = new Label();
    private final Label left = new Label();
    private final Label fault = new Label();
    private final HBox pips = new HBox(3);
    private @Nullable FontIcon icon;
    private @Nullable String iconLiteral;
    /** What the icon's own style says: its font. */
    private String iconStyle = "";
    private Button button;
    private double runDone = -1;
    private final BiFunction<String, String, String> spoken;

    /** @param spoken a reading's present value in words, by gear and reading, for labels with readings in them */
    Tile(Button button, BiFunction<String, String, String> spoken) {
        this.button = button;
        this.spoken = spoken;
        getStyleClass().add("tile");
        setFocusTraversable(true);
        setAccessibleRole(AccessibleRole.BUTTON);
        body.getStyleClass().add("tile-body");
        focusLine.getStyleClass().add("focus-line");
        bar.getStyleClass().add("run-bar");
        notch.getStyleClass().add("notch");
        label.getStyleClass().add("tile-label");
        label.setWrapText(true);
        label.setAlignment(Pos.BOTTOM_LEFT);
        tally.getStyleClass().add("tile-tally");
        left.getStyleClass().add("tile-left");
        fault.getStyleClass().add("tile-fault");
        pips.setAlignment(Pos.BOTTOM_RIGHT);
        label.setTextAlignment(TextAlignment.LEFT);
        getChildren().addAll(body, focusLine, bar, notch, label, tally, left, fault, pips);
        getChildren().forEach(c -> c.setMouseTransparent(true));
        setPickOnBounds(true);
        setPadding(new Insets(0));
    }

    Button button() {
        return button;
    }

    /** Shows a button as it is. */
    void show(Button shown, DeckModel model, boolean picked) {
        button = shown;
        DeckModel.Play play = model.play(shown.id());
        int index = Math.min(play.state(), shown.states().size() - 1);
        State state = shown.states().get(index);
        Face face = state.face();
        getStyleClass().setAll("tile", face.fill().name().toLowerCase(java.util.Locale.ROOT));
        String words = model.filled(face.label() == null ? shown.name() : face.label(), shown.id(), spoken);
        label.setText(words);
        Face.Tally lit = face.tally().stream()
                .filter(t -> t.when().holds(model.reading(t.when().gear(), t.when().reading()))).findFirst()
                .orElse(null);
        tally.setText(lit == null ? "" : lit.word());
        if (lit != null && lit.tone() != Tone.QUIET) {
            getStyleClass().add(lit.tone() == Tone.AIR ? "air" : "ready");
        }
        setIcon(face.icon());
        pips.getChildren().clear();
        if (shown.states().size() > 1) {
            for (int i = 0; i < shown.states().size(); i++) {
                pips.getChildren().add(Shapes.rhombus(11, "pip", i == index
                        ? "now"
                        : i == play.onItsWay() ? "coming" : "other"));
            }
        }
        DeckModel.Fault wrong = model.fault(shown.id());
        fault.setText(wrong == null ? "" : "FAULT");
        notch.setVisible(wrong != null);
        pseudoClassStateChanged(PICKED, picked);
        pseudoClassStateChanged(HELD, play.held());
        custom(face);
        setAccessibleText(words.replace('\n', ' ') + ", " + (shown.states().size() > 1 ? state.name() + ", " : "")
                + (lit == null ? "" : lit.word() + ", ") + (wrong == null ? "" : "fault: " + wrong.message()));
        run(model);
        requestLayout();
    }

    /** A tint, an ink and an accent of the person's own. */
    private void custom(Face face) {
        String tint = face.tint();
        String ink = tint == null ? null : face.ink() == null ? Contrast.inkOn(tint) : face.ink();
        body.setStyle(tint == null ? "" : "-fx-fill: " + tint + ";");
        label.setStyle(ink == null ? "" : "-fx-text-fill: " + ink + ";");
        if (icon != null) {
            icon.setStyle(iconStyle + (tint == null
                    ? ""
                    : "-fx-icon-color: " + (face.accent() == null ? ink : face.accent()) + ";"));
        }
    }

    /** Shows how far the running chain is, or how long a press that waits for more still waits. */
    void run(DeckModel model) {
        DeckModel.Running run = model.running(button.id());
        DeckModel.Guarding guard = model.guarding(button.id());
        if (guard != null) {
            double whole = guard.untilNanos() - guard.sinceNanos();
            runDone = Math.clamp((System.nanoTime() - guard.sinceNanos()) / whole, 0, 1);
            left.setText(guard.hold() ? "HOLD" : "AGAIN");
        } else if (run == null) {
            left.setText("");
            runDone = -1;
        } else {
            double gone = (System.nanoTime() - run.startNanos()) / 1e9;
            double whole = run.expectedNanos() / 1e9;
            runDone = whole <= 0 ? 1 : Math.clamp(gone / whole, 0, 1);
            left.setText(whole <= 0.3 ? "" : Shapes.left(whole - gone));
        }
        bar.setVisible(runDone >= 0);
        bar.setWidth(Math.max(0, (getWidth() - CUT) * Math.max(0, runDone)));
    }

    private void setIcon(@Nullable String literal) {
        if (java.util.Objects.equals(literal, iconLiteral)) {
            return;
        }
        if (icon != null) {
            getChildren().remove(icon);
        }
        iconLiteral = literal;
        icon = Shapes.icon(literal, 24).orElse(null);
        if (icon != null) {
            getChildren().add(icon);
            iconStyle = icon.getStyle();
        }
    }

    @Override
    protected void layoutChildren() {
        double w = getWidth();
        double h = getHeight();
        body.getPoints().setAll(0.0, 0.0, w - CUT, 0.0, w, CUT, w, h, 0.0, h);
        focusLine.getPoints().setAll(4.0, 4.0, w - CUT - 2, 4.0, w - 4, CUT + 2, w - 4, h - 4, 4.0, h - 4);
        bar.setHeight(4);
        bar.setWidth(Math.max(0, (w - CUT) * Math.max(0, runDone)));
        double pad = Math.clamp(h * 0.09, 6, 14);
        double labelSize = Math.clamp(Math.min(h * 0.155, w * 0.135), 11, 30);
        double small = Math.clamp(h * 0.1, 11, 17);
        label.setFont(Font.font("Archivo Narrow", javafx.scene.text.FontWeight.BOLD, labelSize));
        for (Label l : new Label[]{tally, fault}) {
            l.setFont(Font.font("Archivo Narrow", javafx.scene.text.FontWeight.BOLD, small));
        }
        left.setFont(Font.font("Archivo Narrow", javafx.scene.text.FontWeight.BOLD, small * 1.15));
        double iconSize = Math.clamp(h * 0.24, 18, 48);
        double top = pad;
        double x = pad;
        if (icon != null) {
            icon.setIconSize((int) Math.round(iconSize));
            icon.relocate(pad, top);
            x = pad + iconSize + 6;
        }
        left.resizeRelocate(x, top + (iconSize - left.prefHeight(-1)) / 2, left.prefWidth(-1), left.prefHeight(-1));
        double tallyWidth = tally.prefWidth(-1);
        tally.resizeRelocate(w - CUT - 4 - tallyWidth, pad - 2, tallyWidth, tally.prefHeight(-1));
        double pipsWidth = pips.prefWidth(-1);
        double pipsHeight = pips.prefHeight(-1);
        pips.resizeRelocate(w - pad - pipsWidth, h - pad - pipsHeight, pipsWidth, pipsHeight);
        double faultWidth = fault.prefWidth(-1);
        fault.resizeRelocate(w - pad - faultWidth, h - pad - pipsHeight - (pipsHeight > 0 ? 4 : 0)
                - fault.prefHeight(-1), faultWidth, fault.prefHeight(-1));
        double n = Math.clamp(h * 0.14, 10, 20);
        notch.getPoints().setAll(0.0, h - n, n, h, 0.0, h);
        double labelWidth = w - 2 * pad - (pipsWidth > 0 ? pipsWidth + 4 : 0);
        double labelHeight = Math.min(label.prefHeight(labelWidth),
                h - pad - (icon == null ? pad : pad + iconSize + 2));
        label.resizeRelocate(pad, h - pad - labelHeight + 3, labelWidth, labelHeight);
    }
}
