package rombix.app.cli.look;

import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import rombix.app.cli.option.AllowSecrets;
import rombix.app.cli.play.Playing;
import rombix.core.traffic.WhyNot.Stage;
import rombix.core.traffic.WhyNot;
import tools.jackson.databind.json.JsonMapper;

/** Tests the connection to a gear. */
@Command(name = "why", mixinStandardHelpOptions = true, description = {
        "Tests the connection to a gear of a board: address, name lookup, port, TLS, login, response, readings.",
        "If no Rombix has the board open, the command connects to the gear itself.",
        "Exit code: 0 the connection works, 1 a step failed, 2 usage error."})
public final class WhyCommand implements Callable<Integer> {
    @Parameters(index = "0", paramLabel = "BOARD", description = "The board file.")
    private Path board = Path.of("");

    @Parameters(index = "1", paramLabel = "GEAR", description = "The gear's id.")
    private String gear = "";

    @Option(names = "--json", description = "One JSON object.")
    private boolean json;

    @Mixin
    private AllowSecrets secrets = new AllowSecrets();

    @Spec
    private CommandSpec spec = CommandSpec.create();
    private final Playing.Stage stage;

    public WhyCommand(Playing.Stage stage) {
        this.stage = stage;
    }

    @Override
    public Integer call() throws Exception {
        WhyNot found;
        try (LookedAt deck = LookedAt.of(stage, board, gear, secrets)) {
            found = deck.deck().why(gear);
        }
        PrintWriter out = spec.commandLine().getOut();
        if (json) {
            List<Map<String, String>> all = found.stages().stream().map(WhyCommand::fields).toList();
            out.println(JsonMapper.builder().build().writeValueAsString(Map.of("gear", gear, "stages", all)));
        } else {
            found.stages().forEach(s -> out.printf("%-14s %-10s %s%n", s.what(), s.verdict().words(), s.words()));
            Stage end = found.end();
            out.println(end == null ? "The connection works." : end.next());
        }
        return found.end() == null ? 0 : 1;
    }

    private static Map<String, String> fields(Stage s) {
        Map<String, String> all = new LinkedHashMap<>();
        all.put("what", s.what());
        all.put("verdict", s.verdict().name().toLowerCase(Locale.ROOT));
        all.put("words", s.words());
        all.put("next", s.next());
        return all;
    }
}
