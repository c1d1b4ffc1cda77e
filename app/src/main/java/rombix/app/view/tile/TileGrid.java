package rombix.app.view.tile;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.GridPane;
import rombix.app.view.common.Desk;
import rombix.core.board.Button;
import rombix.core.board.Page;

/**
 * The buttons of a page as they stand to each other, without the empty cells around them, to be pressed. At most one is
 * held at a time; whoever takes the grid away lets go of it.
 */
public final class TileGrid extends GridPane {
    private static final double GAP = 6;

    private final Desk desk;
    private final List<Tile> tiles = new ArrayList<>();
    private final Runnable released;
    private final String where;
    private final HeldButton held;

    /**
     * @param width of a cell, and {@code height}
     * @param where the window that it is in, as the log names who pressed; empty for the main one
     * @param released told when a press is over
     */
    public TileGrid(Desk desk, Page page, String id, double width, double height, String where, Runnable released) {
        super(GAP, GAP);
        this.where = where.isEmpty() ? "" : " in " + where;
        this.desk = desk;
        held = new HeldButton(desk);
        this.released = released;
        int left = page.buttons().stream().mapToInt(Button::column).min().orElse(0);
        int top = page.buttons().stream().mapToInt(Button::row).min().orElse(0);
        for (Button b : page.buttons()) {
            Tile tile = new Tile(b, desk);
            tile.setId(id + b.id());
            double w = b.width() * (width + GAP) - GAP;
            double h = b.height() * (height + GAP) - GAP;
            tile.setMinSize(w, h);
            tile.setPrefSize(w, h);
            tile.setMaxSize(w, h);
            tile.show(b, false);
            handle(tile);
            tiles.add(tile);
            add(tile, b.column() - left, b.row() - top, b.width(), b.height());
        }
    }

    private void handle(Tile tile) {
        new ControlDrag(desk, tile, held::control);
        tile.addEventHandler(MouseEvent.MOUSE_PRESSED, e -> {
            if (e.getButton() == MouseButton.PRIMARY
                    && (tile.button().control() == null || tile.button().control().pressed())) {
                press(tile, "mouse");
            }
        });
        tile.addEventHandler(MouseEvent.MOUSE_RELEASED, e -> {
            if (e.getButton() == MouseButton.PRIMARY) {
                release("mouse");
            }
        });
        tile.addEventHandler(KeyEvent.KEY_PRESSED, e -> key(tile, e));
        tile.addEventHandler(KeyEvent.KEY_RELEASED, e -> {
            if (e.getCode() == KeyCode.SPACE) {
                release("key");
                e.consume();
            }
        });
    }

    private void key(Tile tile, KeyEvent e) {
        if (e.getCode() == KeyCode.SPACE) {
            if (held.button() == null) { // The keyboard repeats a key that is held.
                press(tile, "key");
            }
            e.consume();
        } else if (e.getCode().isArrowKey() && !e.isConsumed()) {
            int by = e.getCode() == KeyCode.LEFT || e.getCode() == KeyCode.UP ? -1 : 1;
            Node next = tiles.get(Math.floorMod(tiles.indexOf(tile) + by, tiles.size()));
            next.requestFocus();
            e.consume();
        }
    }

    private void press(Tile tile, String source) {
        if (!desk.building()) {
            held.press(tile.button().id(), source + where);
        }
    }

    private void release(String source) {
        if (held.release(source + where)) {
            released.run();
        }
    }

    /** Something other than the hand ends what is held here. */
    public void letGo() {
        held.letGo();
    }

    /** Shows the buttons as they are now. */
    public void refresh() {
        tiles.forEach(
                t -> t.show(desk.bench().rig().button(t.button().id()).orElse(t.button()), false));
    }

    public void focusFirst() {
        if (!tiles.isEmpty()) {
            tiles.getFirst().requestFocus();
        }
    }
}
