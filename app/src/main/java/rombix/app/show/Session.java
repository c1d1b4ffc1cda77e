package rombix.app.show;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Consumer;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.stage.Stage;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import rombix.app.edit.Workbench;
import rombix.app.view.common.Fonts;
import rombix.app.view.window.MainWindow;
import rombix.core.board.Board;
import rombix.core.board.Rig;
import rombix.core.engine.Mode;
import rombix.core.store.BadFile;
import rombix.links.desktop.Desktop;
import rombix.running.Show;
import rombix.running.input.Inputs;
import rombix.running.log.Aftermath;
import rombix.running.log.LogStore;
import rombix.running.log.LogWriter;
import rombix.running.owner.OpenedBoard;
import rombix.running.owner.Trust;

/** A window on a board, with its show behind it. */
public final class Session implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(Session.class);
    /** Held, as a logger that nobody holds forgets its level. */
    private static final java.util.logging.Logger TOOLKIT = java.util.logging.Logger.getLogger("javafx");
    private static final AtomicBoolean STARTED = new AtomicBoolean();

    /** Among addresses: the port at which OSC messages are awaited that pull triggers. */
    public static final String OSC = "osc triggers";

    private final Show show;
    private final Inputs inputs;
    private final ShippedPractice practice;
    private final MainWindow window;
    private final CountDownLatch closed = new CountDownLatch(1);

    /** Whether there is a screen to show a window on. */
    public static boolean hasDisplay() {
        return !System.getProperty("os.name", "").toLowerCase(java.util.Locale.ROOT).contains("linux")
                || System.getenv("DISPLAY") != null || System.getenv("WAYLAND_DISPLAY") != null;
    }

    /** Starts the toolkit; offscreen where that is asked for. It starts once in a process, however often it is asked. */
    public static void startToolkit(boolean offscreen) {
        if (STARTED.getAndSet(true)) {
            return;
        }
        TOOLKIT.setLevel(java.util.logging.Level.SEVERE); // It warns of the class path.

        if (offscreen) {
            System.setProperty("glass.platform", "Headless");
            System.setProperty("prism.order", "sw");
            System.setProperty("java.awt.headless", "true");
        }
        CountDownLatch started = new CountDownLatch(1);
        Platform.startup(() -> {
            if (!offscreen) {
                Desktop.toolkitHandlesErrors();
            }
            com.sun.glass.ui.Application.GetApplication().setName(Desktop.WINDOW_CLASS); // The toolkit has no other way.
            Platform.setImplicitExit(false);
            Application.setUserAgentStylesheet(new atlantafx.base.theme.PrimerDark().getUserAgentStylesheet());
            Platform.runLater(Fonts::load);
            started.countDown();
        });
        try {
            started.await();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private Session(Show show, MainWindow window, Inputs inputs, ShippedPractice practice) {
        this.show = show;
        this.inputs = inputs;
        this.practice = practice;
        this.window = window;
    }

    /**
     * Opens a board of one's own, which is trusted, in a window. Not on the interface's thread.
     *
     * @param addresses addresses that take the place of the board's, by gear
     * @param logFile where the as-run log is kept; null where none is
     * @param stage told of the stage before it is shown, on the interface's thread; no stage is shown when null
     */
    public static Session open(Path file, Map<String, String> addresses, @Nullable Path logFile,
            @Nullable Consumer<Stage> stage) throws BadFile {
        return open(OpenedBoard.read(file), addresses, logFile, stage, Trust.all());
    }

    /**
     * Opens a board that was read already.
     *
     * @param trust what the owner of this computer has agreed to
     */
    public static Session open(OpenedBoard read, Map<String, String> addresses, @Nullable Path logFile,
            @Nullable Consumer<Stage> stage, Trust trust) {
        List<String> ofLog = new ArrayList<>();
        LogStore log = logFile == null ? null : LogStore.ofBoard(logFile, ofLog::add);
        Show[] playing = new Show[1];
        Workbench[] under = new Workbench[1];
        Inputs inputs = new Inputs(e -> playing[0].post(e), b -> {
            if (under[0].mode() == Mode.BUILD) {
                under[0].select(b);
            }
        }, addresses.containsKey(OSC) ? Integer.valueOf(addresses.get(OSC)) : null, Platform::runLater);
        LogWriter writer = log == null ? null : new LogWriter(log, Show.CLOCK, System::currentTimeMillis);
        Show show = new Show(addresses, inputs::accept, writer);
        show.feed().subscribe(Thread::startVirtualThread, inputs::see);
        playing[0] = show;
        ShippedPractice practice = new ShippedPractice();
        return onInterface(() -> {
            Workbench bench = new Workbench(read);
            under[0] = bench;
            MainWindow window = new MainWindow(bench, show, practice, log, inputs, trust);
            Session session = new Session(show, window, inputs, practice);
            window.begin();
            window.files().tell(read.notices());
            if (writer != null) {
                String[] last = {""};
                writer.whenTroubled(why -> {
                    if (!why.equals(last[0])) {
                        last[0] = why;
                        Platform.runLater(() -> window.files().log(why));
                    }
                });
            }
            if (log != null && !window.guests().guest()) {
                after(log, bench.rig(), show, window);
            }
            window.files().tell(ofLog);
            if (stage != null) {
                Stage s = new Stage();
                stage.accept(s);
                window.show(s);
                s.setOnHidden(_ -> session.closed.countDown());
            }
            return session;
        });
    }

    /** What was held or ran when Rombix was killed is ended, as the board says: asked, always, or never. */
    private static void after(LogStore log, Rig rig, Show show, MainWindow window) {
        try {
            Aftermath left = new Aftermath(log.leftOver()).of(rig);
            Board.AfterCrash then = rig.board().afterCrash();
            Runnable forget = () -> {
                try {
                    log.forget();
                } catch (LogStore.Trouble e) {
                    LOG.warn("what was going on before is asked again: {}", e.getMessage());
                }
            };
            Runnable end = () -> {
                left.ends(rig, show.known()).forEach(show::post);
                forget.run();
            };
            if (left.isEmpty() || then == Board.AfterCrash.NEVER) {
                forget.run();
                return;
            }
            if (then == Board.AfterCrash.ALWAYS) {
                show.whenReached(rig, end);
                window.files().tell(List.of("Rombix was killed while " + left.words(rig) + ". That is ended now."));
            } else {
                window.files().ask("Rombix was killed while " + left.words(rig) + ".", "End it now", end, "Leave it",
                        forget);
            }
        } catch (LogStore.Trouble e) {
            LOG.warn("what was going on before is not known: {}", e.getMessage());
        }
    }

    /** Where the log of a board is kept: beside it, hidden. */
    public static Path logOf(Path board) {
        return board.toAbsolutePath().resolveSibling("." + board.getFileName() + ".as-run");
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

    /** Goes live once the gear answers or is known not to: what the board does at the start is then sent to gear that is there. */
    public void goLive() {
        show.whenReached(onInterface(() -> window.bench().rig()), () -> Platform.runLater(() -> window.bench().mode(
                Mode.LIVE)));
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
        practice.close();
        inputs.close(); // Last: until the deck has ended it tells them what happens.
    }
}
