package rombix.app.cli;

import java.nio.file.Path;
import rombix.app.show.Session;

/** The Rombix that has a board open: some commands are for it alone. */
final class OpenDeck {
    private OpenDeck() {
    }

    static Session of(Playing.Stage stage, Path board) throws BadCall {
        Session session = stage.session();
        if (session == null) {
            throw new BadCall(nobody(board));
        }
        return session;
    }

    static String nobody(Path board) {
        return "No Rombix has %s open. Open it first: rombix open %s.".formatted(board, board);
    }
}
