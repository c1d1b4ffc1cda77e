package rombix.app.cli.share;

import java.io.IOException;
import java.io.InputStream;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import rombix.app.cli.option.BadCall;
import rombix.app.edit.file.BoardWrite;
import rombix.core.board.Rig;
import rombix.core.bundle.Matching;
import rombix.core.bundle.PartPaste;
import rombix.core.bundle.SharedPart;
import rombix.core.card.Card;
import rombix.core.chain.Gesture;
import rombix.core.store.BoardFile;

/** Pastes a part into a board. */
@Command(name = "paste", mixinStandardHelpOptions = true, description = {
        "Reads a part from its input, as “part” prints it, and pastes it into a board.",
        "Its gear becomes the board's own gear of the same card, or of what can do the same; else it comes along without an address.",
        "Exit code: 0 all of it fits, 1 something was left out, 2 nothing was pasted."})
public final class PasteCommand implements Callable<Integer> {
    @Parameters(index = "0", paramLabel = "BOARD", description = "The board file.")
    private Path board = Path.of("");

    @Option(names = "--page", paramLabel = "PAGE", description = "The id of the page it goes to, or behind which it goes. The default is the first.")
    private @Nullable String page;

    @Option(names = "--button", paramLabel = "BUTTON", description = "For a state, a chain or a look: the id of the button that gets it.")
    private @Nullable String button;

    @Spec
    private CommandSpec spec = CommandSpec.create();
    private final InputStream in;

    public PasteCommand() {
        this(System.in);
    }

    /** @param in where the part comes from */
    PasteCommand(InputStream in) {
        this.in = in;
    }

    @Override
    public Integer call() throws Exception {
        Rig mine = BoardFile.read(board);
        SharedPart part = SharedPart.read(new String(in.readNBytes(SharedPart.LONGEST), StandardCharsets.UTF_8))
                .orElseThrow(() -> new BadCall("What came in is not a part of a board."));
        String to = page == null ? mine.board().pages().getFirst().id() : page;
        if (mine.page(to).isEmpty() || button != null && mine.button(button).isEmpty()) {
            throw new BadCall("The board has no such page or button.");
        }
        PartPaste.Pasted pasted = PartPaste.of(mine, part, new Matching(part.rig(), mine).proposed(),
                new PartPaste.Place(to, 0, 0, button, 0, Gesture.PRESS));
        List<Card> cards = pasted.rig().cards().values().stream().filter(c -> !c.equals(mine.cards().get(c.id())))
                .toList();
        try {
            new BoardWrite(board, pasted.rig().board(), cards, Set.of(), false).write();
        } catch (IOException e) {
            throw new BadCall(board + " can't be written: " + e.getMessage());
        }
        PrintWriter out = spec.commandLine().getOut();
        out.println("Pasted: " + part.words());
        pasted.lost().forEach(l -> out.println("Left out: " + l));
        out.flush();
        return pasted.lost().isEmpty() ? 0 : 1;
    }
}
