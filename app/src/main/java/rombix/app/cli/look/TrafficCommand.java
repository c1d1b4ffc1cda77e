package rombix.app.cli.look;

import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.Callable;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import rombix.app.cli.option.AllowSecrets;
import rombix.app.cli.option.Span;
import rombix.app.cli.play.Playing;
import rombix.core.traffic.PacketWords;
import rombix.core.traffic.Traffic;
import rombix.core.traffic.TrafficPacket;
import rombix.running.owner.Secrets;
import rombix.running.shell.Caller;
import tools.jackson.databind.json.JsonMapper;

/** Prints the traffic of a running Rombix. */
@Command(name = "traffic", mixinStandardHelpOptions = true, description = {
        "Lists what was sent to the gear of a board and what was received: in words, as raw data, and with the result. Secrets are never shown.",
        "If no Rombix has the board open, the command connects to the gear itself and listens for a while.",
        "Exit code: 0 done, 2 usage error."})
public final class TrafficCommand implements Callable<Integer> {
    private static final long ALONE_MILLIS = 5000;
    private static final long PACE_MILLIS = 100;

    @Parameters(index = "0", paramLabel = "BOARD", description = "The board file.")
    private Path board = Path.of("");

    @Option(names = "--gear", paramLabel = "GEAR", description = "Only this gear, by its id.")
    private @Nullable String gear;

    @Option(names = "--failed", description = "Only packets that failed or were ignored.")
    private boolean failed;

    @Option(names = "--commands", description = "Only commands, no queries or replies.")
    private boolean commands;

    @Option(names = Caller.FOLLOW, description = "Follow until Ctrl+C.")
    private boolean follow;

    @Option(names = "--for", converter = Span.class, paramLabel = "TIME", description = "Follow for this time, such as 20s; default 5s if no Rombix has the board open.")
    private @Nullable Long forMillis;

    @Option(names = "--json", description = "One JSON object per line.")
    private boolean json;

    @Mixin
    private AllowSecrets secrets = new AllowSecrets();

    @Spec
    private CommandSpec spec = CommandSpec.create();
    private final Playing.Stage stage;

    public TrafficCommand(Playing.Stage stage) {
        this.stage = stage;
    }

    @Override
    public Integer call() throws Exception {
        try (LookedAt deck = LookedAt.of(stage, board, gear == null ? "" : gear, secrets)) {
            long until = System.nanoTime() + TimeUnit.MILLISECONDS.toNanos(deck.alone() || forMillis != null
                    ? Objects.requireNonNullElse(forMillis, ALONE_MILLIS)
                    : 0);
            Told told = new Told(0, -1);
            do {
                told = tell(deck, told);
                if (follow && spec.commandLine().getOut().checkError()) {
                    return 0; // Nobody reads on.
                }
                if (follow || System.nanoTime() - until < 0) {
                    Thread.sleep(PACE_MILLIS);
                }
            } while (follow || System.nanoTime() - until < 0);
            tell(deck, told);
            return 0;
        }
    }

    /** What was told already: the number of the last packet, and how often something had changed by then. */
    private record Told(long last, long changes) {
    }

    private Told tell(LookedAt deck, Told told) {
        Traffic.Look look = deck.deck().traffic().look(told.changes());
        if (look == null) {
            return told;
        }
        PacketWords words = new PacketWords(deck.rig(), deck::readings);
        for (TrafficPacket p : look.packets()) {
            if (p.number() > told.last() && (gear == null || p.gear().equals(gear)) && !(failed && p.fate().well())
                    && !(commands && p.order() == null)) {
                tell(p, words);
            }
        }
        spec.commandLine().getOut().flush();
        return new Told(look.packets().isEmpty() ? told.last() : look.packets().getLast().number(), look.changes());
    }

    private void tell(TrafficPacket p, PacketWords words) {
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
        all.put("became", p.result());
        all.put("well", p.fate().well());
        out.println(JsonMapper.builder().build().writeValueAsString(all));
    }
}
