package rombix.app.view.window;

import java.util.EnumMap;
import java.util.Map;
import java.util.function.BooleanSupplier;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import rombix.app.view.common.Desk;
import rombix.app.view.common.KeyNames;
import rombix.app.view.page.PageView;
import rombix.app.view.page.SmallKey;
import rombix.core.board.Button;
import rombix.core.touch.DeckPort;
import rombix.running.input.Touches;

/**
 * The keyboard of the window: commands first, then, outside Build, the keys that press buttons. A key that the keyboard
 * repeats while it is held presses once.
 */
final class Keyboard {
    private final Desk desk;
    private final Scene scene;
    private final Commands commands;
    private final PageView page;
    private final Touches touches;
    private final SmallKey smallKey;
    private final BooleanSupplier escape;
    private final EditOnAir onAir;
    private final Map<KeyCode, DeckPort> held = new EnumMap<>(KeyCode.class);
    /** Whether the key that was pressed last was a command. */
    private boolean commanded;

    /** @param escape what Escape ends where no popover is open; whether there was anything */
    Keyboard(Desk desk, Scene scene, Commands commands, PageView page, Touches touches, SmallKey smallKey,
            EditOnAir onAir, BooleanSupplier escape) {
        this.onAir = onAir;
        this.desk = desk;
        this.scene = scene;
        this.commands = commands;
        this.page = page;
        this.touches = touches;
        this.smallKey = smallKey;
        this.escape = escape;
        scene.addEventFilter(KeyEvent.KEY_PRESSED, this::pressed);
        scene.addEventFilter(KeyEvent.KEY_RELEASED, this::released);
        scene.addEventFilter(KeyEvent.KEY_TYPED, e -> {
            if (commanded) {
                e.consume(); // The key was a command: its letter is not for the field that the command opened.
            }
        });
    }

    private void pressed(KeyEvent e) {
        boolean typing = scene.getFocusOwner() instanceof TextInputControl;
        boolean ended = e.getCode() == KeyCode.ESCAPE && !desk.overlay().showing() && escape.getAsBoolean();
        Node focus = scene.getFocusOwner();
        commanded = ended || smallKey.pressed(e) || onAir.run(e, focus) || commands.run(e, focus)
                || !desk.building() && !typing && !onAir.has(focus) && presses(e);
        if (commanded) {
            e.consume();
        }
    }

    /** Presses the button whose key it is. */
    private boolean presses(KeyEvent e) {
        Button b = KeyNames.pressedBy(e, desk.bench().board(), touches.keysSeen());
        if (b != null && !held.containsKey(e.getCode())) {
            DeckPort key = desk.port("key " + KeyNames.name(e));
            held.put(e.getCode(), key);
            key.press(b.id());
        }
        return b != null;
    }

    private void released(KeyEvent e) {
        if (e.getCode() == KeyCode.SPACE) {
            page.hand().handOff("key", e.getTarget());
        }
        DeckPort key = held.remove(e.getCode());
        if (key != null) {
            key.releaseAll();
        }
    }

    /** Another window comes in front: what keys hold here is let go. */
    void letGo() {
        held.values().forEach(key -> key.letGo("another window in front"));
        held.clear();
    }
}
