package rombix.app.view.step;

import java.io.ByteArrayInputStream;
import java.util.ArrayList;
import java.util.Base64;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Rectangle;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Shapes;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.core.board.Board;
import rombix.core.computer.Layout;
import rombix.core.computer.Place;
import rombix.core.sight.Match;
import rombix.core.sight.Pixels;
import rombix.core.sight.Search;
import rombix.core.twin.Twin;

/** How a picture is looked for on the screen, with what is found as the screen is now. */
final class FindField extends VBox {
    private static final double PREVIEW = 150;
    private static final double MAP = 280;
    private static final int MOST = 64;

    private final Desk desk;
    private final String id;
    private final @Nullable Twin twin;
    private final Consumer<Place.OnPicture> changed;
    private final Label found = Fields.read("");
    private final Pane map = new Pane();
    private Place.OnPicture now;
    private @Nullable Pixels screen;
    private int searches;

    /** @param screen what was to be seen when the picture was framed; null where that is to be looked at first */
    FindField(Desk desk, String id, @Nullable Twin twin, Place.OnPicture place, @Nullable Pixels screen,
            Consumer<Place.OnPicture> changed) {
        super(Space.S6);
        this.desk = desk;
        this.id = id;
        this.twin = twin;
        this.now = place;
        this.screen = screen;
        this.changed = changed;
        found.setId(id + "-found");
        found.setWrapText(true);
        build();
        if (screen == null && twin != null && !ShowMe.hides(desk, twin)) { // Looked at without anything in the way.
            sceneProperty().addListener((_, _, scene) -> {
                if (scene != null && this.screen == null) {
                    look();
                }
            });
        }
        search();
    }

    private void build() {
        HBox top = new HBox(Space.S10, preview());
        VBox beside = new VBox(Space.S6, Fields.named("Name", Fields.text(id + "-called", desk.picture(now.picture())
                .map(Board.Picture::name).orElse(""), this::rename)), whole());
        HBox.setHgrow(beside, Priority.ALWAYS);
        top.getChildren().add(beside);
        List<String> places = new ArrayList<>(places());
        if (!places.contains(now.within())) {
            places.add(now.within());
        }
        ComboBox<String> within = Fields.choice(id + "-within", places, now.within(), FindField::words, w -> become(
                new Place.OnPicture(now.picture(), w, now.alike(), now.which(), now.x(), now.y(), now.millis())));
        within.setMaxWidth(Double.MAX_VALUE);
        ComboBox<Place.Which> which = Fields.choice(id + "-which", List.of(Place.Which.values()), now.which(),
                Place.Which::words, w -> become(new Place.OnPicture(now.picture(), now.within(), now.alike(), w, now
                        .x(), now.y(), now.millis())));
        which.setMaxWidth(Double.MAX_VALUE);
        HBox alike = Fields.slider("alike", 50, 100, now.alike(), "%", a -> become(new Place.OnPicture(now.picture(),
                now.within(), (int) Math.round(a), now.which(), now.x(), now.y(), now.millis())));
        HBox result = new HBox(Space.S8, found);
        Button look = Fields.plain("Look now", "");
        look.setId(id + "-look");
        look.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
        look.setOnAction(_ -> look());
        HBox.setHgrow(found, Priority.ALWAYS);
        found.setMaxWidth(Double.MAX_VALUE);
        result.getChildren().add(look);
        result.setAlignment(Pos.CENTER_LEFT);
        map.setId(id + "-map");
        getChildren().setAll(top, Fields.named("Search in", within), Fields.named("Minimum match", alike), Fields.named(
                "Match", which),
                Fields.named("May be missing for", Fields.span(id + "-wait", now.millis(), ms -> become(
                        new Place.OnPicture(now.picture(), now.within(), now.alike(), now.which(), now.x(), now.y(),
                                (int) (long) ms)))),
                result, map);
    }

    /** The picture, in which the pixel that is meant is clicked. */
    private Pane preview() {
        Pane pane = new Pane();
        pane.setId(id + "-preview");
        desk.picture(now.picture()).ifPresent(p -> {
            Image image = new Image(new ByteArrayInputStream(Base64.getDecoder().decode(p.data())));
            double scale = Math.min(PREVIEW / image.getWidth(), PREVIEW / 2 / image.getHeight());
            ImageView view = new ImageView(image);
            view.setSmooth(false);
            view.setFitWidth(image.getWidth() * scale);
            view.setFitHeight(image.getHeight() * scale);
            var mark = Shapes.rhombus(10, "found-mark");
            mark.setMouseTransparent(true);
            mark.relocate((now.x() < 0 ? image.getWidth() / 2 : now.x()) * scale - 5, (now.y() < 0
                    ? image.getHeight() / 2
                    : now.y()) * scale - 5);
            pane.getChildren().setAll(view, mark);
            view.setOnMouseClicked(e -> {
                become(new Place.OnPicture(now.picture(), now.within(), now.alike(), now.which(), (int) (e.getX()
                        / scale), (int) (e.getY() / scale), now.millis()));
                build();
            });
        });
        return pane;
    }

    private Button whole() {
        Button middle = Fields.plain(now.x() < 0 ? "Click the target" : "Centre", "");
        middle.setId(id + "-middle");
        middle.setDisable(now.x() < 0);
        middle.setOnAction(_ -> {
            become(new Place.OnPicture(now.picture(), now.within(), now.alike(), now.which(), -1, -1, now.millis()));
            build();
        });
        return middle;
    }

    private void rename(String name) {
        String next = name.isBlank() ? "Captured" : name.strip();
        desk.bench().edit("call a picture “" + next + "”", b -> b.withPictures(b.pictures().stream().map(p -> p.id()
                .equals(now.picture()) ? new Board.Picture(p.id(), next, p.data()) : p).toList()));
    }

    private Layout layoutNow() {
        Twin.Readings readings = twin == null ? Twin.Readings.NONE : desk.model().state().readings(twin.gear());
        return Layout.of(readings.apply("windows"), readings.apply("screens"));
    }

    private Set<String> places() {
        Set<String> all = new LinkedHashSet<>(List.of("everywhere"));
        for (int i = 1; i <= layoutNow().screens().size(); i++) {
            all.add("screen " + i);
        }
        layoutNow().windows().forEach(w -> all.add("window " + w.of()));
        return all;
    }

    private static String words(String within) {
        return within.startsWith("window ")
                ? "in the window of “" + within.substring(7) + "”"
                : within.equals("everywhere") ? "everywhere" : "on " + within;
    }

    private void become(Place.OnPicture next) {
        now = next;
        changed.accept(next);
        search();
    }

    /** Looks at the screen anew. */
    private void look() {
        ShowMe.see(desk, twin, getScene().getWindow(), (seen, back) -> {
            back.run();
            screen = seen;
            search();
        });
    }

    /** What is found as the screen was when it was last looked at; off the interface's thread. */
    private void search() {
        Pixels seen = screen;
        Image picture = desk.picture(now.picture()).map(p -> new Image(new ByteArrayInputStream(Base64.getDecoder()
                .decode(p.data())))).orElse(null);
        if (seen == null || picture == null || picture.isError()) {
            found.setText(picture == null ? "That picture was deleted." : "");
            return;
        }
        int mine = ++searches;
        int width = (int) picture.getWidth();
        int height = (int) picture.getHeight();
        int[] rgb = new int[width * height];
        picture.getPixelReader().getPixels(0, 0, width, height, javafx.scene.image.PixelFormat.getIntArgbInstance(),
                rgb,
                0, width);
        for (int i = 0; i < rgb.length; i++) {
            rgb[i] &= 0xFFFFFF;
        }
        Place.OnPicture asked = now;
        Thread.ofVirtual().name("search").start(() -> {
            List<Match> all = Search.all(seen, new Pixels(width, height, rgb), asked.alike() / 100.0, MOST);
            Platform.runLater(() -> {
                if (mine == searches) {
                    showMatches(seen, all, asked);
                }
            });
        });
    }

    private void showMatches(Pixels seen, List<Match> all, Place.OnPicture asked) {
        String scores = all.stream().limit(6).map(m -> Math.round(m.alike() * 100) + " %").collect(Collectors.joining(
                ", "));
        found.setText(switch (all.size()) {
            case 0 -> "Not on screen right now";
            case 1 -> "Found: " + scores + ".";
            default -> "Found at %d places: %s.%s".formatted(all.size(), scores, asked.which() == Place.Which.SOLE
                    ? " Choose which one to use."
                    : "");
        });
        double scale = MAP / seen.width();
        ImageView small = new ImageView(ShowMe.image(seen));
        small.setFitWidth(MAP);
        small.setFitHeight(seen.height() * scale);
        map.getChildren().setAll(small);
        for (Match m : all) {
            Rectangle box = new Rectangle(m.x() * scale - 2, m.y() * scale - 2, m.width() * scale + 4,
                    m.height() * scale
                            + 4);
            box.getStyleClass().add("lens");
            Label score = Styles.label(Math.round(m.alike() * 100) + " %", "found-score");
            score.relocate(Math.min(MAP - 40, m.x() * scale), Math.max(0, m.y() * scale - 18));
            map.getChildren().addAll(box, score);
        }
    }
}
