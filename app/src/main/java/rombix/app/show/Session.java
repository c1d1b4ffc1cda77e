package rombix.app.show;

import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CountDownLatch;
import java.util.function.Consumer;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.stage.Stage;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.Workbench;
import rombix.app.view.DeckModel;
import rombix.app.view.MainWindow;
import rombix.core.board.Board;
import rombix.core.board.Rig;
import rombix.core.store.BadFile;
import rombix.core.store.BoardFile;

/** A window on a board, with its show behind it. */
public final class Session implements AutoCloseable {
    private final Show show;
    private final MainWindow window;
    private final CountDownLatch closed = new CountDownLatch(1);

    /** Whether there is a screen to show a window on. */
    public static boolean hasDisplay() {
        return !System.getProperty("os.name", "").toLowerCase(java.util.Locale.ROOT).contains("linux")
                || System.getenv("DISPLAY") != null || System.getenv("WAYLAND_DISPLAY") != null;
    }

    /** Starts the toolkit; offscreen where there is no display, or where that is asked for. Once in a process. */
    public static void startToolkit(boolean offscreen) {
        java.util.logging.Logger.getLogger("javafx").setLevel(java.util.logging.Level.SEVERE); // It warns of the class path.

        if (offscreen) {
            System.setProperty("glass.platform", "Headless");
            System.setProperty("prism.order", "sw");
            System.setProperty("java.awt.headless", "true");
        }
        CountDownLatch started = new CountDownLatch(1);
        Platform.startup(() -> {
            Platform.setImplicitExit(false);
            Application.setUserAgentStylesheet(new atlantafx.base.theme.PrimerDark().getUserAgentStylesheet());
            started.countDown();
        });
        try {
            started.await();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private Session(Show show, MainWindow window) {
        this.show = show;
        this.window = window;
    }

    /**
     * Opens a board in a window. Not on the interface's thread.
     *
     * @param addresses addresses that take the place of the board's, by gear
     * @param stage told of the stage before it is shown, on the interface's thread; no stage is shown when null
     */
    public static Session open(Path file, Map<String, String> addresses, @Nullable Consumer<Stage> stage)
            throws BadFile {
        Rig read = BoardFile.read(file);
        Optional<Board> journal = BoardFile.unsaved(file, read.cards());
        DeckModel model = new DeckModel();
        Show show = new Show(addresses, model::feed);
        show.load(read);
        return onInterface(() -> {
            Workbench bench = new Workbench(file, read);
            MainWindow window = new MainWindow(bench, model, show);
            Session session = new Session(show, window);
            if (journal.isPresent()) {
                bench.edit("changes from before", _ -> journal.get());
                window.broughtBack();
            }
            if (stage != null) {
                Stage s = new Stage();
                stage.accept(s);
                window.show(s);
                s.setOnHidden(_ -> session.closed.countDown());
            }
            return session;
        });
    }

    /** Runs something on the interface's thread and waits for what it gives. */
    public static <T> T onInterface(java.util.concurrent.Callable<T> what) {
        java.util.concurrent.FutureTask<T> task = new java.util.concurrent.FutureTask<>(what);
        Platform.runLater(task);
        try {
            return task.get();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        } catch (java.util.concurrent.ExecutionException e) {
            throw new IllegalStateException(e.getCause());
        }
    }

    public MainWindow window() {
        return window;
    }

    public Show show() {
        return show;
    }

    /** Waits until the window is closed, or so many milliseconds. */
    public void await(@Nullable Long millis) throws InterruptedException {
        if (millis == null) {
            closed.await();
        } else {
            closed.await(millis, java.util.concurrent.TimeUnit.MILLISECONDS);
        }
    }

    @Override
    public void close() {
        onInterface(() -> {
            window.closing();
            return true;
        });
        show.close();
    }
}
