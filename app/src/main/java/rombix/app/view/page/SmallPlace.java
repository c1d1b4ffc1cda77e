package rombix.app.view.page;

import java.util.Map;
import java.util.Optional;
import javafx.geometry.Point2D;
import javafx.geometry.Rectangle2D;
import rombix.running.owner.Settings;

/**
 * Where the small window opens: where it was put last, else beside the main one, else over its page, clear of the strips
 * that say what is on air and what runs. Always on the screen.
 */
final class SmallPlace {
    private static final double GAP = 12;
    /** How high the masthead and the air strip are, which nothing may cover. */
    private static final double HEAD = 120;
    private static final String X = "small-window.x";
    private static final String Y = "small-window.y";
    private static final String OF = "small-window.of.";
    private static final String SIZE = "small-window.size";

    private final Settings settings;

    /** @param settings where it is remembered */
    SmallPlace(Settings settings) {
        this.settings = settings;
    }

    /** Where a window of a size opens beside the main one. */
    Point2D place(Rectangle2D main, Rectangle2D screen, double width, double height) {
        Point2D asked = remembered().orElseGet(() -> beside(main, screen, width));
        return clamped(asked, screen, width, height);
    }

    private static Point2D beside(Rectangle2D main, Rectangle2D screen, double width) {
        if (main.getMaxX() + GAP + width <= screen.getMaxX()) {
            return new Point2D(main.getMaxX() + GAP, main.getMinY());
        }
        if (main.getMinX() - GAP - width >= screen.getMinX()) {
            return new Point2D(main.getMinX() - GAP - width, main.getMinY());
        }
        return new Point2D(main.getMaxX() - GAP - width, main.getMinY() + HEAD);
    }

    static Point2D clamped(Point2D at, Rectangle2D screen, double width, double height) {
        return new Point2D(Math.max(screen.getMinX(), Math.min(at.getX(), screen.getMaxX() - width)), Math.max(screen
                .getMinY(), Math.min(at.getY(), screen.getMaxY() - height)));
    }

    private Optional<Point2D> remembered() {
        try {
            return settings.get(X).flatMap(x -> settings.get(Y).map(y -> new Point2D(Double.parseDouble(x), Double
                    .parseDouble(y))));
        } catch (NumberFormatException e) {
            return Optional.empty(); // It opens beside the main window, then.
        }
    }

    /**
     * Has it open here next time.
     *
     * @param front the application that is in front now, for which it comes here again; empty where that is not known
     */
    void remember(double x, double y, String front) {
        settings.set(front.isEmpty()
                ? Map.of(X, String.valueOf(x), Y, String.valueOf(y))
                : Map.of(X, String.valueOf(x), Y, String.valueOf(y), OF + front, x + " " + y));
    }

    /** Where it was put while an application was in front; empty where it never was. */
    Optional<Point2D> of(String front) {
        return front.isEmpty()
                ? Optional.empty()
                : settings.get(OF + front).filter(at -> at.matches(
                        "-?[\\d.]+ -?[\\d.]+")).map(at -> new Point2D(Double.parseDouble(at.split(" ")[0]),
                                Double
                                        .parseDouble(at.split(" ")[1])));
    }

    /** How large it was made, as a factor. */
    double size() {
        return settings.get(SIZE).filter(s -> s.matches("\\d+\\.?\\d*")).map(Double::parseDouble).orElse(1.0);
    }

    void size(double factor) {
        settings.set(Map.of(SIZE, String.valueOf(factor)));
    }
}
