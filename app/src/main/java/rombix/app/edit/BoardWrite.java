package rombix.app.edit;

import java.io.IOException;
import java.nio.file.Path;
import rombix.core.board.Board;
import rombix.core.store.BoardFile;

/**
 * A board as it was at some moment, to be written: saved, or kept safe in its file's journal. It is written on any
 * thread; whoever has done so tells the {@link Workbench}.
 */
public record BoardWrite(Path file, Board board, boolean journal) {
    /** Writes it: all of it, or nothing. */
    public void write() throws IOException {
        if (journal) {
            BoardFile.journal(file, board);
        } else {
            BoardFile.save(file, board);
        }
    }
}
