package rombix.app.view.panels;

import java.util.Arrays;
import java.util.List;
import javafx.application.Platform;
import javafx.geometry.Rectangle2D;
import javafx.scene.Scene;
import javafx.scene.control.Label;
import javafx.scene.image.ImageView;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import javafx.stage.Screen;
import javafx.stage.Stage;
import rombix.app.view.common.Shapes;
import rombix.app.view.common.Styles;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.thread.OwnedBy;
import rombix.standins.booth.Booth;
import rombix.standins.booth.BoothLook;

/** The screen of the booth's stand-in computer, half as large, with a log of what came in beside it. */
@OwnedBy(Owner.INTERFACE)
public final class BoothWindow {
    private static final double SCALE = 0.5;
    private static final double LOG = 210;
    private static final int LINES = 18;
    private static final double BAR = 40;

    private final Booth booth;
    private final Stage stage = new Stage();
    private final Pane screen = new Pane();
    private final Label log = Styles.label("", "read");
    private boolean due;
    private boolean met;

    /** Comes when the booth is worked for the first time. */
    public static void beside(Booth booth, Scene main) {
        new BoothWindow(booth, main).draw();
    }

    private BoothWindow(Booth booth, Scene main) {
        this.booth = booth;
        stage.setTitle("Booth, a stand-in computer");
        screen.getStyleClass().addAll("booth", "night");
        screen.setPrefSize(BoothLook.WIDTH * SCALE + LOG, BoothLook.HEIGHT * SCALE);
        Scene scene = new Scene(screen);
        scene.getStylesheets().setAll(main.getStylesheets());
        stage.setScene(scene);
        booth.watch(() -> Platform.runLater(this::changed));
        draw();
    }

    private void changed() {
        if (!due) { // However much comes in, it is drawn once.
            due = true;
            Platform.runLater(() -> {
                due = false;
                draw();
                if (!met) { // It comes when it is worked for the first time; who closes it is done with it.
                    met = true;
                    Rectangle2D all = Screen.getPrimary().getVisualBounds();
                    stage.setX(all.getMaxX() - screen.getPrefWidth());
                    stage.setY(all.getMaxY() - screen.getPrefHeight() - BAR);
                    stage.show();
                }
            });
        }
    }

    private void draw() {
        BoothLook now = booth.look();
        WritableImage shown = new WritableImage(BoothLook.WIDTH, BoothLook.HEIGHT);
        shown.getPixelWriter().setPixels(0, 0, BoothLook.WIDTH, BoothLook.HEIGHT, PixelFormat.getIntArgbInstance(),
                Arrays
                        .stream(booth.picture()).map(p -> p | 0xFF000000).toArray(),
                0, BoothLook.WIDTH);
        ImageView picture = new ImageView(shown);
        picture.setFitWidth(BoothLook.WIDTH * SCALE);
        picture.setPreserveRatio(true);
        screen.getChildren().setAll(picture);
        for (BoothLook.Window w : now.windows().reversed()) {
            window(w, now);
        }
        var mark = Shapes.rhombus(12, "hint-mark");
        mark.relocate(now.pointerX() * SCALE - 6, now.pointerY() * SCALE - 6);
        screen.getChildren().add(mark);
        List<String> lines = now.log();
        log.setText("Received\n" + String.join("\n", lines.subList(Math.max(0, lines.size() - LINES), lines.size()))
                + (now.down().isEmpty() ? "" : "\n\nDown now: " + String.join(", ", now.down())));
        log.relocate(BoothLook.WIDTH * SCALE + 10, 10);
        log.setPrefWidth(LOG - 20);
        log.setWrapText(true);
        screen.getChildren().add(log);
    }

    private void window(BoothLook.Window w, BoothLook now) {
        BoothLook.Area a = w.area();
        Label title = Styles.label(w.title() + (now.windows().getFirst() == w ? ", in front" : ""), "gear-name");
        title.relocate(a.x() * SCALE + 6, a.y() * SCALE + 4);
        screen.getChildren().add(title);
        if (w.id() != 1) {
            return;
        }
        Label text = Styles.label(now.text(), "booth-text");
        text.setWrapText(true);
        put(text, a.x() + 20, a.y() + 50, a.width() - 40, 230);
        above("slide " + now.slides(), BoothLook.NEXT, a);
        above("clip " + now.clips(), BoothLook.CLIP, a);
        Label brightness = Styles.label("Brightness " + now.slider(), "where");
        brightness.relocate((a.x() + BoothLook.SLIDER.x()) * SCALE, (a.y() + BoothLook.SLIDER.y() + 26) * SCALE);
        screen.getChildren().add(brightness);
    }

    /** Words above a button. */
    private void above(String words, BoothLook.Area area, BoothLook.Area in) {
        Label label = Styles.label(words, "where");
        label.relocate((in.x() + area.x()) * SCALE, (in.y() + area.y() - 34) * SCALE);
        screen.getChildren().add(label);
    }

    private void put(Region what, double x, double y, double width, double height) {
        what.setPrefSize(width * SCALE, height * SCALE);
        what.setMinSize(width * SCALE, height * SCALE);
        what.setMaxSize(width * SCALE, height * SCALE);
        what.relocate(x * SCALE, y * SCALE);
        screen.getChildren().add(what);
    }
}
