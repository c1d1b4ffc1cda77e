package rombix.app.cli.share;

import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import rombix.core.diff.BoardDiff;
import rombix.core.diff.Change;
import rombix.core.store.BoardFile;
import tools.jackson.databind.json.JsonMapper;

/** Says what is otherwise in one board than in another. */
@Command(name = "diff", mixinStandardHelpOptions = true, description = {
        "Says in words what differs between two boards: by page, button, state and step.",
        "Exit code: 0 nothing differs, 1 something does, 2 a file is not a board."})
public final class DiffCommand implements Callable<Integer> {
    @Parameters(index = "0", paramLabel = "BEFORE", description = "The board as it was.")
    private Path before = Path.of("");

    @Parameters(index = "1", paramLabel = "AFTER", description = "The board as it is.")
    private Path after = Path.of("");

    @Option(names = "--json", description = "One JSON object per line: page, button, state, chain, words.")
    private boolean json;

    @Spec
    private CommandSpec spec = CommandSpec.create();

    @Override
    public Integer call() throws Exception {
        List<Change> all = BoardDiff.of(BoardFile.draft(before).rig(), BoardFile.draft(after).rig());
        PrintWriter out = spec.commandLine().getOut();
        JsonMapper mapper = JsonMapper.builder().build();
        all.forEach(c -> out.println(json ? mapper.writeValueAsString(c) : c.line()));
        out.flush();
        return all.isEmpty() ? 0 : 1;
    }
}
