package rombix.app.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.ZoneId;
import java.util.Set;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import rombix.running.log.LogCsv;
import rombix.running.log.LogRow.Kind;
import rombix.running.log.LogStore.Query;
import rombix.running.log.LogStore;

/** Prints the as-run log of a board as CSV, oldest row first. */
@Command(name = "log", mixinStandardHelpOptions = true, description = "Prints a board's as-run log as CSV, oldest first.")
final class LogCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec = CommandSpec.create();
    @Parameters(index = "0", paramLabel = "BOARD", description = "The board file.")
    private Path board = Path.of("");
    @Option(names = "--last", paramLabel = "N", description = "At most this many rows, newest first kept (default 1000).")
    private int last = 1000;
    @Option(names = "--faults", description = "Only failures.")
    private boolean faults;
    @Option(names = "--find", paramLabel = "WORDS", description = "Only rows that contain all of these words.")
    private String words = "";

    @Override
    public Integer call() throws IOException {
        PrintWriter out = spec.commandLine().getOut();
        Path file = LogStore.beside(board);
        if (!Files.exists(file)) {
            spec.commandLine().getErr().println("No log for " + board + " yet: nothing has run on it.");
            return 2;
        }
        try (LogStore store = new LogStore(file)) {
            LogCsv.write(store.find(new Query(words, faults ? Set.of(Kind.FAULT) : Set.of(), 0, Long.MAX_VALUE, last))
                    .reversed(), ZoneId.systemDefault(), out);
            out.flush();
            return 0;
        } catch (LogStore.Trouble e) {
            spec.commandLine().getErr().println(e.getMessage());
            return 2;
        }
    }
}
