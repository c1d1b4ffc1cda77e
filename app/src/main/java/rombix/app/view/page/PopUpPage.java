package rombix.app.view.page;

import java.time.LocalTime;
import java.time.format.DateTimeFormatter;
import java.util.Optional;
import javafx.scene.Scene;
import javafx.scene.control.Label;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.VBox;
import javafx.stage.Stage;
import javafx.stage.Window;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.tile.TileGrid;
import rombix.core.board.Page;

/**
 * A page that pops up at the pointer for one press: it goes when that press ends, with Escape, or with a click outside.
 * Whatever makes it go lets go of what is held on it. When the window comes to the front with one that was there before,
 * the first click is not taken at once: it may be meant for the page beneath.
 */
final class PopUpPage {
    private static final double WIDTH = 132;
    private static final double HEIGHT = 84;
    /** For how long no click is taken once the window has come to the front. */
    private static final long SHIELD_MILLIS = 400;
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH:mm:ss");

    private final Desk desk;
    private @Nullable TileGrid grid;
    private @Nullable VBox box;
    private LocalTime opened = LocalTime.MIDNIGHT;
    private long openedNanos;

    /** @param scene of the window that it pops up in */
    PopUpPage(Desk desk, Scene scene) {
        this.desk = desk;
        desk.model().watch(_ -> {
            if (grid != null) {
                grid.refresh();
            }
        });
        scene.addEventFilter(MouseEvent.MOUSE_ENTERED, e -> {
            if (e.getTarget() == scene) {
                raised();
            }
        });
        scene.windowProperty().addListener((_, _, window) -> watch(window));
        watch(scene.getWindow());
    }

    private void watch(@Nullable Window window) {
        if (window instanceof Stage stage) {
            stage.focusedProperty().addListener((_, _, focused) -> {
                if (focused) {
                    raised();
                }
            });
            stage.iconifiedProperty().addListener((_, _, iconified) -> {
                if (!iconified) {
                    raised();
                }
            });
        }
    }

    /** The window has come to the front: what popped up before that was perhaps seen by nobody. */
    private void raised() {
        VBox now = box;
        if (now == null || System.nanoTime() - openedNanos < SHIELD_MILLIS * 1_000_000L) {
            return;
        }
        desk.overlay().shield(SHIELD_MILLIS);
        if (!now.getStyleClass().contains("waited")) {
            now.getStyleClass().add("waited");
            Label since = new Label("Opened at " + opened.format(TIME));
            since.getStyleClass().add("where");
            now.getChildren().add(1, since);
            desk.overlay().requestLayout();
        }
    }

    /** Shows a page at a point of the scene; an empty or unknown one is not shown. */
    void open(String pageId, double sceneX, double sceneY) {
        Optional<Page> page = desk.bench().rig().page(pageId).filter(p -> !p.buttons().isEmpty());
        page.ifPresent(p -> {
            desk.overlay().close();
            Label name = new Label(p.name());
            name.getStyleClass().add("gear-name");
            TileGrid tiles = new TileGrid(desk, p, "pop-up-", WIDTH, HEIGHT, "", desk.overlay()::close);
            VBox made = new VBox(Space.S6, name, tiles);
            made.setId("pop-up-page");
            desk.overlay().showAt(made, sceneX, sceneY, () -> {
                tiles.letGo();
                grid = null;
                box = null;
            });
            grid = tiles;
            box = made;
            opened = LocalTime.now();
            openedNanos = System.nanoTime();
            tiles.focusFirst();
        });
    }
}
