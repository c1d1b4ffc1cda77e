package rombix.app.edit;

import java.nio.file.Path;
import java.util.Optional;
import rombix.core.board.Board;
import rombix.core.board.Rig;
import rombix.core.store.BadFile;
import rombix.core.store.BoardFile;

/**
 * A board that was read from a file: as it is saved, and as it was edited last, where the journal has edits that were
 * not saved. It is read on any thread, and taken by the {@link Workbench}.
 */
public record OpenedBoard(Path file, Rig saved, Rig rig) {
    /** @throws BadFile if it cannot be used */
    public static OpenedBoard read(Path file) throws BadFile {
        Rig saved = BoardFile.read(file);
        Optional<Board> unsaved = BoardFile.unsaved(file, saved.cards());
        return new OpenedBoard(file, saved, unsaved.map(saved::with).orElse(saved));
    }

    /** Whether edits that were not saved were brought back. */
    public boolean broughtBack() {
        return rig != saved;
    }
}
