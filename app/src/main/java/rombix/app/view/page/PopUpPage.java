package rombix.app.view.page;

import java.util.Optional;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.tile.TileGrid;
import rombix.core.board.Page;

/**
 * A page that pops up at the pointer for one press: it goes when that press ends, with Escape, or with a click outside.
 * Whatever makes it go lets go of what is held on it.
 */
final class PopUpPage {
    private static final double WIDTH = 132;
    private static final double HEIGHT = 84;

    private final Desk desk;
    private @Nullable TileGrid grid;

    PopUpPage(Desk desk) {
        this.desk = desk;
        desk.model().watch(_ -> {
            if (grid != null) {
                grid.refresh();
            }
        });
    }

    /** Shows a page at a point of the scene; an empty or unknown one is not shown. */
    void open(String pageId, double sceneX, double sceneY) {
        Optional<Page> page = desk.bench().rig().page(pageId).filter(p -> !p.buttons().isEmpty());
        page.ifPresent(p -> {
            desk.overlay().close();
            Label name = new Label(p.name());
            name.getStyleClass().add("gear-name");
            TileGrid tiles = new TileGrid(desk, p, "pop-up-", WIDTH, HEIGHT, desk.overlay()::close);
            VBox box = new VBox(Space.S6, name, tiles);
            box.setId("pop-up-page");
            desk.overlay().showAt(box, sceneX, sceneY, () -> {
                tiles.letGo();
                grid = null;
            });
            grid = tiles;
            tiles.focusFirst();
        });
    }
}
