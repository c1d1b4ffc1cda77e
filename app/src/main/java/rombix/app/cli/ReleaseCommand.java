package rombix.app.cli;

import java.nio.file.Path;
import java.util.Map;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import rombix.core.board.Button;
import rombix.core.engine.Event;

/** Ends a hold that a script began. */
@Command(name = "release", mixinStandardHelpOptions = true, description = {
        "Releases a button that “rombix press --hold” holds, in the Rombix that has the board open.",
        "Exit code: 0 done, 1 a step failed, 2 a bad call or nobody has the board open."})
final class ReleaseCommand implements Callable<Integer> {
    @Parameters(index = "0", paramLabel = "BOARD", description = "The board file.")
    private Path board = Path.of("");

    @Parameters(index = "1", paramLabel = "BUTTON", description = "The button's id, such as doors-open.")
    private String button = "";

    @Option(names = "--json", description = "One JSON object per line, as “rombix press” prints them.")
    private boolean json;

    @Spec
    private CommandSpec spec = CommandSpec.create();
    private final Playing.Stage stage;

    ReleaseCommand(Playing.Stage stage) {
        this.stage = stage;
    }

    @Override
    public Integer call() throws Exception {
        OpenDeck.of(stage, board);
        try (Playing play = stage.open(board, button, Map.of(), false, new AllowForPress())) {
            Button held = GearAccess.button(play.rig(), board, button);
            Report report = new Report(spec.commandLine().getOut(), json, play.rig());
            play.follow(new Event.Released(held.id(), PressCommand.SOURCE), held, report::take);
            return report.faults() == 0 ? 0 : 1;
        }
    }
}
