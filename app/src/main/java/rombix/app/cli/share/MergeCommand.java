package rombix.app.cli.share;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.Map;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import rombix.core.board.Rig;
import rombix.core.card.Card;
import rombix.core.diff.BoardMerge;
import rombix.core.store.BadFile;
import rombix.core.store.BoardFile;
import rombix.core.store.CardLibrary;

/** Puts two boards together that were made of one. */
@Command(name = "merge", mixinStandardHelpOptions = true, description = {
        "Puts two versions of a board together that were made of one, and writes the result to OURS.",
        "What both changed in different ways stays as in OURS and is listed. The result can always be opened.",
        "Git can use it as a merge driver. Exit code: 0 all is merged, 1 something stayed as in OURS, 130 a file is not a board, or the result can't be written."})
public final class MergeCommand implements Callable<Integer> {
    /** From 129 on Git knows that nothing was merged. */
    private static final int NOTHING = 130;

    @Parameters(index = "0", paramLabel = "BASE", description = "The board that both were made of.")
    private Path base = Path.of("");

    @Parameters(index = "1", paramLabel = "OURS", description = "Our version; the result is written here.")
    private Path ours = Path.of("");

    @Parameters(index = "2", paramLabel = "THEIRS", description = "Their version.")
    private Path theirs = Path.of("");

    @Option(names = "--path", paramLabel = "BOARD", description = "Where the board itself lies, if the versions are elsewhere: its cards are beside it.")
    private @Nullable Path path;

    @Spec
    private CommandSpec spec = CommandSpec.create();

    @Override
    public Integer call() throws Exception {
        PrintWriter out = spec.commandLine().getOut();
        BoardMerge.Merged merged;
        try {
            Map<String, Card> cards = CardLibrary.beside(path == null ? ours : path);
            merged = BoardMerge.of(read(base, cards), read(ours, cards), read(theirs, cards));
            BoardFile.make(ours, BoardFile.format(merged.board()));
        } catch (BadFile | IOException e) {
            spec.commandLine().getErr().println(e.getMessage());
            spec.commandLine().getErr().flush();
            return NOTHING;
        }
        merged.clashes().forEach(c -> out.println(c.line()));
        out.flush();
        return merged.clashes().isEmpty() ? 0 : 1;
    }

    private static Rig read(Path file, Map<String, Card> cards) throws BadFile {
        return Rig.of(BoardFile.parse(file, CardLibrary.text(file), cards), cards);
    }
}
