package rombix.app.cli.share;

import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import rombix.app.cli.option.BadCall;
import rombix.core.board.Button;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.bundle.SharedPart;
import rombix.core.store.BoardFile;

/** Prints a part of a board as text. */
@Command(name = "part", mixinStandardHelpOptions = true, description = {
        "Prints a part of a board as text, to be pasted into another board, with the cards, values and pictures it needs.",
        "Addresses, user names and secrets stay behind."})
public final class PartCommand implements Callable<Integer> {
    @Parameters(index = "0", paramLabel = "BOARD", description = "The board file.")
    private Path board = Path.of("");

    @Option(names = "--page", paramLabel = "PAGE", description = "The id of the page to print.")
    private @Nullable String page;

    @Option(names = "--button", paramLabel = "BUTTON", description = "The id of a button to print; can be repeated.")
    private List<String> buttons = new ArrayList<>();

    @Option(names = "--only", paramLabel = "WHAT", description = "Of one button only its first state, its chain or its look: state, chain, look.")
    private SharedPart.What only = SharedPart.What.BUTTONS;

    @Spec
    private CommandSpec spec = CommandSpec.create();

    @Override
    public Integer call() throws Exception {
        Rig rig = BoardFile.read(board);
        if (page == null == buttons.isEmpty()) {
            throw new BadCall("Choose a part: --page PAGE or --button BUTTON.");
        }
        PrintWriter out = spec.commandLine().getOut();
        out.print((page == null ? buttons(rig) : SharedPart.page(rig, page(rig, page))).text());
        out.flush();
        return 0;
    }

    private static Page page(Rig rig, String id) throws BadCall {
        return rig.page(id).orElseThrow(() -> new BadCall("The board has no page “%s”; it has %s.".formatted(id, rig
                .board().pages().stream().map(Page::id).toList())));
    }

    private SharedPart buttons(Rig rig) throws BadCall {
        List<Button> all = new ArrayList<>();
        for (String id : buttons) {
            all.add(rig.button(id).orElseThrow(() -> new BadCall("The board has no button “%s”.".formatted(id))));
        }
        if (all.stream().map(b -> rig.pageOf(b.id()).orElseThrow().id()).distinct().count() > 1) {
            throw new BadCall("The buttons are on different pages.");
        }
        return SharedPart.of(only, rig, all);
    }
}
