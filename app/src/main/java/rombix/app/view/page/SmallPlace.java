package rombix.app.view.page;

import java.io.IOException;
import java.io.Reader;
import java.io.Writer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.Properties;
import javafx.geometry.Point2D;
import javafx.geometry.Rectangle2D;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Where the small window opens: where it was put last, else beside the main one, else over its page, clear of the strips
 * that say what is on air and what runs. Always on the screen.
 */
final class SmallPlace {
    private static final Logger LOG = LoggerFactory.getLogger(SmallPlace.class);
    private static final double GAP = 12;
    /** How high the masthead and the air strip are, which nothing may cover. */
    private static final double HEAD = 120;
    private static final String X = "small-window.x";
    private static final String Y = "small-window.y";

    private final Path file;

    SmallPlace() {
        this(Path.of(System.getProperty("rombix.settings",
                System.getProperty("user.home") + "/Rombix/settings.properties")));
    }

    /** @param file where it is remembered */
    SmallPlace(Path file) {
        this.file = file;
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
        if (!Files.isReadable(file)) {
            return Optional.empty();
        }
        try (Reader in = Files.newBufferedReader(file)) {
            Properties all = new Properties();
            all.load(in);
            return Optional.of(new Point2D(Double.parseDouble(all.getProperty(X, "")), Double.parseDouble(all
                    .getProperty(Y, ""))));
        } catch (IOException | IllegalArgumentException e) {
            return Optional.empty(); // It opens beside the main window, then.
        }
    }

    /** Has it open here next time. */
    void remember(double x, double y) {
        Properties all = new Properties();
        try {
            if (Files.isReadable(file)) {
                try (Reader in = Files.newBufferedReader(file)) {
                    all.load(in);
                }
            }
            all.setProperty(X, String.valueOf(x));
            all.setProperty(Y, String.valueOf(y));
            Path folder = file.toAbsolutePath().getParent();
            if (folder != null) {
                Files.createDirectories(folder);
            }
            try (Writer out = Files.newBufferedWriter(file)) {
                all.store(out, null);
            }
        } catch (IOException | IllegalArgumentException e) {
            LOG.warn("where the small window stands could not be remembered: {}", e.getMessage());
        }
    }
}
