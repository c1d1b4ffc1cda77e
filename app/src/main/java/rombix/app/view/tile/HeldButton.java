package rombix.app.view.tile;

import java.util.HashSet;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Desk;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;

/**
 * What a hand holds at tiles: one button at most, and the controls that it moves. Whatever ends the hold releases it,
 * once.
 */
@OwnedBy(Owner.INTERFACE)
public final class HeldButton {
    private static final String LET_GO = "let go";

    private final Desk desk;
    private final Set<String> controls = new HashSet<>();
    private @Nullable String pressed;
    /** With what it is held, such as {@code mouse}. */
    private String by = "";

    public HeldButton(Desk desk) {
        this.desk = desk;
    }

    /** The id of the button that is held; null where none is. */
    public @Nullable String button() {
        return pressed;
    }

    /** A control is held down from now on, or no longer. */
    public void control(String button, boolean held) {
        desk.port().off(button, held);
        if (held) {
            controls.add(button);
        } else {
            controls.remove(button);
        }
    }

    /** Presses a button, and releases the one that is held, with whatever that is. */
    public void press(String button, String source) {
        release(by);
        pressed = button;
        by = source;
        desk.port(source).press(button);
    }

    /** Releases the button that is held with this. @return whether one was */
    public boolean release(String source) {
        String held = pressed;
        if (held == null || !source.equals(by)) {
            return false;
        }
        pressed = null;
        desk.port(source).release(held);
        return true;
    }

    /** Something other than the hand ends what is held here. */
    public void letGo() {
        controls.forEach(c -> desk.port().letGo(c, LET_GO));
        controls.clear();
        if (pressed != null) {
            desk.port(by).letGo(pressed, LET_GO);
            pressed = null;
        }
    }
}
