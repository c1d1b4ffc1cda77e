package rombix.app.view.common;

import java.util.Optional;
import javafx.css.PseudoClass;
import javafx.scene.shape.Polygon;
import org.kordamp.ikonli.javafx.FontIcon;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Face;

/** The shapes of the interface: the rhombus, the icon. */
public final class Shapes {
    private Shapes() {
    }

    /** A rhombus of a width and height, with a style class. */
    public static Polygon rhombus(double size, String... styles) {
        double h = size / 2;
        Polygon p = new Polygon(h, 0, size, h, h, size, 0, h);
        p.getStyleClass().addAll(styles);
        return p;
    }

    /** The rhombus of a state, filled for the present one. */
    public static Polygon pip(boolean now) {
        Polygon pip = rhombus(11, "pip");
        pip.pseudoClassStateChanged(PseudoClass.getPseudoClass("now"), now);
        return pip;
    }

    /** The outline of a state's mark, as a path 14 wide and high; empty where there is none. */
    public static String mark(Face.@Nullable Mark mark) {
        return mark == null ? "" : switch (mark) {
            case RING -> "M7 1 A6 6 0 1 1 6.99 1 Z";
            case CROSS -> "M1 1 L13 13 M13 1 L1 13";
            case TICK -> "M1 8 L5 12 L13 2";
            case BAR -> "M1 7 L13 7";
            case UP -> "M1 10 L7 3 L13 10";
            case DOWN -> "M1 4 L7 11 L13 4";
        };
    }

    /** The icon with this literal, if there is one. */
    public static Optional<FontIcon> icon(@Nullable String literal, double size) {
        if (literal == null || literal.isEmpty()) {
            return Optional.empty();
        }
        try {
            FontIcon icon = new FontIcon(literal + ":" + Math.round(size));
            icon.setMouseTransparent(true);
            return Optional.of(icon);
        } catch (RuntimeException e) {
            return Optional.empty(); // A board may name an icon of a newer version.
        }
    }
}
