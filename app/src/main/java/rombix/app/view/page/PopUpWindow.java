package rombix.app.view.page;

import javafx.geometry.Point2D;
import javafx.geometry.Pos;
import javafx.geometry.Rectangle2D;
import javafx.scene.Parent;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.Screen;
import javafx.stage.Stage;
import javafx.stage.StageStyle;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Manner;
import rombix.app.view.common.Space;
import rombix.app.view.common.Theme;
import rombix.app.view.form.Fields;
import rombix.app.view.tile.TileGrid;
import rombix.core.board.Page;

/**
 * A page that pops up in a window of its own, on top of everything, where the main window is not in sight or the press
 * came from another one. It leaves the keyboard alone. It goes when a press on it ends, with Escape, or with its ×.
 */
final class PopUpWindow {
    /** How the log names it where somebody pressed in it. */
    static final String NAME = "the pop-up window";
    private static final double WIDTH = 132;
    private static final double HEIGHT = 84;
    private static final double TOUCH = 48;

    private final Desk desk;
    private final Scene main;
    private @Nullable Stage stage;
    private @Nullable TileGrid grid;

    /** @param main the scene whose colours it wears */
    PopUpWindow(Desk desk, Scene main) {
        this.desk = desk;
        this.main = main;
        desk.model().watch(_ -> {
            if (grid != null) {
                grid.refresh();
            }
        });
        desk.bench().watch(() -> {
            if (desk.building()) {
                close();
            }
        });
    }

    /** Shows a page near a point of the screen; an empty or unknown one is not shown. */
    void open(String pageId, Point2D near) {
        desk.bench().rig().page(pageId).filter(p -> !p.buttons().isEmpty()).ifPresent(p -> show(p, near));
    }

    private void show(Page page, Point2D near) {
        close();
        Stage made = new Stage(StageStyle.UNDECORATED);
        TileGrid tiles = new TileGrid(desk, page, "pop-up-", WIDTH, HEIGHT, NAME, this::close);
        Label name = new Label(page.name());
        name.getStyleClass().add("gear-name");
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        Button close = Fields.plain("×", "");
        close.setId("pop-up-close");
        close.setMinSize(TOUCH, TOUCH);
        close.setAccessibleText("Close the pop-up");
        close.setOnAction(_ -> close());
        HBox head = new HBox(Space.S8, name, space, close);
        head.setAlignment(Pos.CENTER_LEFT);
        VBox box = new VBox(Space.S6, head, tiles);
        box.setId("pop-up-page");
        box.getStyleClass().addAll("small-window", "waited");
        Scene scene = new Scene(box);
        scene.getStylesheets().setAll(main.getStylesheets());
        Parent root = scene.getRoot();
        Theme.of(main.getRoot()).show(root);
        scene.addEventFilter(KeyEvent.KEY_PRESSED, e -> {
            if (e.getCode() == KeyCode.ESCAPE) {
                close();
                e.consume();
            }
        });
        made.setScene(scene);
        made.setTitle("Rombix, pop-up");
        made.setAlwaysOnTop(true);
        root.applyCss();
        Rectangle2D on = Screen.getScreensForRectangle(near.getX(), near.getY(), 1, 1).stream().findFirst().orElse(
                Screen.getPrimary()).getVisualBounds();
        Point2D at = SmallPlace.clamped(near, on, root.prefWidth(-1), root.prefHeight(-1));
        made.setX(at.getX());
        made.setY(at.getY());
        stage = made;
        grid = tiles;
        Manner.show(made).keyboard(false);
    }

    boolean showing() {
        return stage != null;
    }

    void close() {
        Stage now = stage;
        TileGrid tiles = grid;
        stage = null;
        grid = null;
        if (tiles != null) {
            tiles.letGo();
        }
        if (now != null) {
            now.close();
        }
    }
}
