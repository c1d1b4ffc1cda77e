package rombix.app.cli.share;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.Set;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import rombix.app.cli.option.BadCall;
import rombix.app.paper.BoardPaper;
import rombix.app.paper.PaperFile;
import rombix.app.paper.PaperSize;
import rombix.core.board.Rig;
import rombix.core.store.BoardFile;
import rombix.core.twin.Twin;
import rombix.running.RunningDeck;

/** Puts a board on paper. */
@Command(name = "print", mixinStandardHelpOptions = true, description = {
        "Saves a board as PDF for printing, or as PNG: pages with what their buttons do, run sheets, the patch, the gear.",
        "A PNG is saved for each sheet, with its number before the ending."})
public final class PrintCommand implements Callable<Integer> {
    @Parameters(index = "0", paramLabel = "BOARD", description = "The board file.")
    private Path board = Path.of("");

    @Parameters(index = "1", paramLabel = "OUT", description = "The PDF or PNG file to write.")
    private Path out = Path.of("");

    @Option(names = "--page", paramLabel = "PAGE", description = "The id of a page to print; can be repeated. The default is all.")
    private Set<String> pages = new HashSet<>();

    @Option(names = "--sheets", split = ",", paramLabel = "WHAT", description = "What to print, separated by commas: pages, runs (run sheets), patch, gear. The default is all.")
    private Set<BoardPaper.Sheet> sheets = EnumSet.allOf(BoardPaper.Sheet.class);

    @Option(names = "--paper", paramLabel = "SIZE", description = "a4 (default) or letter.")
    private PaperSize paper = PaperSize.A4;

    @Option(names = "--colours", description = "With the colours of the buttons; else black on white.")
    private boolean colours;

    @Spec
    private CommandSpec spec = CommandSpec.create();

    @Override
    public Integer call() throws Exception {
        Rig rig = BoardFile.read(board);
        for (String page : pages) {
            if (rig.page(page).isEmpty()) {
                throw new BadCall("The board has no page “%s”.".formatted(page));
            }
        }
        if (!PaperFile.named(out)) {
            throw new BadCall("The name of the file ends with .pdf or .png.");
        }
        PrintWriter to = spec.commandLine().getOut();
        try {
            byte[] pdf = BoardPaper.pdf(rig, new BoardPaper.Wanted(sheets, pages, paper, colours),
                    _ -> Twin.Readings.NONE, RunningDeck.CLOCK
                            .wall());
            PaperFile.save(out, pdf).forEach(to::println);
        } catch (IOException e) {
            throw new BadCall("It can't be printed: " + e.getMessage());
        }
        to.flush();
        return 0;
    }
}
