package rombix.app.edit;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Optional;
import rombix.core.board.Board;
import rombix.core.board.Rig;
import rombix.core.store.BadFile;
import rombix.core.store.BoardFile;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;

/** The file of a board: what of it is saved, and what is kept safe in its journal. */
@OwnedBy(Owner.INTERFACE)
final class BoardOnDisk {
    private Path file;
    private Board saved;
    private boolean journalled = true;

    BoardOnDisk(Path file, Board saved) {
        this.file = file;
        this.saved = saved;
    }

    /** A board that was opened, and whether edits that were not saved were brought back from a journal. */
    record Opened(Rig rig, boolean broughtBack) {
    }

    Path file() {
        return file;
    }

    boolean holds(Board board) {
        return board.equals(saved);
    }

    /** The board has changed: its journal has not. */
    void changed() {
        journalled = false;
    }

    void save(Path to, Board board) throws IOException {
        BoardFile.save(to, board);
        file = to;
        saved = board;
        journalled = true;
    }

    /** Writes what is not saved yet to the journal, if it was not written already. */
    void journal(Board board) throws IOException {
        if (!journalled) {
            if (!holds(board)) {
                BoardFile.journal(file, board);
            }
            journalled = true;
        }
    }

    /** @throws BadFile if the other cannot be used; then all is as before */
    Opened open(Path other, Board present) throws BadFile, IOException {
        Rig read = BoardFile.read(other);
        journal(present);
        Optional<Board> unsaved = BoardFile.unsaved(other, read.cards());
        file = other;
        saved = read.board();
        journalled = true;
        return new Opened(unsaved.map(read::with).orElse(read), unsaved.isPresent());
    }
}
