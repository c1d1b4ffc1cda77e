package rombix.app.cli.play;

import java.io.PrintWriter;
import java.nio.file.Path;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import rombix.app.cli.option.BadCall;
import rombix.app.cli.option.GearAccess;
import rombix.core.board.Button;
import rombix.core.board.Rig;

/** The button that a command presses, and how the result is reported. */
final class PressedButton {
    @Parameters(index = "0", paramLabel = "BOARD", description = "The board file.")
    private Path board = Path.of("");

    @Parameters(index = "1", paramLabel = "BUTTON", description = "Id of the button, such as doors-open.")
    private String button = "";

    @Option(names = "--json", description = "One JSON object per line; “due” and “at” are milliseconds since the first press.")
    private boolean json;

    Path board() {
        return board;
    }

    /** Its id. */
    String button() {
        return button;
    }

    /** @throws BadCall where the board has no such button */
    Button in(Rig rig) throws BadCall {
        return GearAccess.button(rig, board, button);
    }

    Report report(Rig rig, PrintWriter out) {
        return new Report(out, json, rig);
    }
}
