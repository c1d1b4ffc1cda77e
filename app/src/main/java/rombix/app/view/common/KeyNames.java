package rombix.app.view.common;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import javafx.scene.input.KeyEvent;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Trigger;

/** Names of keys, in boards and in the list of commands. */
public final class KeyNames {
    private static final String[][] SIGNS = {{"Page Up", "PgUp"}, {"Page Down", "PgDn"}, {"Right", "→"}, {"Left", "←"},
            {"+Up", "+↑"}, {"+Down", "+↓"}, {"Period", "."}, {"Slash", "/"}, {"Minus", "−"}, {"Equals", "="}, {"Plus",
                    "+"}};

    private KeyNames() {
    }

    /** A key event as boards write it: {@code Ctrl+Shift+K}. */
    public static String name(KeyEvent e) {
        List<String> parts = new ArrayList<>();
        if (e.isControlDown()) {
            parts.add("Ctrl");
        }
        if (e.isAltDown()) {
            parts.add("Alt");
        }
        if (e.isShiftDown()) {
            parts.add("Shift");
        }
        if (e.isMetaDown()) {
            parts.add("Meta");
        }
        parts.add(e.getCode().getName());
        return String.join("+", parts);
    }

    /** A key as people read it: with arrows and signs for their names. */
    public static String shown(String key) {
        String shown = key;
        for (String[] sign : SIGNS) {
            shown = shown.replace(sign[0], sign[1]);
        }
        return shown;
    }

    /**
     * The button that a key presses; null where it presses none.
     *
     * @param seen whether keys that press everywhere come from elsewhere, this window included
     */
    public static @Nullable Button pressedBy(KeyEvent e, Board board, boolean seen) {
        Trigger key = new Trigger.Key(name(e).toUpperCase(Locale.ROOT)).normal();
        return board.buttons().filter(b -> b.triggers().stream().anyMatch(t -> t instanceof Trigger.Key k && !(seen && k
                .everywhere()) && k.normal().equals(key))).findFirst().orElse(null);
    }
}
