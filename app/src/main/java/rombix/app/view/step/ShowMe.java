package rombix.app.view.step;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.animation.PauseTransition;
import javafx.geometry.Rectangle2D;
import javafx.scene.Cursor;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.Label;
import javafx.scene.image.ImageView;
import javafx.scene.image.WritableImage;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import javafx.scene.robot.Robot;
import javafx.scene.shape.Rectangle;
import javafx.stage.Screen;
import javafx.stage.Stage;
import javafx.stage.StageStyle;
import javafx.stage.Window;
import javafx.util.Duration;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.PictureFile;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Styles;
import rombix.core.board.Board.Picture;
import rombix.core.card.Twin;
import rombix.core.computer.Layout;
import rombix.core.computer.Place;

/**
 * Dims a computer's screens so that a place on them is shown by a click. Of this computer what is on the screens is seen; of
 * one that is only known by its readings, the outlines of its windows.
 */
final class ShowMe {
    private static final Duration OUT_OF_THE_WAY = Duration.millis(350);
    private static final double LENS = 64;
    private static final int SEEN_WIDTH = 96;
    private static final int SEEN_HEIGHT = 60;

    /** A place that was shown. @param places ways to say it, the likeliest first */
    record Shown(List<Place> places, @Nullable Picture picture) {
    }

    private final Layout layout;
    private final List<Stage> stages = new ArrayList<>();
    private final Consumer<Shown> then;
    private final Runnable after;

    private ShowMe(Layout layout, Consumer<Shown> then, Runnable after) {
        this.layout = layout;
        this.then = then;
        this.after = after;
    }

    /** @param by the window that asks; it gets out of the way meanwhile */
    static void place(Desk desk, @Nullable Twin twin, Window by, Consumer<Shown> then) {
        Twin.Readings now = twin == null ? Twin.Readings.NONE : desk.model().readings(twin.gear());
        Layout layout = Layout.of(now.apply("windows"), now.apply("screens"));
        if (layout.screens().isEmpty() || !layout.screens().getFirst().title().startsWith("screen")) {
            ShowMe drawn = new ShowMe(layout, then, () -> {
            });
            drawn.outlines(by);
            return;
        }
        Stage stage = by instanceof Stage s ? s : null;
        if (stage != null) {
            stage.setIconified(true);
        }
        PauseTransition wait = new PauseTransition(OUT_OF_THE_WAY);
        wait.setOnFinished(_ -> {
            String own = stage == null ? "" : String.valueOf(stage.getTitle());
            ShowMe seen = new ShowMe(layout.without(own), then, () -> {
                if (stage != null) {
                    stage.setIconified(false);
                    stage.toFront();
                }
            });
            seen.screens();
        });
        wait.play();
    }

    private void screens() {
        for (Screen screen : Screen.getScreens()) {
            Rectangle2D bounds = screen.getBounds();
            WritableImage picture = new Robot().getScreenCapture(null, bounds);
            ImageView dimmed = new ImageView(picture);
            dimmed.setFitWidth(bounds.getWidth());
            dimmed.setFitHeight(bounds.getHeight());
            show(bounds, dimmed, picture, screen.getOutputScaleX());
        }
    }

    /** The windows of a computer whose screen cannot be seen, as its readings tell of them. */
    private void outlines(Window by) {
        Layout.Box screen = layout.screens().isEmpty()
                ? new Layout.Box(0, 0, 1280, 800, "", "")
                : layout.screens().getFirst();
        Pane drawn = new Pane();
        drawn.getStyleClass().add("outlines");
        for (Layout.Box w : layout.windows().reversed()) {
            Label title = Styles.label(w.title(), "gear-name");
            Region box = new Region();
            box.getStyleClass().add("outline");
            box.resizeRelocate(w.x(), w.y(), w.width(), w.height());
            box.setPrefSize(w.width(), w.height());
            title.relocate(w.x() + 10, w.y() + 8);
            drawn.getChildren().addAll(box, title);
        }
        show(new Rectangle2D(by.getX(), by.getY(), screen.width(), screen.height()), drawn, null, 1);
    }

    private void show(Rectangle2D bounds, Node what, @Nullable WritableImage picture, double scale) {
        Stage stage = new Stage(StageStyle.UNDECORATED);
        stage.setTitle("Show me");
        stages.add(stage);
        Rectangle dim = new Rectangle(bounds.getWidth(), bounds.getHeight());
        dim.getStyleClass().add("dim");
        dim.setMouseTransparent(true);
        Label hint = Styles.label("Click the place. Escape leaves.", "show-hint");
        hint.setMouseTransparent(true);
        Rectangle lens = new Rectangle(LENS, LENS);
        lens.getStyleClass().add("lens");
        lens.setMouseTransparent(true);
        lens.setVisible(false);
        Pane root = new Pane(what, dim, lens, hint);
        root.setId("show-me");
        root.setCursor(Cursor.CROSSHAIR);
        hint.layoutXProperty().bind(root.widthProperty().subtract(hint.widthProperty()).divide(2));
        hint.setLayoutY(24);
        root.setOnMouseMoved(e -> {
            lens.setVisible(true);
            lens.relocate(e.getX() - LENS / 2, e.getY() - LENS / 2);
        });
        root.setOnMousePressed(e -> {
            double x = (picture == null ? 0 : bounds.getMinX() * scale) + e.getX() * scale;
            double y = (picture == null ? 0 : bounds.getMinY() * scale) + e.getY() * scale;
            close();
            then.accept(new Shown(layout.places(x, y, picture == null
                    ? null
                    : seen(picture, e.getX() / bounds.getWidth(), e.getY() / bounds.getHeight())), picture == null
                            ? null
                            : kept(picture, e.getX() / bounds.getWidth(), e.getY() / bounds.getHeight())));
        });
        Scene scene = new Scene(root, bounds.getWidth(), bounds.getHeight());
        scene.getStylesheets().setAll(ShowMe.class.getResource("/rombix/app/tokens.css").toExternalForm(), ShowMe.class
                .getResource("/rombix/app/rombix.css").toExternalForm());
        root.getStyleClass().add("night");
        scene.setOnKeyPressed(e -> {
            if (e.getCode() == KeyCode.ESCAPE) {
                close();
            }
        });
        stage.setScene(scene);
        stage.setX(bounds.getMinX());
        stage.setY(bounds.getMinY());
        stage.setAlwaysOnTop(true);
        stage.show();
        stage.requestFocus();
    }

    private static @Nullable String seen(WritableImage picture, double x, double y) {
        Picture kept = kept(picture, x, y);
        return kept == null ? null : kept.id();
    }

    /** A small picture of what was there. */
    private static @Nullable Picture kept(WritableImage picture, double x, double y) {
        int width = (int) Math.min(SEEN_WIDTH, picture.getWidth());
        int height = (int) Math.min(SEEN_HEIGHT, picture.getHeight());
        int left = (int) Math.clamp(x * picture.getWidth() - width / 2.0, 0, picture.getWidth() - width);
        int top = (int) Math.clamp(y * picture.getHeight() - height / 2.0, 0, picture.getHeight() - height);
        int[] pixels = new int[width * height];
        picture.getPixelReader().getPixels(left, top, width, height,
                javafx.scene.image.PixelFormat.getIntArgbInstance(),
                pixels, 0, width);
        return PictureFile.of("place", width, height, pixels);
    }

    private void close() {
        stages.forEach(Stage::close);
        after.run();
    }
}
