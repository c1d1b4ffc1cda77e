package rombix.app.view;

import java.util.Locale;
import java.util.Optional;
import javafx.scene.shape.Polygon;
import org.kordamp.ikonli.javafx.FontIcon;
import org.jspecify.annotations.Nullable;

/** The shapes of the interface: the rhombus, the icon. */
final class Shapes {
    private Shapes() {
    }

    /** A rhombus of a width and height, with a style class. */
    static Polygon rhombus(double size, String... styles) {
        double h = size / 2;
        Polygon p = new Polygon(h, 0, size, h, h, size, 0, h);
        p.getStyleClass().addAll(styles);
        return p;
    }

    /** The icon with this literal, if there is one. */
    static Optional<FontIcon> icon(@Nullable String literal, double size) {
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

    /** Hours, minutes and seconds, or minutes and seconds under an hour when short. */
    static String clock(long seconds, boolean whole) {
        return whole || seconds >= 3600
                ? String.format(Locale.ROOT, "%02d:%02d:%02d", seconds / 3600, seconds / 60 % 60, seconds % 60)
                : String.format(Locale.ROOT, "%d:%02d", seconds / 60, seconds % 60);
    }

    /** Time left as a face shows it. */
    static String left(double seconds) {
        return seconds < 60
                ? String.format(Locale.ROOT, "%.1f\u00a0s", Math.max(0, seconds))
                : clock(Math.round(seconds), false);
    }
}
