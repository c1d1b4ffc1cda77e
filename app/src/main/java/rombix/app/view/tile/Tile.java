package rombix.app.view.tile;

import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import javafx.css.PseudoClass;
import javafx.geometry.Insets;
import javafx.geometry.Point2D;
import javafx.scene.AccessibleRole;
import javafx.scene.Node;
import javafx.scene.layout.Region;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Shapes;
import rombix.app.view.common.Styles;
import rombix.core.board.Button;
import rombix.core.board.Control;
import rombix.core.board.Face;
import rombix.core.board.Face.Image.Fit;
import rombix.core.board.Face.Tally;
import rombix.core.card.Card.Tone;
import rombix.running.face.FaceNow;
import rombix.running.face.FaceSources;
import rombix.running.face.FaceWords;

/** A button's face on the page: a flat tile with one cut corner. It shows; what is done with it is the page's affair. */
public final class Tile extends Region {
    private static final PseudoClass PICKED = PseudoClass.getPseudoClass("picked");
    private static final PseudoClass AIR = PseudoClass.getPseudoClass("air");
    private static final PseudoClass READY = PseudoClass.getPseudoClass("ready");
    private static final PseudoClass PICTURED = PseudoClass.getPseudoClass("pictured");
    private static final PseudoClass HELD = PseudoClass.getPseudoClass("held");

    private final Desk desk;
    private final FaceWords words;
    private final TileLevels levels;
    private final TileParts parts;
    private final TileLayout layout;
    private Button button;
    private FaceSources sources;
    private @Nullable FaceNow painted;
    private boolean chosen;

    public Tile(Button button, Desk desk) {
        this.button = button;
        this.sources = FaceSources.of(button);
        this.desk = desk;
        this.words = desk.words();
        this.levels = new TileLevels(words::scale);
        this.parts = new TileParts(levels);
        this.layout = new TileLayout(parts);
        getStyleClass().add("tile");
        setFocusTraversable(true);
        setAccessibleRole(AccessibleRole.BUTTON);
        setPickOnBounds(true);
        setPadding(new Insets(0));
    }

    /** What its face is made of. */
    public FaceSources sources() {
        return sources;
    }

    public Button button() {
        return button;
    }

    /** Shows a button as it is. */
    public void show(Button shown, boolean picked) {
        paint(shown, FaceNow.of(shown, desk.model().state(), words), picked);
        run();
    }

    /** Shows how a button will look in a state, whatever it is in now. */
    public void preview(Button shown, int state, boolean picked) {
        paint(shown, FaceNow.preview(shown, state, desk.model().state(), words), picked);
    }

    private void paint(Button shown, FaceNow now, boolean picked) {
        if (button != shown) {
            sources = FaceSources.of(shown);
        }
        button = shown;
        painted = now;
        chosen = picked;
        Face face = now.face();
        Styles.set(this, "tile", face.fill().name().toLowerCase(java.util.Locale.ROOT));
        StatesLook states = states(shown); // They say themselves what they are.
        boolean row = states != null;
        Styles.text(parts.label, row ? shown.name() : now.label());
        Styles.text(parts.second, now.second());
        Face.Tally lit = now.tally();
        Styles.text(parts.tally, lit == null ? "" : lit.word());
        pseudoClassStateChanged(AIR, lit != null && lit.tone() == Tone.AIR);
        pseudoClassStateChanged(READY, lit != null && lit.tone() == Tone.READY);
        pseudoClassStateChanged(HELD, now.held());
        pseudoClassStateChanged(PICKED, picked);
        Face.Image image = face.image();
        parts.art.setImage(Optional.ofNullable(image).flatMap(i -> desk.picture(i.picture())).flatMap(p -> Artwork.of(p,
                image == null ? null : image.tint(), () -> paint(button, Objects.requireNonNull(painted), chosen)))
                .orElse(null));
        boolean pictured = parts.art.getImage() != null && image != null && image.fit() != Fit.ICON;
        parts.scrim.setVisible(pictured);
        pseudoClassStateChanged(PICTURED, pictured);
        parts.icon(parts.art.getImage() == null && !row ? face.icon() : null);
        parts.mark.setContent(Shapes.mark(face.mark()));
        parts.pips(row ? 0 : now.states(), now.state(), now.coming());
        parts.row = states;
        if (states != null) {
            boolean ways = states instanceof KeyPadLook;
            states.show(shown, ways ? -1 : now.state(), ways ? -1 : now.coming());
        }
        Styles.text(parts.fault, now.fault() == null ? "" : "FAULT");
        parts.notch.setVisible(now.fault() != null);
        colours(now, pictured);
        levels.show(shown.control(), now.levels());
        populate();
        setAccessibleText(now.spoken());
        requestLayout();
    }

    private @Nullable StatesLook states(Button shown) {
        return switch (shown.control()) {
            case Control.Row _ -> parts.row instanceof RowLook r ? r : new RowLook();
            case Control.Items _ -> parts.row instanceof RunDownLook r ? r : new RunDownLook(desk);
            case Control.KeyPad p -> {
                KeyPadLook look = parts.row instanceof KeyPadLook k ? k : new KeyPadLook();
                look.pad(p);
                yield look;
            }
            case null, default -> null;
        };
    }

    /** A tint, an ink and an accent of the person's own. */
    private void colours(FaceNow now, boolean pictured) {
        String tint = now.face().tint();
        String ink = pictured ? null : now.ink();
        String accent = now.face().accent();
        Styles.inline(parts.body, tint == null ? "" : "-fx-fill: " + tint + ";");
        Styles.inline(parts.mark, ink == null ? "" : "-fx-stroke: " + ink + ";");
        parts.iconColour(tint == null ? null : accent == null ? now.ink() : accent);
        layout.show(now.face(), ink == null ? "" : "-fx-text-fill: " + ink + ";");
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

    /** Which states of a row or ways of a key pad a hand at a point means, which then stand out. */
    Set<Integer> chosen(double x, double y) {
        StatesLook states = parts.row;
        Set<Integer> at = states == null ? Set.of() : states.at(x, y);
        under(at);
        return at;
    }

    /** Shows other items of a list, so many further down. */
    void scroll(int by) {
        if (parts.row != null) {
            parts.row.scroll(by);
        }
    }

    /** Has some of the states stand out. */
    void under(Set<Integer> which) {
        if (parts.row != null) {
            parts.row.under(which);
        }
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

    private void populate() {
        List<Node> seen = parts.seen(getPseudoClassStates().contains(AIR) || getPseudoClassStates().contains(READY));
        if (!seen.equals(getChildren())) {
            getChildren().setAll(seen);
        }
    }

    /** Shows how far the running chain is, or how long a press that waits for more still waits. */
    public void run() {
        FaceNow.Going going = FaceNow.going(button, desk.model().state(), desk.model().now());
        Styles.text(parts.left, going.words());
        boolean runs = going.done() >= 0;
        if (parts.bar.isVisible() != runs || parts.left.getText().isEmpty() == getChildren().contains(parts.left)) {
            parts.bar.setVisible(runs);
            populate();
        }
        layout.run(going.done(), getWidth());
    }

    @Override
    protected void layoutChildren() {
        layout.lay(getWidth(), getHeight());
    }
}
