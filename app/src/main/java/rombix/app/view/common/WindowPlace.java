package rombix.app.view.common;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import javafx.application.Platform;
import javafx.geometry.Rectangle2D;
import javafx.scene.Scene;
import javafx.scene.SnapshotParameters;
import javafx.scene.image.Image;
import javafx.scene.layout.StackPane;
import javafx.scene.paint.Color;
import javafx.stage.Screen;
import javafx.stage.Stage;
import javafx.stage.WindowEvent;
import org.jspecify.annotations.Nullable;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.running.owner.Settings;

/** Where the window opens: where it was last, else in the middle; always wholly on a screen. Its icon, too. */
@OwnedBy(Owner.INTERFACE)
public final class WindowPlace {
    private static final String KEY = "window.place";
    private static final double WIDTH = 1280;
    private static final double HEIGHT = 832;
    private static final int[] ICONS = {16, 32, 48, 64, 128};

    private final Settings settings;

    /** @param settings where it is remembered */
    public WindowPlace(Settings settings) {
        this.settings = settings;
    }

    /** Puts a stage in its place before it is shown; one that has a size already stays as it is. */
    public void put(Stage stage) {
        if (!Double.isNaN(stage.getWidth())) {
            return;
        }
        Optional<Rectangle2D> last = remembered();
        Rectangle2D screen = last.map(at -> Screen.getScreensForRectangle(at.getMinX(), at.getMinY(), at.getWidth(), at
                .getHeight())).filter(all -> !all.isEmpty()).map(List::getFirst).orElse(Screen.getPrimary())
                .getVisualBounds();
        Rectangle2D at = within(last.orElse(null), screen);
        stage.setX(at.getMinX());
        stage.setY(at.getMinY());
        stage.setWidth(at.getWidth());
        stage.setHeight(at.getHeight());
        stage.addEventHandler(WindowEvent.WINDOW_SHOWN, _ -> Platform.runLater(() -> {
            if (stage.isMaximized()) {
                return;
            }
            stage.setX(at.getMinX() + 1); // How thick the frame is, the system knows only once the window is there.
            stage.setX(at.getMinX());
            stage.setY(at.getMinY() + 1);
            stage.setY(at.getMinY());
        }));
        stage.setMaximized(settings.get(KEY).filter(s -> s.endsWith(" maximised")).isPresent());
    }

    /** The place of a window, with its title bar, on a screen: what was asked, moved and cut so that all of it is seen. */
    static Rectangle2D within(@Nullable Rectangle2D asked, Rectangle2D screen) {
        double width = Math.min(asked == null ? WIDTH : asked.getWidth(), screen.getWidth());
        double height = Math.min(asked == null ? HEIGHT : asked.getHeight(), screen.getHeight());
        double x = asked == null ? screen.getMinX() + (screen.getWidth() - width) / 2 : asked.getMinX();
        double y = asked == null ? screen.getMinY() + (screen.getHeight() - height) / 2 : asked.getMinY();
        return new Rectangle2D(Math.clamp(x, screen.getMinX(), screen.getMaxX() - width),
                Math.clamp(y, screen.getMinY(),
                        screen.getMaxY() - height),
                width, height);
    }

    /** Opens here next time; a window in full screen or shrunk to an icon has no place of its own. */
    public void remember(Stage stage) {
        if (stage.isFullScreen() || stage.isIconified()) {
            return;
        }
        settings.set(Map.of(KEY, stage.isMaximized()
                ? remembered().map(WindowPlace::words).orElse("0 0 " + WIDTH + " " + HEIGHT) + " maximised"
                : words(new Rectangle2D(stage.getX(), stage.getY(), stage.getWidth(), stage.getHeight()))));
    }

    private static String words(Rectangle2D at) {
        return at.getMinX() + " " + at.getMinY() + " " + at.getWidth() + " " + at.getHeight();
    }

    private Optional<Rectangle2D> remembered() {
        return settings.get(KEY).filter(s -> s.matches("(-?[\\d.]+ ){2}[\\d.]+ [\\d.]+( maximised)?")).map(s -> {
            double[] all = Arrays.stream(s.split(" ")).limit(4).mapToDouble(Double::parseDouble).toArray();
            return new Rectangle2D(all[0], all[1], all[2], all[3]);
        });
    }

    /** The mark in the sizes that title bars and task bars want. */
    public static List<Image> icons() {
        return IntStream.of(ICONS).mapToObj(WindowPlace::icon).toList();
    }

    private static Image icon(int size) {
        StackPane mark = new StackPane(Shapes.rhombus(size - 2, "mark"));
        mark.getStyleClass().add("night");
        Scene scene = new Scene(mark, size, size, Color.TRANSPARENT);
        scene.getStylesheets().setAll(Tokens.sheets());
        mark.setStyle("-fx-background-color: transparent;");
        mark.applyCss();
        SnapshotParameters clear = new SnapshotParameters();
        clear.setFill(Color.TRANSPARENT);
        return mark.snapshot(clear, null);
    }
}
