package rombix.app.view.page;

import java.util.function.Function;
import javafx.scene.Node;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Desk;
import rombix.app.view.tile.HeldButton;
import rombix.app.view.tile.Tile;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;

/** The hand that presses on the page: it holds one button at most, and whatever ends the hold releases it, once. */
@OwnedBy(Owner.INTERFACE)
public final class PagePointer {
    private final HeldButton held;
    private final Function<String, @Nullable Tile> tiles;
    /** Whether the hold goes on though the page has changed under it. */
    private boolean through;

    /** @param tiles the tile of a button of the page that is shown */
    PagePointer(Desk desk, Function<String, @Nullable Tile> tiles) {
        held = new HeldButton(desk);
        this.tiles = tiles;
    }

    boolean holds(String button) {
        return button.equals(held.button());
    }

    /** Another page is shown: that lets go, unless the page is shown for as long as the button is held. */
    void turned() {
        if (!through) {
            letGo();
        }
    }

    /** The focus has left a tile. */
    void left(Tile tile) {
        if (!through && holds(tile.button().id())) {
            letGo();
        }
    }

    /** Does what changes the page for as long as a button is held: that does not let go of it. */
    void through(Runnable change) {
        through = true;
        change.run();
        through = held.button() != null;
    }

    /** A finger is lifted whose button may no longer be here. */
    public void handOff(String source, Object target) {
        if (through && !(target instanceof Node n && within(n, held.button()))) {
            release(source);
        }
    }

    private boolean within(Node node, @Nullable String id) {
        Tile tile = id == null ? null : tiles.apply(id);
        for (Node n = node; n != null; n = n.getParent()) {
            if (n == tile) {
                return true;
            }
        }
        return false;
    }

    /** A control is held down from now on, or no more. */
    void control(String button, boolean down) {
        held.control(button, down);
    }

    /** Something other than the hand ends what is held here. */
    public void letGo() {
        through = false;
        held.letGo();
    }

    void release(String source) {
        if (held.release(source)) {
            through = false;
        }
    }

    void press(Tile tile, String source) {
        through = false;
        held.press(tile.button().id(), source);
    }
}
