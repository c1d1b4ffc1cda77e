package rombix.app.cli.look;

import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import rombix.app.cli.play.Playing;
import rombix.app.view.common.Checking;
import rombix.core.check.Check;
import rombix.core.check.Finding;
import rombix.core.event.Known;
import rombix.core.store.BadFile;
import rombix.core.store.BoardFile;
import rombix.running.RunningDeck;
import tools.jackson.databind.json.JsonMapper;

/** Checks a board. */
@Command(name = "check", mixinStandardHelpOptions = true, description = {
        "Checks a board: one finding per line, with its place and what to do.",
        "Doesn't connect to gear; addresses are only checked for their form. If a Rombix has the board open, names that the gear reports are checked, too.",
        "Exit code: 0 no findings, 1 findings, 2 the file is not a board."})
public final class CheckCommand implements Callable<Integer> {
    @Parameters(index = "0", paramLabel = "BOARD", description = "The board file.")
    private Path board = Path.of("");

    @Option(names = "--json", description = "One JSON object per line: kind, place, where, message, button.")
    private boolean json;

    @Spec
    private CommandSpec spec = CommandSpec.create();
    private final Playing.Stage stage;

    public CheckCommand(Playing.Stage stage) {
        this.stage = stage;
    }

    @Override
    public Integer call() throws Exception {
        BoardFile.Draft draft = BoardFile.draft(board);
        RunningDeck open = stage.deck();
        Known known = open == null ? Known.NOTHING : open.known();
        List<Finding> findings = Check.of(draft.rig(),
                new Checking(g -> known.readings().getOrDefault(g, Map.of())::get));
        PrintWriter out = spec.commandLine().getOut();
        JsonMapper mapper = JsonMapper.builder().build();
        for (Finding f : findings) {
            String place = draft.where(f.pointer());
            BadFile card = draft.badCards().get(f.pointer());
            String message = card == null ? f.message() : "its card has errors: " + card.getMessage();
            if (json) {
                Map<String, String> line = new LinkedHashMap<>();
                line.put("kind", f.kind().name().toLowerCase(java.util.Locale.ROOT).replace('_', '-'));
                line.put("place", place);
                line.put("where", f.where());
                line.put("message", message);
                line.put("button", f.button());
                out.println(mapper.writeValueAsString(line));
            } else {
                out.println("%s%s: %s: %s: %s".formatted(board, place.isEmpty() ? "" : ":" + place, f.where(), f.kind()
                        .words(), message));
            }
        }
        if (findings.isEmpty() && !json) {
            out.println(board + ": no problems found");
        }
        out.flush();
        return findings.isEmpty() ? 0 : 1;
    }
}
