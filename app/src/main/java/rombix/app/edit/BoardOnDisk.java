package rombix.app.edit;

import java.nio.file.Path;
import java.util.Optional;
import rombix.core.board.Board;
import rombix.core.store.BoardFile.Stamp;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;

/** The file of a board: what of it is saved, and what is kept safe in its journal. */
@OwnedBy(Owner.INTERFACE)
final class BoardOnDisk {
    private Path file;
    private Board saved;
    private boolean journalled = true;
    private Optional<Stamp> stamp = Optional.empty();

    BoardOnDisk(Path file, Board saved) {
        this.file = file;
        this.saved = saved;
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

    /** What of the board is to be written to its journal; nothing where all of it is safe. */
    Optional<BoardWrite> toJournal(Board board) {
        boolean wanted = !journalled && !holds(board);
        journalled = true;
        return wanted ? Optional.of(new BoardWrite(file, board, true)) : Optional.empty();
    }

    void written(BoardWrite write) {
        if (!write.journal()) {
            file = write.file();
            saved = write.board();
            stamp = Stamp.of(file);
        }
    }

    Optional<Stamp> stamp() {
        return stamp;
    }

    void seen(Optional<Stamp> now) {
        stamp = now;
    }

    void notWritten(BoardWrite write) {
        journalled &= !write.journal();
    }

    void leave() {
        journalled = true;
    }

    /** Takes another board in place of the present one, all of which is safe. */
    void take(OpenedBoard opened) {
        file = opened.file();
        saved = opened.saved().board();
        journalled = true;
        stamp = opened.stamp();
    }
}
