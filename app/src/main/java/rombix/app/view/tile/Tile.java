package rombix.app.view.tile;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiFunction;
import java.util.function.Function;
import javafx.css.PseudoClass;
import javafx.geometry.Insets;
import javafx.geometry.Point2D;
import javafx.geometry.Pos;
import javafx.geometry.Rectangle2D;
import javafx.scene.AccessibleRole;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.image.ImageView;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.shape.Polygon;
import javafx.scene.shape.Rectangle;
import javafx.scene.shape.SVGPath;
import javafx.scene.text.TextAlignment;
import org.jspecify.annotations.Nullable;
import org.kordamp.ikonli.javafx.FontIcon;
import rombix.app.deck.DeckModel;
import rombix.app.view.common.Shapes;
import rombix.app.view.common.Styles;
import rombix.core.board.Board.Picture;
import rombix.core.board.Button;
import rombix.core.board.Contrast;
import rombix.core.board.Control.Axis;
import rombix.core.board.Control;
import rombix.core.board.Face.Image.Fit;
import rombix.core.board.Face;
import rombix.core.board.State;
import rombix.core.card.Card.Tone;
import rombix.core.card.Scale;

/** A button's face on the page: a flat tile with one cut corner. It shows; what is done with it is the page's affair. */
public final class Tile extends Region {
    private static final PseudoClass PICKED = PseudoClass.getPseudoClass("picked");
    private static final PseudoClass AIR = PseudoClass.getPseudoClass("air");
    private static final PseudoClass READY = PseudoClass.getPseudoClass("ready");
    private static final PseudoClass PICTURED = PseudoClass.getPseudoClass("pictured");
    private static final PseudoClass NOW = PseudoClass.getPseudoClass("now");
    private static final PseudoClass COMING = PseudoClass.getPseudoClass("coming");
    private static final PseudoClass HELD = PseudoClass.getPseudoClass("held");
    private static final double CUT = 14;
    private static final double FRAME = 2.5;
    private static final double MARK = 14;
    private static final double LEAST_DIAL = 36;

    private final Polygon body = new Polygon();
    private final Polygon frame = new Polygon();
    private final Polygon focusLine = new Polygon();
    private final Rectangle bar = new Rectangle();
    private final Polygon notch = new Polygon();
    private final ImageView art = new ImageView();
    private final Region scrim = new Region();
    private final Label label = new Label();
    private final Label second = new Label();
    private final SVGPath mark = new SVGPath();
    private final Label tally = new Label();
    private final Label left = new Label();
    private final Label fault = new Label();
    private final HBox pips = new HBox(3);
    private @Nullable FontIcon icon;
    private @Nullable String iconLiteral;
    /** What the icon's own style says: its font. */
    private String iconStyle = "";
    /** The icon's colour as it was last set: the icon itself changes its style. */
    private String iconColour = "";
    private Button button;
    private double runDone = -1;
    /** The size for which the outline was made. */
    private double[] outlined = new double[2];
    private String inkStyle = "";
    private String fittedFor = "";
    private double fitted = LabelSize.LEAST;
    private final BiFunction<String, String, String> spoken;
    private final Function<String, Optional<Picture>> pictures;
    private final TileLevels levels;
    private Face face = Face.PLAIN;
    private Set<String> watched = Set.of();
    private boolean worded;

    /**
     * @param spoken a reading's present value in words, by gear and reading, for labels with readings in them
     * @param pictures the board's pictures by their ids
     * @param scales how levels are shown
     */
    public Tile(Button button, BiFunction<String, String, String> spoken, Function<String, Optional<Picture>> pictures,
            Function<Axis, Optional<Scale>> scales) {
        this.button = button;
        this.spoken = spoken;
        this.pictures = pictures;
        this.levels = new TileLevels(scales);
        getStyleClass().add("tile");
        setFocusTraversable(true);
        setAccessibleRole(AccessibleRole.BUTTON);
        body.getStyleClass().add("tile-body");
        frame.getStyleClass().add("tile-frame");
        focusLine.getStyleClass().add("focus-line");
        setCache(true); // A tile that does not change is painted as a picture.
        bar.getStyleClass().add("run-bar");
        bar.setVisible(false);
        notch.getStyleClass().add("notch");
        scrim.getStyleClass().add("tile-scrim");
        art.setSmooth(true);
        art.setPreserveRatio(true);
        mark.getStyleClass().add("tile-mark");
        second.getStyleClass().add("tile-second");
        label.getStyleClass().add("tile-label");
        label.setWrapText(true);
        label.setAlignment(Pos.BOTTOM_LEFT);
        tally.getStyleClass().add("tile-tally");
        left.getStyleClass().add("tile-left");
        fault.getStyleClass().add("tile-fault");
        pips.setAlignment(Pos.BOTTOM_RIGHT);
        label.setTextAlignment(TextAlignment.LEFT);
        getChildren().addAll(body, art, scrim, frame, focusLine, bar, notch, label, second, mark, tally, left, fault,
                pips);
        getChildren().forEach(c -> c.setMouseTransparent(true));
        setPickOnBounds(true);
        setPadding(new Insets(0));
    }

    /** The readings, {@code gear:reading}, that its face shows. */
    public Set<String> watched() {
        return watched;
    }

    /** Whether its words have readings or values in them. */
    public boolean worded() {
        return worded;
    }

    private void watch(Button shown) {
        Set<String> all = new HashSet<>();
        worded = false;
        for (State s : shown.states()) {
            s.face().tally().forEach(t -> all.add(t.when().gear() + ":" + t.when().reading()));
            worded |= (s.face().label() + s.face().second()).indexOf('{') >= 0;
        }
        if (shown.control() != null) {
            shown.control().axes().forEach(a -> all.add(a.gear() + ":" + a.reading()));
        }
        watched = all;
    }

    public Button button() {
        return button;
    }

    /** Shows a button as it is. */
    public void show(Button shown, DeckModel model, boolean picked) {
        DeckModel.Play play = model.play(shown.id());
        int index = Math.min(play.state(), shown.states().size() - 1);
        DeckModel.Fault wrong = model.fault(shown.id());
        paint(shown, index, play.onItsWay(), model, wrong == null ? null : wrong.message());
        pseudoClassStateChanged(PICKED, picked);
        pseudoClassStateChanged(HELD, play.held());
        run(model);
        requestLayout();
    }

    /** Shows how a button looks in a state, whatever it is in now. */
    public void preview(Button shown, int state, DeckModel model, boolean picked) {
        paint(shown, state, -1, model, null);
        pseudoClassStateChanged(PICKED, picked);
        requestLayout();
    }

    private void paint(Button shown, int index, int onItsWay, DeckModel model, @Nullable String wrong) {
        if (button != shown || watched.isEmpty()) {
            watch(shown);
        }
        button = shown;
        State state = shown.states().get(index);
        face = state.face();
        Styles.set(this, "tile", face.fill().name().toLowerCase(java.util.Locale.ROOT));
        String words = model.filled(face.label() == null ? shown.name() : face.label(), shown.id(), spoken);
        Styles.text(label, words);
        Styles.text(second, face.second() == null ? "" : model.filled(face.second(), shown.id(), spoken));
        Face.Tally lit = face.tally().stream()
                .filter(t -> t.when().holds(model.reading(t.when().gear(), t.when().reading()))).findFirst()
                .orElse(null);
        Styles.text(tally, lit == null ? "" : lit.word());
        pseudoClassStateChanged(AIR, lit != null && lit.tone() == Tone.AIR);
        pseudoClassStateChanged(READY, lit != null && lit.tone() == Tone.READY);
        Face.Image image = face.image();
        art.setImage(image == null
                ? null
                : pictures.apply(image.picture()).flatMap(p -> Artwork.of(p, image.tint()))
                        .orElse(null));
        scrim.setVisible(art.getImage() != null && image != null && image.fit() != Fit.ICON);
        pseudoClassStateChanged(PICTURED, scrim.isVisible());
        setIcon(art.getImage() == null ? face.icon() : null);
        mark.setContent(Shapes.mark(face.mark()));
        pips(shown.states().size(), index, onItsWay);
        Styles.text(fault, wrong == null ? "" : "FAULT");
        notch.setVisible(wrong != null);
        custom(face);
        levels.show(shown.control(), model);
        populate();
        setAccessibleText(words.replace('\n', ' ') + ", "
                + (levels.label().getText().isEmpty() ? "" : levels.label().getText() + ", ")
                + (second.getText().isEmpty() ? "" : second.getText() + ", ")
                + (shown.states().size() > 1 ? state.name() + ", " : "") + (lit == null ? "" : lit.word() + ", ")
                + (wrong == null ? "" : "fault: " + wrong));
    }

    /** The hand holds a level at a place of its way. */
    void inHand(int axis, double place) {
        levels.inHand(axis, place);
    }

    /** Where the hand holds a level, or has just left it; not a number where it does not. */
    double held(int axis) {
        return levels.held(axis);
    }

    /** The hand has let go; what it did is shown until the gear has had time to say so. */
    void outOfHand() {
        levels.outOfHand();
    }

    /** How far the hand goes for the whole way, across and up. */
    Point2D controlSpan() {
        ControlLook look = levels.look();
        return look == null ? new Point2D(100, 100) : look.span();
    }

    boolean controlAlong() {
        ControlLook look = levels.look();
        return look != null && look.along();
    }

    /** Has only those nodes in the scene that there is something to see of: a page may have hundreds of tiles. */
    private void populate() {
        List<Node> wanted = new ArrayList<>(List.of(body));
        add(wanted, art, art.getImage() != null);
        add(wanted, scrim, scrim.isVisible());
        add(wanted, frame, getPseudoClassStates().contains(AIR) || getPseudoClassStates().contains(READY));
        wanted.add(focusLine);
        add(wanted, bar, bar.isVisible());
        add(wanted, notch, notch.isVisible());
        if (icon != null) {
            wanted.add(icon);
        }
        ControlLook look = levels.look();
        if (look != null) {
            wanted.add(look);
        }
        add(wanted, levels.label(), look != null);
        wanted.add(label);
        add(wanted, second, !second.getText().isEmpty());
        add(wanted, mark, !mark.getContent().isEmpty());
        add(wanted, tally, !tally.getText().isEmpty());
        add(wanted, left, !left.getText().isEmpty());
        add(wanted, fault, !fault.getText().isEmpty());
        add(wanted, pips, !pips.getChildren().isEmpty());
        if (!wanted.equals(getChildren())) {
            getChildren().setAll(wanted);
        }
    }

    private static void add(List<Node> to, Node node, boolean seen) {
        if (seen) {
            to.add(node);
        }
    }

    private void pips(int states, int now, int coming) {
        int wanted = states > 1 ? states : 0;
        while (pips.getChildren().size() > wanted) {
            pips.getChildren().removeLast();
        }
        while (pips.getChildren().size() < wanted) {
            pips.getChildren().add(Shapes.rhombus(11, "pip"));
        }
        for (int i = 0; i < wanted; i++) {
            pips.getChildren().get(i).pseudoClassStateChanged(NOW, i == now);
            pips.getChildren().get(i).pseudoClassStateChanged(COMING, i != now && i == coming);
        }
    }

    /** A tint, an ink and an accent of the person's own. */
    private void custom(Face face) {
        String tint = face.tint();
        String ink = tint == null ? null : face.ink() == null ? Contrast.inkOn(tint) : face.ink();
        Styles.inline(body, tint == null ? "" : "-fx-fill: " + tint + ";");
        inkStyle = ink == null || scrim.isVisible() ? "" : "-fx-text-fill: " + ink + ";";
        Styles.inline(mark, ink == null || scrim.isVisible() ? "" : "-fx-stroke: " + ink + ";");
        String colour = tint == null ? "" : "-fx-icon-color: " + (face.accent() == null ? ink : face.accent()) + ";";
        if (icon != null && !colour.equals(iconColour)) {
            iconColour = colour;
            icon.setStyle(iconStyle + colour);
        }
    }

    /** Shows how far the running chain is, or how long a press that waits for more still waits. */
    public void run(DeckModel model) {
        DeckModel.Running run = model.running(button.id());
        DeckModel.Guarding guard = model.guarding(button.id());
        if (guard != null) {
            double whole = guard.untilNanos() - guard.sinceNanos();
            runDone = Math.clamp((model.now() - guard.sinceNanos()) / whole, 0, 1);
            Styles.text(left, guard.hold() ? "HOLD" : "AGAIN");
        } else if (run == null) {
            Styles.text(left, "");
            runDone = -1;
        } else {
            double gone = (model.now() - run.startNanos()) / 1e9;
            double whole = run.expectedNanos() / 1e9;
            runDone = whole <= 0 ? 1 : Math.clamp(gone / whole, 0, 1);
            Styles.text(left, whole <= 0.3 ? "" : Shapes.left(whole - gone));
        }
        if (bar.isVisible() != runDone >= 0 || left.getText().isEmpty() == getChildren().contains(left)) {
            bar.setVisible(runDone >= 0);
            populate();
        }
        bar.setWidth(Math.max(0, (getWidth() - CUT) * Math.max(0, runDone)));
    }

    private void setIcon(@Nullable String literal) {
        if (java.util.Objects.equals(literal, iconLiteral)) {
            return;
        }
        iconLiteral = literal;
        icon = Shapes.icon(literal, 24).orElse(null);
        if (icon != null) {
            iconStyle = icon.getStyle();
            iconColour = "";
        }
    }

    @Override
    protected void layoutChildren() {
        double w = getWidth();
        double h = getHeight();
        if (w != outlined[0] || h != outlined[1]) {
            outlined = new double[]{w, h};
            outline(w, h);
        }
        bar.setHeight(4);
        bar.setWidth(Math.max(0, (w - CUT) * Math.max(0, runDone)));
        double pad = Math.clamp(h * 0.09, 6, 14);
        double small = Math.clamp(h * 0.125, 11, 20);
        for (Label l : new Label[]{tally, fault}) {
            Styles.size(l, small, "");
        }
        Styles.size(left, small * 1.15, "");
        double iconSize = Math.clamp(h * 0.24, 18, 48);
        double top = pad;
        double x = pad;
        if (icon != null) {
            if (icon.getIconSize() != (int) Math.round(iconSize)) {
                icon.setIconSize((int) Math.round(iconSize));
            }
            icon.relocate(pad, top);
            x = pad + iconSize + 6;
        }
        if (art.getImage() != null && art(w, h, pad, iconSize)) {
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
        if (!mark.getContent().isEmpty()) {
            boolean under = !tally.getText().isEmpty();
            mark.relocate(w - pad - MARK - (under ? 0 : CUT - 6), pad + (under ? tally.prefHeight(-1) + 1 : 0));
        }
        double head = x > pad ? pad + iconSize + 2 : pad;
        ControlLook look = levels.look();
        if (look == null) {
            words(w, h, labelSize(w, h), pad, pipsWidth, head);
        } else {
            control(look, w, h, pad, iconSize, small, pipsWidth);
        }
    }

    /** Lays a dial, a fader or a pad out: its level at the top, its name at the foot. */
    private void control(ControlLook shown, double w, double h, double pad, double iconSize, double small,
            double pipsWidth) {
        boolean tallied = !tally.getText().isEmpty();
        Label level = levels.label();
        double size = labelSize(w, h);
        double foot = size * 1.25 + pad;
        Styles.size(level, Math.clamp(Math.min(h * 0.13, w * 0.11), LabelSize.LEAST, 24), inkStyle);
        double width = level.prefWidth(-1);
        double height = level.prefHeight(-1);
        shown.along(w > h);
        if (shown.control() instanceof Control.Dial) {
            double head = pad + (tallied ? small + 4 : 0);
            double side = Math.max(LEAST_DIAL, Math.min(w * 0.44, h - head - foot));
            shown.resizeRelocate(w - pad - side, head, side, side);
            level.resizeRelocate(w - pad - side + (side - width) / 2, head + (side - height) / 2, width, height);
            words(w, h, size, pad, pipsWidth, h - foot);
            return;
        }
        double under = tallied ? pad + small + 4 : pad + (iconSize - height) / 2;
        level.resizeRelocate(Math.max(pad, w - pad - (tallied ? 0 : CUT - 6) - width), under, width, height);
        double top = Math.max(pad + iconSize, under + height) + 4;
        shown.resizeRelocate(pad, top, w - 2 * pad, Math.max(24, h - foot - top - 2));
        words(w, h, size, pad, pipsWidth, h - foot);
    }

    private void outline(double w, double h) {
        body.getPoints().setAll(0.0, 0.0, w - CUT, 0.0, w, CUT, w, h, 0.0, h);
        double in = FRAME / 2;
        frame.getPoints().setAll(in, in, w - CUT - in / 2, in, w - in, CUT + in / 2, w - in, h - in, in, h - in);
        focusLine.getPoints().setAll(4.0, 4.0, w - CUT - 2, 4.0, w - 4, CUT + 2, w - 4, h - 4, 4.0, h - 4);
        double n = Math.clamp(h * 0.14, 10, 20);
        notch.getPoints().setAll(0.0, h - n, n, h, 0.0, h);
    }

    /** Lays the picture out; whether it stands where an icon would. */
    private boolean art(double w, double h, double pad, double iconSize) {
        Face.Image image = face.image();
        if (image == null) {
            return false;
        }
        double free = Math.min(w, h) * image.padding() / 100;
        art.setClip(null);
        if (image.fit() == Fit.ICON) {
            art.setViewport(null);
            art.setFitWidth(Math.max(4, iconSize - free / 2));
            art.setFitHeight(Math.max(4, iconSize - free / 2));
            art.relocate(pad, pad);
            return true;
        }
        double width = Math.max(4, w - 2 * free);
        double height = Math.max(4, h - 2 * free);
        double iw = art.getImage().getWidth();
        double ih = art.getImage().getHeight();
        if (image.fit() == Fit.COVER) {
            double scale = Math.max(width / iw, height / ih);
            art.setViewport(new Rectangle2D((iw - width / scale) / 2, (ih - height / scale) / 2, width / scale, height
                    / scale));
        } else {
            art.setViewport(null);
        }
        art.setFitWidth(width);
        art.setFitHeight(height);
        double shownWidth = art.getLayoutBounds().getWidth();
        double shownHeight = art.getLayoutBounds().getHeight();
        double x = (w - shownWidth) / 2;
        double y = (h - shownHeight) / 2;
        art.relocate(x, y);
        Polygon cut = new Polygon(0, 0, w - CUT, 0, w, CUT, w, h, 0, h);
        cut.setTranslateX(-x);
        cut.setTranslateY(-y);
        art.setClip(cut);
        return false;
    }

    /** How large a label is at most. */
    private static double labelSize(double w, double h) {
        return Math.clamp(Math.min(h * 0.155, w * 0.135), LabelSize.LEAST, 30);
    }

    /** Sets the label as large as it can be in at most three lines, and the second line under it. */
    private void words(double w, double h, double size, double pad, double pipsWidth, double top) {
        double width = w - 2 * pad - (pipsWidth > 0 ? pipsWidth + 4 : 0);
        boolean two = !second.getText().isEmpty();
        String fitting = label.getText() + "\n" + size + " " + width + " " + (h - top) + two;
        if (!fitting.equals(fittedFor)) {
            fittedFor = fitting;
            fitted = LabelSize.fitting(label.getText(), size, width, h - pad - top - (two ? size : 0));
        }
        Styles.size(label, fitted, inkStyle);
        double under = 0;
        if (two) {
            Styles.size(second, Math.max(LabelSize.LEAST, fitted * 0.8), inkStyle);
            under = second.prefHeight(-1) - 2;
            second.resizeRelocate(pad, h - pad - under + 2, Math.min(width, second.prefWidth(-1)), under + 2);
        }
        double height = Math.min(label.prefHeight(width), h - pad - top - under);
        label.resizeRelocate(pad, h - pad - under - height + 3, width, height);
        scrim.resizeRelocate(2, h - pad - under - height - 2, w - 4, height + under + pad);
    }
}
