package rombix.app.view.window;

import java.nio.file.Path;
import java.util.List;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Shapes;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.common.Tokens;
import rombix.app.view.form.Fields;
import rombix.app.view.tile.MiniPage;
import rombix.core.board.Page;

/** What Rombix shows where it does not know which board is wanted: the demo, a new board, one from a file, or a recent one. */
public final class Welcome {
    private static final double WIDTH = 720;
    private static final double HEIGHT = 460;
    private static final double LOW = 250;
    private static final double WAY_HEIGHT = 104;

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
    public Welcome(List<Recent> recent, String trouble, Consumer<Choice> chosen) {
        Label name = Styles.label("Rombix", "welcome-name");
        Label what = Styles.label("A grid of buttons. One press runs the whole chain.", "quiet");
        HBox head = new HBox(Space.S14, Shapes.rhombus(34, "welcome-mark"), new VBox(Space.S3, name, what));
        head.setAlignment(Pos.CENTER_LEFT);
        VBox box = new VBox(Space.S16, head);
        box.getStyleClass().addAll("welcome", "night");
        if (!trouble.isEmpty()) {
            Label why = Fields.read(trouble);
            why.getStyleClass().add("trouble");
            why.setMaxWidth(WIDTH - 80);
            box.getChildren().add(why);
        }
        box.getChildren().add(new HBox(Space.S10, way("welcome-demo", "Try the demo",
                "A complete show with simulated gear on this computer", () -> chosen.accept(new Choice(Choice.What.DEMO,
                        null))),
                way("welcome-new", "New board", "Start with your gear, then add buttons", () -> chosen.accept(
                        new Choice(Choice.What.NEW, null))),
                way("welcome-open", "Open…", "Open a board file", () -> open(chosen))));
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
        way.setPrefWidth((WIDTH - 2 * Space.S22 - 2 * Space.S10) / 3);
        way.setMinHeight(WAY_HEIGHT);
        way.setMaxHeight(WAY_HEIGHT);
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
