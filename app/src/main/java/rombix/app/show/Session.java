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
import rombix.core.event.Mode;
import rombix.core.store.BadFile;
import rombix.links.desktop.Desktop;
import rombix.running.LeftBehind;
import rombix.running.RunningDeck;
import rombix.running.input.TriggerInputs;
import rombix.running.log.LogStore;
import rombix.running.owner.OpenedBoard;
import rombix.running.owner.Settings;
import rombix.running.owner.Trust;
import rombix.web.BrowserPages;
import rombix.web.access.AccessList;

/** A window on a board, with its show behind it. */
public final class Session implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(Session.class);
    /** Held, as a logger that nobody holds forgets its level. */
    private static final java.util.logging.Logger TOOLKIT = java.util.logging.Logger.getLogger("javafx");
    private static final AtomicBoolean STARTED = new AtomicBoolean();

    private final RunningDeck deck;
    private final ShippedPractice practice;
    private final MainWindow window;
    private final BrowserPages pages;
    private final CountDownLatch closed = new CountDownLatch(1);

    /** Starts the toolkit; offscreen where that is asked for. It starts once in a process, however often it is asked. */
    public static void startToolkit(boolean offscreen) {
        if (STARTED.getAndSet(true)) {
            return;
        }
        TOOLKIT.setLevel(java.util.logging.Level.SEVERE); // It warns of the class path.

        if (offscreen) {
            Display.inMemory();
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

    private Session(RunningDeck deck, MainWindow window, ShippedPractice practice, BrowserPages pages) {
        this.pages = pages;
        this.deck = deck;
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
        RunningDeck deck = new RunningDeck(addresses, log);
        Workbench[] under = new Workbench[1];
        TriggerInputs inputs = deck.listen(b -> {
            if (under[0].mode() == Mode.BUILD) {
                under[0].select(b);
            }
        }, addresses.containsKey(TriggerInputs.OSC) ? Integer.valueOf(addresses.get(TriggerInputs.OSC)) : null,
                Platform::runLater);
        ShippedPractice practice = new ShippedPractice();
        BrowserPages pages = new BrowserPages(deck, new AccessList(), new Settings());
        return onInterface(() -> {
            Workbench bench = new Workbench(read);
            under[0] = bench;
            MainWindow window = new MainWindow(bench, deck, practice, log, inputs, trust);
            Session session = new Session(deck, window, practice, pages);
            pages.whenNoticed(words -> Platform.runLater(() -> window.files().tell(List.of(words))));
            window.offer(pages);
            window.begin();
            window.files().tell(read.notices());
            deck.whenLogTroubled(why -> Platform.runLater(() -> window.files().log(why)));
            if (!window.guests().guest()) {
                LeftBehind.of(deck).ifPresent(left -> after(left, window));
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

    /** What was held or ran when Rombix was killed is ended, as the board says: asked, or always. */
    private static void after(LeftBehind left, MainWindow window) {
        if (left.always()) {
            left.end();
            window.files().tell(List.of(left.words() + " It was ended now."));
        } else {
            window.files().ask(left.words(), "End it now", left::end, "Leave it as it is", left::forget);
        }
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
        deck.whenReached(deck.rig(), () -> Platform.runLater(() -> window.bench().mode(
                Mode.LIVE)));
    }

    /** What runs behind the window, and could without it. */
    public RunningDeck deck() {
        return deck;
    }

    /** Its pages in browsers. */
    public BrowserPages pages() {
        return pages;
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
        pages.close();
        deck.close();
        practice.close();
    }
}
