package rombix.app.cli;

import java.nio.file.Path;
import java.util.Map;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import rombix.app.show.Session;
import rombix.core.board.Rig;
import rombix.core.store.BoardFile;

/** Opens a board in a window. */
@Command(name = "open", mixinStandardHelpOptions = true, description = "Opens a board in a window.")
final class OpenCommand implements Callable<Integer> {
    @Parameters(paramLabel = "BOARD", description = "The board file.")
    private Path board = Path.of("");

    @Option(names = "--for", converter = Span.class, paramLabel = "TIME", description = "Close after this time, such as 20s.")
    private @Nullable Long forMillis;

    @Override
    public Integer call() throws Exception {
        run(board, Map.of(), forMillis, () -> {
        });
        return 0;
    }

    /** What has to be so before a window opens. */
    interface Ready {
        void run() throws Exception;
    }

    /**
     * Shows a board until its window is closed, or for a time.
     *
     * @param ready waits for what else the window needs
     */
    static void run(Path board, Map<String, String> addresses, @Nullable Long forMillis, Ready ready) throws Exception {
        boolean offscreen = !Session.hasDisplay();
        Thread toolkit = Thread.ofPlatform().daemon().start(() -> Session.startToolkit(offscreen)); // Meanwhile:
        Rig read = BoardFile.read(board); // A bad board is told before anything opens.
        if (offscreen) {
            System.out.println("There is no display, so Rombix runs offscreen"
                    + (forMillis == null ? " until it is stopped (Ctrl+C)." : "."));
        }
        toolkit.join();
        ready.run();
        try (Session session = Session.open(board, read, addresses, Session.logOf(board), _ -> {
        })) {
            session.await(forMillis);
        }
    }
}
