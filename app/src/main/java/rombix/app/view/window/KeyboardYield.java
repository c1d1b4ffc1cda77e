package rombix.app.view.window;

import java.nio.file.Path;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.TextInputControl;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Region;
import javafx.stage.Stage;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.Workbench;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Manner;
import rombix.core.board.Rig;
import rombix.core.event.Mode;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.thread.OwnedBy;
import rombix.core.trust.Asks;
import rombix.links.desktop.Desktop;

/**
 * Whether the main window leaves the keyboard to the program in front when it is clicked. In Live it does so by itself
 * where the board types into that program, unless somebody chose otherwise. A text field of the window still gets the
 * keyboard while it is typed in. The interface's thread's.
 */
@OwnedBy(Owner.INTERFACE)
final class KeyboardYield {
    private static final long RECENT_NANOS = 2_000_000_000L;

    private final Workbench bench;
    private final Scene scene;
    private final ToggleButton control = new ToggleButton();
    /** What somebody chose for this board; null where nobody did. */
    private @Nullable Boolean chosen;
    private Path file;
    private Rig last;
    private boolean yields;
    /** Whether a text field has the keyboard meanwhile. */
    private boolean lent;
    private @Nullable Rig read;
    private boolean types;
    private long pressedNanos = System.nanoTime() - RECENT_NANOS;

    KeyboardYield(Desk desk, Scene scene) {
        this.bench = desk.bench();
        this.scene = scene;
        file = bench.file();
        last = bench.rig();
        control.setId("keyboard-yield");
        control.getStyleClass().setAll("toggle-button", "plain");
        control.setFocusTraversable(false);
        control.setMinWidth(Region.USE_PREF_SIZE);
        control.setMinHeight(48);
        control.setTooltip(new Tooltip("""
                Where keys go after a click in this window: to the program in front, or to Rombix. Ctrl+Shift+P"""));
        control.setOnAction(_ -> toggle());
        bench.watch(this::arrange);
        scene.addEventFilter(MouseEvent.MOUSE_PRESSED, e -> {
            pressedNanos = System.nanoTime();
            if (in(e.getTarget() instanceof Node n ? n : null)) {
                lend();
            }
        });
        scene.focusOwnerProperty().addListener((_, _, owner) -> {
            if (in(owner) && System.nanoTime() - pressedNanos < RECENT_NANOS) {
                lend(); // The hand is here: what it types is meant for the field.
            } else if (!in(owner)) {
                takeBack();
            }
        });
        arrange();
    }

    private static boolean in(@Nullable Node node) {
        Node at = node;
        while (at != null && !(at instanceof TextInputControl)) {
            at = at.getParent();
        }
        return at != null;
    }

    /** The switch for it, shown in Live where it matters. */
    ToggleButton control() {
        return control;
    }

    /** Whether a click in the window leaves the program in front in front. */
    boolean yields() {
        return yields;
    }

    void toggle() {
        chosen = !yields;
        arrange();
    }

    private void arrange() {
        boolean live = bench.mode() == Mode.LIVE;
        Rig rig = bench.rig();
        if (!bench.file().equals(file) && rig != last) { // Another board, not this one under another name.
            chosen = null;
        }
        file = bench.file();
        last = rig;
        if (live && rig != read) {
            read = rig;
            types = Asks.typesInFront(rig);
        }
        boolean wanted = chosen == null ? live && types : chosen;
        if (wanted != yields) {
            yields = wanted;
            lent = false;
            keyboard(!yields);
        }
        control.setVisible(live && (types || yields));
        control.setManaged(control.isVisible());
        control.setSelected(yields);
        control.setText(yields ? "Keys go to the program in front" : "Keys go to Rombix");
    }

    private void lend() {
        if (yields && !lent) {
            lent = true;
            keyboard(true);
        }
    }

    private void takeBack() {
        if (lent) {
            lent = false;
            keyboard(false);
        }
    }

    private void keyboard(boolean here) {
        if (scene.getWindow() instanceof Stage stage) {
            boolean had = stage.isFocused();
            Manner.of(stage).keyboard(here);
            if (here) {
                stage.requestFocus();
            } else if (had) {
                Desktop.passKeyboardOn();
            }
        }
    }
}
