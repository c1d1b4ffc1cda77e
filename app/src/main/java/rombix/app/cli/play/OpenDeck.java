package rombix.app.cli.play;

import java.nio.file.Path;
import rombix.app.cli.option.BadCall;
import rombix.running.RunningDeck;

/** The Rombix that has a board open: some commands are for it alone. */
final class OpenDeck {
    private OpenDeck() {
    }

    static RunningDeck of(Playing.Stage stage, Path board) throws BadCall {
        RunningDeck deck = stage.deck();
        if (deck == null) {
            throw new BadCall(nobody(board));
        }
        return deck;
    }

    static String nobody(Path board) {
        return "No Rombix has %s open. Open it first: rombix open %s.".formatted(board, board);
    }
}
