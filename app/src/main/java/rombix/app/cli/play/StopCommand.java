package rombix.app.cli.play;

import rombix.core.twin.Figures;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import rombix.app.cli.option.GearAccess;
import rombix.core.touch.DeckPort;
import rombix.running.RunningDeck;
import rombix.running.state.DeckState;

/** Stops chains in a running Rombix. */
@Command(name = "stop", mixinStandardHelpOptions = true, description = {
        "Stops all running chains, or those of one button, in the Rombix that has the board open.",
        "Exit code: 0 done, 2 usage error or the board isn't open."})
public final class StopCommand implements Callable<Integer> {
    @Parameters(index = "0", paramLabel = "BOARD", description = "The board file.")
    private Path board = Path.of("");

    @Parameters(index = "1", arity = "0..1", paramLabel = "BUTTON", description = "Id of a button; all chains if omitted.")
    private @Nullable String button;

    @Spec
    private CommandSpec spec = CommandSpec.create();
    private final Playing.Stage stage;

    public StopCommand(Playing.Stage stage) {
        this.stage = stage;
    }

    @Override
    public Integer call() throws Exception {
        RunningDeck deck = OpenDeck.of(stage, board);
        List<DeckState.Running> runs = deck.feed().state().running();
        DeckPort port = deck.port(Playing.SOURCE);
        if (button == null) {
            port.stopAll();
        } else {
            String id = GearAccess.button(deck.rig(), board, button).id();
            runs = runs.stream().filter(r -> r.button().equals(id)).toList();
            runs.forEach(r -> port.stop(r.run()));
        }
        spec.commandLine().getOut().println(runs.isEmpty()
                ? "Nothing was running."
                : "Stopped " + Figures.count(runs.size(), "chain") + ".");
        return 0;
    }
}
