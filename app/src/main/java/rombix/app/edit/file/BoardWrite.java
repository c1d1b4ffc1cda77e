package rombix.app.edit.file;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import rombix.app.edit.Workbench;
import rombix.core.board.Board;
import rombix.core.card.Card;
import rombix.core.store.BoardFile;
import rombix.core.store.CardLibrary;

/**
 * A board as it was at some moment, to be written: saved, or kept safe in its file's journal. It is written on any
 * thread; whoever has done so tells the {@link Workbench}.
 *
 * @param cards those that were made here and are kept beside it
 * @param gone the ids of those whose making was undone
 */
public record BoardWrite(Path file, Board board, List<Card> cards, Set<String> gone, boolean journal) {
    /** Writes it: all of it, or nothing. */
    public void write() throws IOException {
        for (Card card : cards) { // Before the board, which can be read only with them.
            Path to = CardLibrary.file(file, card.id());
            Files.createDirectories(to.toAbsolutePath().getParent());
            BoardFile.make(to, CardLibrary.format(card));
        }
        if (journal) {
            BoardFile.journal(file, board);
        } else {
            BoardFile.save(file, board);
        }
        for (String card : gone) { // After the board, which names them no more.
            Files.deleteIfExists(CardLibrary.file(file, card));
        }
    }
}
