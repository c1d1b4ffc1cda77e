package rombix.app.cli.open;

import java.nio.file.Path;
import rombix.app.cli.play.Playing;
import rombix.running.shell.Doorkeeper;

/** How commands in a shell reach the deck that runs here. */
final class ShellDoor {
    private ShellDoor() {
    }

    /** What is said where another Rombix has the board open already. */
    static String elsewhere(Path board) {
        return "“" + board.getFileName()
                + "” is also open in another Rombix. Close one of them, or save this one under another name.";
    }

    /** Carries out the commands of a shell on the deck that runs here. */
    static Doorkeeper of(Playing.Lines lines, Playing.Stage stage) {
        return new Doorkeeper((args, out, err) -> {
            int code = lines.of(stage, args).setOut(out).setErr(err).execute(args);
            out.flush();
            err.flush();
            return code;
        });
    }
}
