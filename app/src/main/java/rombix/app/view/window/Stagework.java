package rombix.app.view.window;

import javafx.scene.Parent;
import javafx.scene.Scene;
import javafx.scene.input.KeyCombination;
import javafx.stage.Stage;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Theme;
import rombix.app.view.common.Tokens;
import rombix.app.view.page.SmallWindow;
import rombix.running.owner.Settings;

/** The window as such: its scene with fonts, styles and colours, the whole screen, and the small window beside it. */
public final class Stagework {
    /** The two looks. */
    private static final double MIN_WIDTH = 1024;
    private static final double MIN_HEIGHT = 700;

    private final Desk desk;
    private final Scene scene;
    private @Nullable SmallWindow small;
    private final KeyboardYield keyboard;

    Stagework(Desk desk, Parent root) {
        this.desk = desk;
        scene = new Scene(root, 1280, 800);
        scene.getStylesheets().setAll(Tokens.sheets());
        theme(Theme.chosen(new Settings()));
        keyboard = new KeyboardYield(desk, scene);
    }

    Scene scene() {
        return scene;
    }

    void theme(Theme theme) {
        theme.show(scene.getRoot());
    }

    void otherTheme() {
        Theme other = Theme.of(scene.getRoot()).other();
        theme(other);
        other.keep(new Settings());
    }

    /** Brings the window to the front. */
    public void toFront() {
        if (scene.getWindow() instanceof Stage stage) {
            stage.setIconified(false);
            stage.toFront();
            stage.requestFocus();
        }
    }

    /** Puts the scene on a stage that is not shown yet; its title is that of the board. */
    void on(Stage stage) {
        stage.setScene(scene);
        stage.setFullScreenExitKeyCombination(KeyCombination.NO_MATCH); // Escape closes popovers, not the show.
        stage.setMinWidth(MIN_WIDTH);
        stage.setMinHeight(MIN_HEIGHT);
        Runnable title = () -> stage.setTitle(desk.bench().board().name() + " · Rombix");
        title.run();
        desk.bench().watch(title);
    }

    /** The whole screen for the window that shows the scene, or a part of it again. */
    void fullScreen() {
        if (scene.getWindow() instanceof Stage stage) {
            stage.setFullScreen(!stage.isFullScreen());
        }
    }

    /** Whether the window leaves the keyboard to other programs. */
    KeyboardYield keyboard() {
        return keyboard;
    }

    /** Shows the present page in a small window of its own, or takes that away; gives its scene. */
    public Scene smallWindow() {
        SmallWindow now = small == null ? new SmallWindow(desk, scene) : small;
        small = now;
        if (now.showing()) {
            now.close();
        } else {
            now.show(desk.bench().page());
        }
        return now.scene();
    }

    /** The small window; null as long as there was none. */
    public @Nullable SmallWindow small() {
        return small;
    }

    /** Takes the small window away. */
    void close() {
        if (small != null) {
            small.close();
        }
    }
}
