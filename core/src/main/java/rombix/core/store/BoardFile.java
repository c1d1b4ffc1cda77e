package rombix.core.store;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import rombix.core.board.Board;
import rombix.core.board.Edits;
import rombix.core.board.Rig;
import rombix.core.card.Card;
import rombix.core.chain.Chain;
import rombix.core.check.References;

/** A board on disk, with the journal beside it that holds what is not saved yet. */
public final class BoardFile {
    private static final long LARGEST = 512L << 20;

    private BoardFile() {
    }

    /** A board that may name what is not there, and the text that it was read from. */
    public record Draft(Rig rig, String text) {
        /** Where something stands in the file: line and column, counted from 1; empty where it does not. */
        public String where(String pointer) {
            Json.Place place = Json.find(text, pointer);
            return place.line() > 0 ? place.line() + ":" + place.column() : "";
        }
    }

    /** Reads a board whatever it names, so that all that is missing can be told at once. */
    public static Draft draft(Path file) throws BadFile {
        Map<String, Card> cards = CardLibrary.beside(file);
        String text = text(file);
        return new Draft(Rig.of(unchecked(file, text), cards), text);
    }

    /** Reads a board and its cards. The file is never touched. */
    public static Rig read(Path file) throws BadFile {
        Map<String, Card> cards = CardLibrary.beside(file);
        return Rig.of(parse(file, text(file), cards), cards);
    }

    /**
     * Reads a board from text, checking every reference in it.
     *
     * @param file named in errors
     */
    public static Board parse(Path file, String text, Map<String, Card> cards) throws BadFile {
        Board board = unchecked(file, text);
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
        return Json.write(Edits.withoutSpentPictures(board)) + "\n";
    }

    /** A chain as text, as it stands in a board file. */
    public static String format(Chain chain) {
        return Json.write(chain) + "\n";
    }

    /** Saves the board: written beside, forced to disk, renamed over the old one. The journal goes. */
    public static void save(Path file, Board board) throws IOException {
        replace(file, format(board));
        Files.deleteIfExists(journalOf(file));
    }

    /** Writes the board to its journal, so that a killed process loses nothing. */
    public static void journal(Path file, Board board) throws IOException {
        replace(journalOf(file), format(board));
    }

    /** Where the journal of a board stands: beside it, hidden. */
    public static Path journalOf(Path file) {
        return file.toAbsolutePath().resolveSibling("." + file.getFileName() + ".journal");
    }

    /** Reads what the journal holds of a board whose last edits were not saved; empty if there is none, or it is bad. */
    public static Optional<Board> unsaved(Path file, Map<String, Card> cards) {
        Path journal = journalOf(file);
        try {
            return Files.exists(journal) ? Optional.of(parse(journal, text(journal), cards)) : Optional.empty();
        } catch (BadFile e) {
            return Optional.empty();
        }
    }

    private static String text(Path file) throws BadFile {
        try {
            if (Files.size(file) > LARGEST) {
                throw new BadFile(file, 0, 0, "has %d MB; a board has at most %d MB".formatted(Files.size(file) >> 20,
                        LARGEST >> 20));
            }
            return Files.readString(file);
        } catch (NoSuchFileException e) {
            throw new BadFile(file, 0, 0, "there is no such file");
        } catch (IOException e) {
            throw new BadFile(file, 0, 0, "cannot be read: " + e.getMessage());
        }
    }

    private static void replace(Path file, String text) throws IOException {
        Path whole = file.toAbsolutePath();
        Path beside = whole.resolveSibling("." + whole.getFileName() + ".new");
        try (FileChannel out = FileChannel.open(beside, StandardOpenOption.CREATE, StandardOpenOption.WRITE,
                StandardOpenOption.TRUNCATE_EXISTING)) {
            ByteBuffer bytes = ByteBuffer.wrap(text.getBytes(StandardCharsets.UTF_8));
            while (bytes.hasRemaining()) {
                out.write(bytes);
            }
            out.force(true);
        }
        Files.move(beside, whole, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
    }
}
