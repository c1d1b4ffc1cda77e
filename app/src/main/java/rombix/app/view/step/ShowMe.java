package rombix.app.view.step;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.animation.PauseTransition;
import javafx.application.Platform;
import javafx.geometry.Rectangle2D;
import javafx.scene.Cursor;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.Label;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import javafx.scene.shape.Rectangle;
import javafx.stage.Screen;
import javafx.stage.Stage;
import javafx.stage.StageStyle;
import javafx.stage.Window;
import javafx.util.Duration;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.file.PictureFile;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Styles;
import rombix.app.view.common.Tokens;
import rombix.core.board.Board.Picture;
import rombix.core.computer.Layout;
import rombix.core.computer.Place;
import rombix.core.sight.Pixels;
import rombix.core.twin.Twin;

/**
 * Dims a computer's screens so that a place on them is shown by a click, or a part of them by a drag. What is on the screens
 * is seen as the computer itself sees it; where it cannot be seen, the outlines of its windows are.
 */
final class ShowMe {
    private static final Duration OUT_OF_THE_WAY = Duration.millis(350);
    private static final double LENS = 64;
    private static final int SEEN_WIDTH = 96;
    private static final int SEEN_HEIGHT = 60;
    private static final double DRAGGED = 6;
    private static final int MOST_PIXELS = 512;

    /**
     * What was shown.
     *
     * @param places ways to say it, the likeliest first; for a part of a screen that alone
     * @param picture what is to be seen there; null where that cannot be seen
     * @param screen all that was to be seen; null where nothing was
     */
    record Shown(List<Place> places, @Nullable Picture picture, @Nullable Pixels screen) {
    }

    private final Layout layout;
    private final @Nullable Pixels seen;
    private final boolean framing;
    private final List<Stage> stages = new ArrayList<>();
    private final Consumer<Shown> then;
    private final Runnable after;

    private ShowMe(Layout layout, @Nullable Pixels seen, boolean framing, Consumer<Shown> then, Runnable after) {
        this.layout = layout;
        this.seen = seen;
        this.framing = framing;
        this.then = then;
        this.after = after;
    }

    /**
     * Has a place be shown, or a part of a screen.
     *
     * @param by the window that asks; it gets out of the way meanwhile
     * @param framing whether only a part will do, and only one that can be seen: if nothing can, that is told at once
     */
    static void place(Desk desk, @Nullable Twin twin, Window by, boolean framing, Consumer<Shown> then) {
        Layout layout = layout(desk, twin);
        see(desk, twin, by, (seen, back) -> {
            if (framing && seen == null) {
                back.run();
                then.accept(new Shown(List.of(), null, null));
                return;
            }
            String own = by instanceof Stage s ? String.valueOf(s.getTitle()) : "";
            ShowMe me = new ShowMe(here(layout) ? layout.without(own) : layout, seen, framing, then, back);
            if (here(layout)) {
                me.screens();
            } else {
                me.drawn(by);
            }
        });
    }

    private static Layout layout(Desk desk, @Nullable Twin twin) {
        Twin.Readings now = twin == null ? Twin.Readings.NONE : desk.model().state().readings(twin.gear());
        return Layout.of(now.apply("windows"), now.apply("screens"));
    }

    /** Whether its screens are those that this process shows its windows on. */
    private static boolean here(Layout layout) {
        return !layout.screens().isEmpty() && layout.screens().getFirst().title().startsWith("screen");
    }

    /** Whether the window that asks must get out of the way, as it would be in what is seen. */
    static boolean hides(Desk desk, Twin twin) {
        return here(layout(desk, twin));
    }

    /** Takes what was seen. */
    interface Seeing {
        /** @param back brings the window that asked back */
        void then(@Nullable Pixels seen, Runnable back);
    }

    /** Looks at a computer's screens, with the window that asks out of the way where it would be in it. */
    static void see(Desk desk, @Nullable Twin twin, Window by, Seeing then) {
        Stage stage = here(layout(desk, twin)) && by instanceof Stage s ? s : null;
        Runnable back = () -> {
            if (stage != null) {
                stage.setIconified(false);
                stage.toFront();
            }
        };
        Runnable look = () -> Thread.ofVirtual().name("look").start(() -> {
            Pixels seen = twin == null ? null : desk.look(twin.gear());
            Platform.runLater(() -> then.then(seen, back));
        });
        if (stage == null) {
            look.run();
            return;
        }
        stage.setIconified(true);
        PauseTransition wait = new PauseTransition(OUT_OF_THE_WAY);
        wait.setOnFinished(_ -> look.run());
        wait.play();
    }

    static Image image(Pixels of) {
        WritableImage image = new WritableImage(of.width(), of.height());
        int[] opaque = new int[of.rgb().length];
        for (int i = 0; i < opaque.length; i++) {
            opaque[i] = of.rgb()[i] | 0xFF000000;
        }
        image.getPixelWriter().setPixels(0, 0, of.width(), of.height(), PixelFormat.getIntArgbInstance(), opaque, 0, of
                .width());
        return image;
    }

    private void screens() {
        for (Screen screen : Screen.getScreens()) {
            Rectangle2D b = screen.getBounds();
            double scale = screen.getOutputScaleX();
            Pixels all = seen;
            Node what = new Pane();
            if (all != null) {
                int x = Math.clamp((int) Math.round(b.getMinX() * scale), 0, all.width() - 1);
                int y = Math.clamp((int) Math.round(b.getMinY() * scale), 0, all.height() - 1);
                ImageView picture = new ImageView(image(all.part(x, y, Math.min(all.width() - x, (int) Math.round(b
                        .getWidth() * scale)), Math.min(all.height() - y, (int) Math.round(b.getHeight() * scale)))));
                picture.setFitWidth(b.getWidth());
                picture.setFitHeight(b.getHeight());
                what = picture;
            }
            show(b, what, b.getMinX() * scale, b.getMinY() * scale, scale);
        }
    }

    /** The screen of another computer: what it shows, or the outlines of its windows. */
    private void drawn(Window by) {
        Layout.Box screen = layout.screens().isEmpty()
                ? new Layout.Box(0, 0, 1280, 800, "", "")
                : layout.screens().getFirst();
        Pane drawn = new Pane();
        drawn.getStyleClass().add("outlines");
        if (seen != null) {
            drawn.getChildren().add(new ImageView(image(seen)));
        }
        for (Layout.Box w : layout.windows().reversed()) {
            Label title = Styles.label(w.title(), "gear-name");
            title.relocate(w.x() + 10, w.y() + 8);
            if (seen == null) {
                Region box = new Region();
                box.getStyleClass().add("outline");
                box.resizeRelocate(w.x(), w.y(), w.width(), w.height());
                box.setPrefSize(w.width(), w.height());
                drawn.getChildren().add(box);
            }
            drawn.getChildren().add(title);
        }
        show(new Rectangle2D(by.getX(), by.getY(), screen.width(), screen.height()), drawn, 0, 0, 1);
    }

    /** @param left the pixel at the left edge, of all screens together */
    private void show(Rectangle2D bounds, Node what, double left, double top, double scale) {
        Stage stage = new Stage(StageStyle.UNDECORATED);
        stage.setTitle("Show me");
        stages.add(stage);
        Rectangle dim = new Rectangle(bounds.getWidth(), bounds.getHeight());
        dim.getStyleClass().add("dim");
        dim.setMouseTransparent(true);
        Label hint = Styles.label(framing
                ? "Drag around the picture. Esc cancels."
                : "Click the place, or drag around an area of the screen. Esc cancels.", "show-hint");
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
        double[] from = new double[2];
        root.setOnMouseMoved(e -> lens(lens, e.getX() - LENS / 2, e.getY() - LENS / 2, LENS, LENS));
        root.setOnMousePressed(e -> {
            from[0] = e.getX();
            from[1] = e.getY();
        });
        root.setOnMouseDragged(e -> lens(lens, Math.min(from[0], e.getX()), Math.min(from[1], e.getY()), Math.abs(e
                .getX() - from[0]), Math.abs(e.getY() - from[1])));
        root.setOnMouseReleased(e -> {
            double x = left + Math.min(from[0], e.getX()) * scale;
            double y = top + Math.min(from[1], e.getY()) * scale;
            double width = Math.abs(e.getX() - from[0]) * scale;
            double height = Math.abs(e.getY() - from[1]) * scale;
            if (width > DRAGGED && height > DRAGGED) {
                close();
                then.accept(part((int) x, (int) y, (int) width, (int) height));
            } else if (!framing) {
                close();
                Picture kept = kept((int) x - SEEN_WIDTH / 2, (int) y - SEEN_HEIGHT / 2, SEEN_WIDTH, SEEN_HEIGHT);
                then.accept(new Shown(layout.places(x, y, kept == null ? null : kept.id()), kept, seen));
            }
        });
        Scene scene = new Scene(root, bounds.getWidth(), bounds.getHeight());
        scene.getStylesheets().setAll(Tokens.sheets());
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

    private static void lens(Rectangle lens, double x, double y, double width, double height) {
        lens.setVisible(true);
        lens.setWidth(width);
        lens.setHeight(height);
        lens.relocate(x, y);
    }

    private Shown part(int x, int y, int width, int height) {
        Place.OnScreen on = layout.places(x, y, null).stream().filter(Place.OnScreen.class::isInstance).map(
                Place.OnScreen.class::cast).findFirst().orElse(new Place.OnScreen(1, x, y, null));
        return new Shown(List.of(new Place.Region(on.screen(), on.x(), on.y(), width, height)), kept(x, y, Math.min(
                width, MOST_PIXELS), Math.min(height, MOST_PIXELS)), seen);
    }

    /** A picture of what is to be seen in a part, moved as far as it must be to lie on the screens. */
    private @Nullable Picture kept(int left, int top, int width, int height) {
        Pixels all = seen;
        if (all == null) {
            return null;
        }
        int w = Math.min(width, all.width());
        int h = Math.min(height, all.height());
        Pixels part = all.part(Math.clamp(left, 0, all.width() - w), Math.clamp(top, 0, all.height() - h), w, h);
        return PictureFile.of(framing ? "Captured" : "place", w, h, part.rgb());
    }

    private void close() {
        stages.forEach(Stage::close);
        after.run();
    }
}
