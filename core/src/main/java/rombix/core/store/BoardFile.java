package rombix.core.store;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.FileTime;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import rombix.core.board.Board;
import rombix.core.board.Gear;
import rombix.core.board.Rig;
import rombix.core.card.Card;
import rombix.core.chain.Chain;
import rombix.core.check.References;
import rombix.core.edit.Edits;

/** A board on disk, with the journal beside it that holds what is not saved yet. */
public final class BoardFile {
    private static final Logger LOG = LoggerFactory.getLogger(BoardFile.class);

    private BoardFile() {
    }

    /**
     * A board that may name what is not there, and the text that it was read from.
     *
     * @param badCards what is wrong with the file of a card that it names, by where in the board it does
     */
    public record Draft(Rig rig, String text, Map<String, BadFile> badCards) {
        /** Where something stands in the file: line and column, counted from 1; empty where it does not. */
        public String where(String pointer) {
            Json.Place place = Json.find(text, pointer);
            return place.line() > 0 ? place.line() + ":" + place.column() : "";
        }
    }

    /** Reads a board whatever it names, so that all that is missing can be told at once. */
    public static Draft draft(Path file) throws BadFile {
        CardLibrary.Cards cards = CardLibrary.found(file);
        String text = CardLibrary.text(file);
        Board board = unchecked(file, text);
        Map<String, BadFile> bad = new HashMap<>();
        for (int i = 0; i < board.gear().size(); i++) {
            String at = "/gear/" + i + "/card";
            cards.trouble(board.gear().get(i).card()).ifPresent(e -> bad.put(at, e));
        }
        return new Draft(Rig.of(board, cards.good()).in(folder(file)), text, bad);
    }

    /** The folder that a board lies in, in full. */
    public static String folder(Path file) {
        return String.valueOf(file.toAbsolutePath().normalize().getParent());
    }

    /** Reads a board and its cards. The file is never touched. */
    public static Rig read(Path file) throws BadFile {
        CardLibrary.Cards cards = CardLibrary.found(file);
        String text = CardLibrary.text(file);
        Board board = unchecked(file, text);
        for (Gear gear : board.gear()) {
            Optional<BadFile> bad = cards.trouble(gear.card());
            if (bad.isPresent()) {
                throw bad.get(); // It says more than that there is no such card.
            }
        }
        return Rig.of(checked(file, text, board, cards.good()), cards.good()).in(folder(file));
    }

    /**
     * Reads a board from text, checking every reference in it.
     *
     * @param file named in errors
     */
    public static Board parse(Path file, String text, Map<String, Card> cards) throws BadFile {
        return checked(file, text, unchecked(file, text), cards);
    }

    private static Board checked(Path file, String text, Board board, Map<String, Card> cards) throws BadFile {
        List<References.Flaw> flaws = References.flaws(Rig.of(board, cards));
        if (!flaws.isEmpty()) {
            throw CardLibrary.at(file, text, flaws.getFirst().pointer(), flaws.getFirst().message());
        }
        return board;
    }

    private static Board unchecked(Path file, String text) throws BadFile {
        String refusal = Formats.refusal(text);
        if (refusal != null) {
            BadFile placed = CardLibrary.at(file, text, "/rombix", refusal);
            throw placed.line() > 0 ? placed : new BadFile(file, 1, 1, refusal);
        }
        return Json.read(file, text, Board.class, false);
    }

    /** The board as text, as it is written to disk: without pictures that no face shows. */
    public static String format(Board board) {
        return Json.ordered(Edits.withoutSpentPictures(board)) + "\n";
    }

    /** A chain as text, as it stands in a board file. */
    public static String format(Chain chain) {
        return Json.ordered(chain) + "\n";
    }

    /**
     * Saves the board: written beside, forced to disk, renamed over the old one, which is kept among its
     * {@link Versions}. A symbolic link stays one, and a file keeps its permissions. The journal goes.
     */
    public static void save(Path file, Board board) throws IOException {
        Path real = Files.exists(file) ? file.toRealPath() : file.toAbsolutePath();
        String text = format(board);
        if (says(real, text)) {
            Files.deleteIfExists(journalOf(file));
            return;
        }
        try {
            Versions.keep(real);
        } catch (IOException e) {
            LOG.warn("the previous version can't be kept: {}", e.getMessage());
        }
        WholeFile.write(real, text, WholeFile.Readers.AS_BEFORE);
        Files.deleteIfExists(journalOf(file));
    }

    /** Whether a file holds that board already, however it is laid out: then no byte of it is changed. */
    private static boolean says(Path file, String text) {
        try {
            return Files.isRegularFile(file) && format(unchecked(file, CardLibrary.text(file))).equals(text);
        } catch (BadFile e) {
            return false; // It is damaged; what is saved takes its place.
        }
    }

    /** Writes the text of a board that is new: all of it, or nothing. */
    public static void make(Path file, String text) throws IOException {
        WholeFile.write(file, text, WholeFile.Readers.AS_BEFORE);
    }

    /** Writes the board to its journal, so that a killed process loses nothing. Nobody else may read it. */
    public static void journal(Path file, Board board) throws IOException {
        WholeFile.write(journalOf(file), format(board), WholeFile.Readers.OWNER);
    }

    /** What tells whether a file was changed by somebody else: when it was changed last, and its length. */
    public record Stamp(FileTime changed, long bytes) {
        /** That of a file now; empty where there is none, or it cannot be looked at. */
        public static Optional<Stamp> of(Path file) {
            try {
                BasicFileAttributes now = Files.readAttributes(file, BasicFileAttributes.class);
                return Optional.of(new Stamp(now.lastModifiedTime(), now.size()));
            } catch (IOException e) {
                return Optional.empty();
            }
        }
    }

    /** Where the journal of a board stands: beside it, hidden. */
    public static Path journalOf(Path file) {
        return file.toAbsolutePath().resolveSibling("." + file.getFileName() + ".journal");
    }

    /**
     * Reads what the journal holds of a board whose last edits were not saved; empty if there is none.
     *
     * @throws BadFile if it cannot be used; it stays where it is
     */
    public static Optional<Board> unsaved(Path file, Map<String, Card> cards) throws BadFile {
        Path journal = journalOf(file);
        return Files.exists(journal) ? Optional.of(parse(journal, CardLibrary.text(journal), cards)) : Optional.empty();
    }

    /**
     * What can be read of a journal that is damaged, on top of the board as it was saved; empty where that is nothing.
     */
    public static Optional<Board> rescued(Path file, Rig saved) {
        Path journal = journalOf(file);
        try {
            return Rescue.of(journal, CardLibrary.text(journal), saved);
        } catch (BadFile e) {
            return Optional.empty();
        }
    }

    /** Puts a journal that cannot be used beside, so that the next one does not take its place; says where. */
    public static Path keepAside(Path file) throws IOException {
        return WholeFile.aside(journalOf(file));
    }
}
