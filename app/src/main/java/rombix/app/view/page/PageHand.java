package rombix.app.view.page;

import java.util.HashSet;
import java.util.Set;
import java.util.function.Function;
import javafx.scene.Node;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Desk;
import rombix.app.view.tile.Tile;
import rombix.core.engine.Event;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;

/** The hand that presses on the page: it holds one button at most, and whatever ends the hold releases it, once. */
@OwnedBy(Owner.INTERFACE)
public final class PageHand {
    private final Desk desk;
    private final Function<String, @Nullable Tile> tiles;
    private final Set<String> controls = new HashSet<>();
    private @Nullable String pressed;
    /** Whether the hold goes on though the page has changed under it. */
    private boolean through;

    /** @param tiles the tile of a button of the page that is shown */
    PageHand(Desk desk, Function<String, @Nullable Tile> tiles) {
        this.desk = desk;
        this.tiles = tiles;
    }

    boolean holds(String button) {
        return button.equals(pressed);
    }

    /** Another page is shown: that lets go, unless the page is shown for as long as the button is held. */
    void turned() {
        if (!through) {
            letGo();
        }
    }

    /** The focus has left a tile. */
    void left(Tile tile) {
        if (!through && tile.button().id().equals(pressed)) {
            letGo();
        }
    }

    /** Does what changes the page for as long as a button is held: that does not let go of it. */
    void through(Runnable change) {
        through = true;
        change.run();
        through = pressed != null;
    }

    /** A finger is lifted whose button may no longer be here. */
    public void handOff(String source, Object target) {
        if (through && !(target instanceof Node n && within(n, pressed))) {
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
    void control(String button, boolean held) {
        if (held) {
            controls.add(button);
        } else {
            controls.remove(button);
        }
    }

    /** Something other than the hand ends what is held here. */
    public void letGo() {
        through = false;
        controls.forEach(b -> desk.post().accept(new Event.LetGo(b, "let go")));
        controls.clear();
        if (pressed != null) {
            desk.post().accept(new Event.LetGo(pressed, "let go"));
            pressed = null;
        }
    }

    void release(String source) {
        if (pressed != null) {
            desk.release(pressed, source);
            pressed = null;
            through = false;
        }
    }

    void press(Tile tile, String source) {
        release(source);
        pressed = tile.button().id();
        desk.press(tile.button().id(), source);
    }
}
