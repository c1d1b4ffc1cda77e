package rombix.app.cli.play;

import java.nio.file.Path;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import rombix.app.cli.option.BadCall;

/** Brings the window to the front that has a board open: asked by a Rombix that was to open it once more. */
@Command(name = "show", hidden = true, mixinStandardHelpOptions = true, description = "Brings the window of an open board to the front.")
public final class ShowCommand implements Callable<Integer> {
    @Parameters(index = "0", paramLabel = "BOARD", description = "The board file.")
    private Path board = Path.of("");

    @Spec
    private CommandSpec spec = CommandSpec.create();
    private final Playing.Stage stage;

    public ShowCommand(Playing.Stage stage) {
        this.stage = stage;
    }

    @Override
    public Integer call() throws BadCall {
        OpenDeck.of(stage, board);
        spec.commandLine().getOut().println(board.getFileName() + (stage.toFront()
                ? " is already open; its window is in front now."
                : " is already open, without a window."));
        return 0;
    }
}
