package rombix.app.cli;

import java.nio.file.Path;
import java.util.Map;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import rombix.app.show.Session;

/** Opens a board in a window. */
@Command(name = "open", mixinStandardHelpOptions = true, description = "Opens a board in a window.")
final class OpenCommand implements Callable<Integer> {
    @Parameters(paramLabel = "BOARD", description = "The board file.")
    private Path board = Path.of("");

    @Option(names = "--for", converter = Span.class, paramLabel = "TIME", description = "Close after this time, such as 20s.")
    private @Nullable Long forMillis;

    @Override
    public Integer call() throws Exception {
        run(board, Map.of(), forMillis);
        return 0;
    }

    /** Shows a board until its window is closed, or for a time. */
    static void run(Path board, Map<String, String> addresses, @Nullable Long forMillis) throws Exception {
        rombix.core.store.BoardFile.read(board); // A bad board is told before anything opens.
        boolean offscreen = !Session.hasDisplay();
        if (offscreen) {
            System.out.println("There is no display, so Rombix runs offscreen"
                    + (forMillis == null ? " until it is stopped (Ctrl+C)." : "."));
        }
        Session.startToolkit(offscreen);
        try (Session session = Session.open(board, addresses, Session.logOf(board), _ -> {
        })) {
            session.await(forMillis);
        }
    }
}
