package rombix.app.view.window;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Shapes;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.common.Theme;
import rombix.app.view.common.Tokens;
import rombix.app.view.form.Fields;
import rombix.app.view.tile.MiniPage;
import rombix.core.board.Page;

/** What Rombix shows where it does not know which board is wanted: the demo, a new board, one from a file, or a recent one. */
public final class Welcome {
    private static final double WIDTH = 1000;
    private static final double HEIGHT = 730;
    private static final double LOW = 510;
    private static final double ICON = 56;
    private static final double WAYS_HEIGHT = 400;
    private static final double PICTURE_WIDTH = 496;
    private static final double PICTURE_HEIGHT = 310;

    /** What was chosen: a board's file, else the demo or a new board. */
    public record Choice(What what, @Nullable Path board) {
        /** What is to be opened. */
        public enum What {
            DEMO, NEW, BOARD
        }
    }

    /** A board that was open before, with the page it begins with. */
    public record Recent(Path file, String name, @Nullable Page first) {
    }

    private final Scene scene;

    /**
     * @param trouble why the board that was open last is not opened; empty where there was none
     * @param chosen told once, on the interface's thread
     */
    public Welcome(List<Recent> recent, String trouble, Theme theme, Consumer<Choice> chosen) {
        Label name = Styles.label("Rombix", "welcome-name");
        Label what = Styles.label("A grid of buttons. One press runs the whole chain.", "quiet");
        HBox head = new HBox(Space.S14, Shapes.rhombus(34, "welcome-mark"), new VBox(Space.S3, name, what));
        head.setAlignment(Pos.CENTER_LEFT);
        VBox box = new VBox(Space.S16, head);
        box.getStyleClass().add("welcome");
        theme.show(box);
        if (!trouble.isEmpty()) {
            Label why = Fields.read(trouble);
            why.getStyleClass().add("trouble");
            why.setMaxWidth(WIDTH - 80);
            box.getChildren().add(why);
        }
        Button demo = way("welcome-demo", "Try the demo", "A complete show with simulated gear on this computer",
                () -> chosen
                        .accept(new Choice(Choice.What.DEMO, null)));
        picture().ifPresent(((VBox) demo.getGraphic()).getChildren()::addFirst);
        demo.setMinSize(PICTURE_WIDTH + 2 * Space.S12, WAYS_HEIGHT);
        VBox others = new VBox(Space.S10, way("welcome-new", "New board", "Start with your gear, then add buttons",
                () -> chosen.accept(new Choice(Choice.What.NEW, null))),
                way("welcome-open", "Open…",
                        "Open a board file", () -> open(chosen)));
        illustrate(others.getChildren().get(0), "mdi2v-view-grid-plus-outline");
        illustrate(others.getChildren().get(1), "mdi2f-folder-open-outline");
        HBox.setHgrow(others, Priority.ALWAYS);
        HBox ways = new HBox(Space.S10, demo, others);
        ways.setMinHeight(WAYS_HEIGHT);
        ways.setMaxHeight(WAYS_HEIGHT);
        box.getChildren().add(ways);
        if (!recent.isEmpty()) {
            FlowPane boards = new FlowPane(Space.S10, Space.S10);
            recent.forEach(r -> boards.getChildren().add(recent(r, chosen)));
            box.getChildren().addAll(Styles.label("Recent boards", "gear-name"), boards);
        }
        scene = new Scene(box, WIDTH, recent.isEmpty() ? LOW : HEIGHT);
        scene.getStylesheets().setAll(Tokens.sheets());
    }

    public Scene scene() {
        return scene;
    }

    private static void illustrate(Node way, String icon) {
        Button button = (Button) way;
        button.setPrefHeight((WAYS_HEIGHT - Space.S10) / 2);
        Shapes.icon(icon, ICON).ifPresent(((VBox) button.getGraphic()).getChildren()::addFirst);
    }

    /** The demo as it looks in Live; nothing where the picture does not ship. */
    private static Optional<Node> picture() {
        try (InputStream in = Welcome.class.getResourceAsStream("/rombix/app/live-night.png")) {
            return in == null
                    ? Optional.empty()
                    : Optional.of(new ImageView(new Image(in, PICTURE_WIDTH, PICTURE_HEIGHT, true, true)));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static Button way(String id, String title, String about, Runnable act) {
        Label head = Styles.label(title, "welcome-way");
        Label text = Styles.label(about, "quiet");
        text.setWrapText(true);
        VBox words = new VBox(Space.S4, head, text);
        Button way = new Button();
        way.setId(id);
        way.setGraphic(words);
        way.setAccessibleText(title + ". " + about);
        way.getStyleClass().setAll("button", "choice-tile");
        way.setMaxWidth(Double.MAX_VALUE);
        way.setMaxHeight(Double.MAX_VALUE);
        way.setMinHeight(0);
        VBox.setVgrow(way, Priority.ALWAYS);
        way.setAlignment(Pos.TOP_LEFT);
        way.setOnAction(_ -> act.run());
        return way;
    }

    private static Button recent(Recent r, Consumer<Choice> chosen) {
        Label name = new Label(r.name());
        name.setMaxWidth(MiniPage.WIDTH);
        Button open = new Button();
        open.setId("welcome-recent-" + r.file().getFileName());
        open.setGraphic(new VBox(Space.S6, new MiniPage(r.first()), name));
        open.setAccessibleText("Open " + r.name());
        open.getStyleClass().setAll("button", "choice-tile");
        open.setOnAction(_ -> chosen.accept(new Choice(Choice.What.BOARD, r.file())));
        return open;
    }

    private void open(Consumer<Choice> chosen) {
        FileChooser chooser = new FileChooser();
        chooser.setTitle("Open a board");
        chooser.getExtensionFilters().add(new FileChooser.ExtensionFilter("Boards", "*.json"));
        java.io.File file = chooser.showOpenDialog(scene.getWindow());
        if (file != null) {
            chosen.accept(new Choice(Choice.What.BOARD, file.toPath()));
        }
    }
}
