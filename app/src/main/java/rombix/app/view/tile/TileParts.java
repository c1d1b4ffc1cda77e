package rombix.app.view.tile;

import java.util.ArrayList;
import java.util.List;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
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
import rombix.app.view.common.Shapes;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;

/** The nodes of a tile, and which of them there is something to see of. */
final class TileParts {
    private static final PseudoClass NOW = PseudoClass.getPseudoClass("now");
    private static final PseudoClass COMING = PseudoClass.getPseudoClass("coming");

    final Polygon body = styled(new Polygon(), "tile-body");
    final Polygon frame = styled(new Polygon(), "tile-frame");
    final Polygon focusLine = styled(new Polygon(), "focus-line");
    final Rectangle bar = styled(new Rectangle(), "run-bar");
    final Polygon notch = styled(new Polygon(), "notch");
    final ImageView art = new ImageView();
    final Region scrim = styled(new Region(), "tile-scrim");
    final Label label = styled(new Label(), "tile-label");
    final Label second = styled(new Label(), "tile-second");
    final SVGPath mark = styled(new SVGPath(), "tile-mark");
    final Label tally = styled(new Label(), "tile-tally");
    final Label left = styled(new Label(), "tile-left");
    final Label fault = styled(new Label(), "tile-fault");
    final HBox pips = new HBox(Space.S3);
    final TileLevels levels;
    /** The states, each in a cell of its own; null where the button shows one of them. */
    @Nullable
    StatesLook row;
    private @Nullable FontIcon icon;
    private @Nullable String iconLiteral;
    /** What the icon's own style says: its font. */
    private String iconFont = "";
    private String iconColour = "";
    private long iconSize = 24;

    TileParts(TileLevels levels) {
        this.levels = levels;
        bar.setVisible(false);
        notch.setVisible(false);
        art.setSmooth(true);
        art.setPreserveRatio(true);
        label.setWrapText(true);
        label.setAlignment(Pos.BOTTOM_LEFT);
        label.setTextAlignment(TextAlignment.LEFT);
        pips.setAlignment(Pos.BOTTOM_RIGHT);
        for (Node n : new Node[]{body, art, scrim, frame, focusLine, bar, notch, label, second, mark, tally, left,
                fault, pips, levels.label()}) {
            n.setMouseTransparent(true);
        }
    }

    private static <N extends Node> N styled(N node, String style) {
        node.getStyleClass().add(style);
        return node;
    }

    @Nullable
    FontIcon icon() {
        return icon;
    }

    /** Shows another icon; none where there is no such. */
    void icon(@Nullable String literal) {
        if (!java.util.Objects.equals(literal, iconLiteral)) {
            iconLiteral = literal;
            icon = Shapes.icon(literal, iconSize).orElse(null);
            iconFont = icon == null ? "" : icon.getStyle();
            dress();
        }
    }

    /** Draws the icon in a colour; {@code null} leaves it to the style sheet. */
    void iconColour(@Nullable String colour) {
        String style = colour == null ? "" : "-fx-icon-color: " + colour + ";";
        if (!style.equals(iconColour)) {
            iconColour = style;
            dress();
        }
    }

    void iconSize(double size) {
        if (iconSize != Math.round(size)) {
            iconSize = Math.round(size);
            dress();
        }
    }

    /** Its size stands in its style as well: else the style sheet sets it back, and each pulse lays the tile out anew. */
    private void dress() {
        if (icon != null) {
            icon.setIconSize((int) iconSize);
            Styles.inline(icon, iconFont + "-fx-icon-size: " + iconSize + "px;" + iconColour);
        }
    }

    /** Shows how many states there are, which is the present one, and which is on its way. */
    void pips(int states, int now, int coming) {
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

    /** Those that there is something to see of, from back to front: a page may have hundreds of tiles. */
    List<Node> seen(boolean framed) {
        List<Node> seen = new ArrayList<>(List.of(body));
        add(seen, art, art.getImage() != null);
        add(seen, scrim, scrim.isVisible());
        add(seen, frame, framed);
        seen.add(focusLine);
        add(seen, bar, bar.isVisible());
        add(seen, notch, notch.isVisible());
        if (icon != null) {
            seen.add(icon);
        }
        if (row != null) {
            seen.add(row);
        }
        ControlLook look = levels.look();
        if (look != null) {
            seen.add(look);
            seen.add(levels.label());
        }
        seen.add(label);
        add(seen, second, !second.getText().isEmpty());
        add(seen, mark, !mark.getContent().isEmpty());
        add(seen, tally, !tally.getText().isEmpty());
        add(seen, left, !left.getText().isEmpty());
        add(seen, fault, !fault.getText().isEmpty());
        add(seen, pips, !pips.getChildren().isEmpty());
        return seen;
    }

    private static void add(List<Node> to, Node node, boolean seen) {
        if (seen) {
            to.add(node);
        }
    }
}
