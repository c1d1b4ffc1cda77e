package rombix.app.cli;

import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import rombix.app.show.Session;
import rombix.core.traffic.Packet;
import rombix.core.traffic.PacketWords;
import rombix.core.traffic.Traffic;
import tools.jackson.databind.json.JsonMapper;

/** Says what went out to the gear and came in, in the Rombix that has a board open. */
@Command(name = "traffic", mixinStandardHelpOptions = true, description = {
        "Says what went out to the gear of a board that is open, and what came in: in words, as it stood on the wire, and"
                + " what became of it. Secrets are never shown.",
        "Exit code: 0 done, 2 a bad call or nobody has the board open."})
final class TrafficCommand implements Callable<Integer> {
    private static final long PACE_MILLIS = 100;

    @Parameters(index = "0", paramLabel = "BOARD", description = "The board file.")
    private Path board = Path.of("");

    @Option(names = "--gear", paramLabel = "GEAR", description = "Only this gear's, by its id.")
    private @Nullable String gear;

    @Option(names = "--in-vain", description = "Only what failed or was ignored.")
    private boolean vain;

    @Option(names = "--commands", description = "Only the commands of steps and hands.")
    private boolean commands;

    @Option(names = "--follow", description = "Go on with what comes, until Ctrl+C.")
    private boolean follow;

    @Option(names = "--json", description = "One JSON object in each line.")
    private boolean json;

    @Spec
    private CommandSpec spec = CommandSpec.create();
    private final Playing.Stage stage;

    TrafficCommand(Playing.Stage stage) {
        this.stage = stage;
    }

    @Override
    public Integer call() throws Exception {
        Session session = OpenDeck.of(stage, board);
        String only = gear;
        if (only != null && Session.onInterface(() -> session.window().bench().rig()).twin(only).isEmpty()) {
            throw new BadCall("there is no gear “" + only + "” on this board");
        }
        Traffic traffic = session.show().traffic();
        long told = 0;
        long seen = -1;
        do {
            Traffic.Look look = traffic.look(seen);
            if (look != null) {
                PacketWords words = Session.onInterface(() -> new PacketWords(session.window().bench().rig(), session
                        .window().deck()::readings));
                for (Packet p : look.packets()) {
                    if (p.number() > told && (only == null || p.gear().equals(only)) && !(vain && p.fate().well())
                            && !(commands && p.order() == null)) {
                        tell(p, words);
                    }
                }
                told = look.packets().isEmpty() ? told : look.packets().getLast().number();
                seen = look.changes();
                spec.commandLine().getOut().flush();
            }
            if (follow) {
                Thread.sleep(PACE_MILLIS);
            }
        } while (follow);
        return 0;
    }

    private void tell(Packet p, PacketWords words) {
        PrintWriter out = spec.commandLine().getOut();
        if (!json) {
            out.println(words.line(p));
            return;
        }
        Map<String, Object> all = new LinkedHashMap<>();
        all.put("at", p.at().toString());
        all.put("way", p.way().name().toLowerCase(Locale.ROOT));
        all.put("gear", p.gear());
        all.put("words", words.words(p));
        all.put("raw", p.raw());
        all.put("became", p.told());
        all.put("well", p.fate().well());
        out.println(JsonMapper.builder().build().writeValueAsString(all));
    }
}
