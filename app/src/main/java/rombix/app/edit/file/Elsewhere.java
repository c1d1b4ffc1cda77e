package rombix.app.edit.file;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Supplier;
import rombix.core.board.Rig;
import rombix.core.diff.BoardDiff;
import rombix.core.diff.BoardMerge;
import rombix.core.diff.Change;
import rombix.core.store.BadFile;
import rombix.core.store.BoardFile;

/**
 * What another program made of a board's file, read on any thread.
 *
 * @param changes what is otherwise there than it was saved here, in lines
 * @param merged puts those changes into the board as it is by then; empty where the file can't be read
 */
public record Elsewhere(List<String> changes, Optional<Function<Rig, BoardMerge.Merged>> merged) {
    /**
     * What reads it.
     *
     * @param saved the board as it was saved here, or read, last
     */
    public static Supplier<Elsewhere> reading(Path file, Rig saved) {
        return () -> of(file, saved);
    }

    private static Elsewhere of(Path file, Rig saved) {
        try {
            Rig theirs = BoardFile.read(file);
            return new Elsewhere(BoardDiff.of(saved, theirs).stream().map(Change::line).toList(), Optional.of(
                    mine -> BoardMerge.of(saved, mine, theirs)));
        } catch (BadFile e) {
            return new Elsewhere(List.of("It can't be read: " + e.getMessage()), Optional.empty());
        }
    }

    /** What stayed as it is here though the other program changed it, too, in words; empty where there is nothing. */
    public static Optional<String> stayed(BoardMerge.Merged merged) {
        return merged.clashes().isEmpty()
                ? Optional.empty()
                : Optional.of("Both versions changed these, so they stayed as yours: " + words(merged.clashes().stream()
                        .map(c -> c.what() + ".").toList(), 4));
    }

    /** The first lines, and how many more there are. */
    public static String words(List<String> lines, int most) {
        return String.join(" ", lines.subList(0, Math.min(most, lines.size()))) + (lines.size() > most
                ? " And " + (lines.size() - most) + " more."
                : "");
    }
}
