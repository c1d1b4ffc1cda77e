package rombix.running.owner;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import rombix.core.board.Board;
import rombix.core.board.Rig;
import rombix.core.card.Card;
import rombix.core.store.BadFile;
import rombix.core.store.BoardFile.Stamp;
import rombix.core.store.BoardFile;
import rombix.core.store.CardLibrary;

/**
 * A board that was read from a file: as it is saved, and as it was edited last, where the journal has edits that were
 * not saved. It is read on any thread, and taken by the {@link Workbench}.
 *
 * @param stamp that of the file when it was read; empty where it is damaged, so that any change counts as one
 * @param notices what the reader is to know of it, in words
 */
public record OpenedBoard(Path file, Rig saved, Rig rig, Optional<Stamp> stamp, List<String> notices) {
    private static final String RESTORED = "Unsaved changes were restored. Ctrl+S saves them.";

    /**
     * Reads it. Where the file is damaged and its journal is not, what was autosaved takes its place.
     *
     * @throws BadFile if neither can be used
     */
    public static OpenedBoard read(Path file) throws BadFile {
        List<String> notices = new ArrayList<>();
        Map<String, Card> cards = CardLibrary.beside(file);
        Optional<Board> unsaved = Optional.empty();
        Optional<BadFile> damaged = Optional.empty();
        try {
            unsaved = BoardFile.unsaved(file, cards);
        } catch (BadFile e) {
            damaged = Optional.of(e);
        }
        Optional<Stamp> stamp = Stamp.of(file);
        Rig saved;
        try {
            saved = BoardFile.read(file);
        } catch (BadFile e) {
            damaged.ifPresent(d -> aside(file, d, false));
            if (unsaved.isEmpty()) {
                throw e;
            }
            notices.add(
                    "The file is damaged (" + e.getMessage()
                            + "). The autosaved version is open. Saving keeps the damaged file among the earlier versions.");
            Rig rescued = Rig.of(unsaved.get(), cards).in(BoardFile.folder(file));
            return new OpenedBoard(file, rescued.with(Board.empty("")), rescued, stamp, List.copyOf(notices));
        }
        if (damaged.isPresent()) {
            unsaved = BoardFile.rescued(file, saved);
            notices.add(aside(file, damaged.get(), unsaved.isPresent()));
        } else if (unsaved.isPresent()) {
            notices.add(older(file) ? RESTORED + " The file was changed after that." : RESTORED);
        }
        return new OpenedBoard(file, saved, unsaved.map(saved::with).orElse(saved), stamp, List.copyOf(notices));
    }

    /** Puts a damaged journal beside; says so, and whether what could be read of it is there. */
    private static String aside(Path file, BadFile damaged, boolean rescued) {
        String words = "Unsaved edits can't be read" + (rescued ? " to their end (" : " (") + damaged
                .getMessage() + "). ";
        try {
            return words
                    + (rescued ? "The readable ones are restored; all of them are kept in “" : "They are kept in “")
                    + BoardFile.keepAside(file).getFileName() + "”.";
        } catch (IOException e) {
            return words.strip();
        }
    }

    /** Whether the journal is older than the file. */
    private static boolean older(Path file) {
        try {
            return Files.getLastModifiedTime(BoardFile.journalOf(file)).compareTo(Files.getLastModifiedTime(file)) < 0;
        } catch (IOException e) {
            return false;
        }
    }

    /** Whether edits that were not saved were brought back. */
    public boolean broughtBack() {
        return rig != saved;
    }
}
