package rombix.app.cli.open;

import java.io.IOException;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import org.jspecify.annotations.Nullable;
import org.slf4j.LoggerFactory;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import rombix.app.cli.option.Allow;
import rombix.app.cli.option.LaunchOptions;
import rombix.app.cli.option.Span;
import rombix.app.cli.option.WebOptions;
import rombix.app.cli.play.Playing;
import rombix.app.show.DemoBoard;
import rombix.running.shell.Caller;
import rombix.standins.set.StandIns;

/** Opens the demo board, with stand-ins for its gear. */
@Command(name = "demo", mixinStandardHelpOptions = true, description = {
        "Opens the demo board with simulated gear.",
        "Opens your own copy, in the folder Rombix in your home folder, so you can change it."})
public final class DemoCommand implements Callable<Integer> {
    @Option(names = "--for", converter = Span.class, paramLabel = "TIME", description = "Stop after this time, such as 20s.")
    private @Nullable Long forMillis;

    @Option(names = "--fresh", description = "Start over from the original demo board; your copy is kept next to it.")
    private boolean fresh;

    @Option(names = "--live", description = "Start in Live.")
    private boolean live;

    @Option(names = "--panels", description = "Show a panel for each stand-in, to operate it by hand and see what it receives.")
    private boolean panels;

    @Mixin
    private WebOptions web = new WebOptions();

    private final Playing.Lines lines;

    public DemoCommand(Playing.Lines lines) {
        this.lines = lines;
    }

    @Override
    public Integer call() throws Exception {
        Path folder = Path.of(System.getProperty("user.home"), "Rombix");
        if (Caller.call(new String[]{"show", DemoBoard.copyIn(folder).toString()}, System.out, System.err)
                .isPresent()) {
            return 0;
        }
        Path board = DemoBoard.copy(folder, fresh);
        LoggerFactory.getILoggerFactory(); // Here, as one that several threads begin at once tells of that.
        StandIns[] gear = new StandIns[1];
        FutureTask<StandIns> starting = new FutureTask<>(StandIns::onTheirPorts);
        Thread.ofPlatform().daemon().start(starting);
        OpenCommand.run(lines, new LaunchOptions(board, StandIns.elsewhere(), forMillis, live, true, new Allow(), web),
                () -> {
                    gear[0] = started(starting);
                    System.out.println("The demo board is " + board + ". Its stand-ins run:");
                    StandInsCommand.table(gear[0]).forEach(line -> System.out.println("  " + line));
                }, window -> window.beside(gear[0], panels));
        started(starting).close();
        return 0;
    }

    private static StandIns started(FutureTask<StandIns> starting) throws Exception {
        try {
            return starting.get();
        } catch (ExecutionException e) {
            throw e.getCause() instanceof IOException trouble ? trouble : e;
        }
    }
}
