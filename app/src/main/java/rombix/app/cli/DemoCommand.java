package rombix.app.cli;

import java.nio.file.Path;
import java.util.Map;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import rombix.app.show.DemoBoard;
import rombix.standins.StandIns;

/** Opens the demo board, with stand-ins for its gear. */
@Command(name = "demo", mixinStandardHelpOptions = true, description = {
        "Opens the demo board with simulated gear.",
        "It opens your own copy, kept in the folder Rombix of your home, so that you can change it and keep it."})
final class DemoCommand implements Callable<Integer> {
    @Option(names = "--for", converter = Span.class, paramLabel = "TIME", description = "Stop after this time, such as 20s.")
    private @Nullable Long forMillis;

    @Option(names = "--fresh", description = "Begin with the demo board as it ships; your copy is kept beside it.")
    private boolean fresh;

    @Override
    public Integer call() throws Exception {
        Path board = DemoBoard.copy(Path.of(System.getProperty("user.home"), "Rombix"), fresh);
        try (StandIns gear = StandIns.onTheirPorts()) {
            System.out.println("The demo board is " + board + "; its stand-ins run: " + gear.addresses());
            OpenCommand.run(board, Map.of(), forMillis);
        }
        return 0;
    }
}
