package rombix.app.cli.open;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import rombix.app.cli.option.Span;
import rombix.standins.midi.CableProvider;
import rombix.standins.set.StandIns;
import rombix.standins.sound.Speakers;

/** Runs the stand-ins alone. */
@Command(name = "stand-ins", mixinStandardHelpOptions = true, description = "Runs only the simulated gear, on the ports of the demo board, until stopped.")
public final class StandInsCommand implements Callable<Integer> {
    @Option(names = "--for", converter = Span.class, paramLabel = "TIME", description = "Stop after this time, such as 20s.")
    private @Nullable Long forMillis;

    @Spec
    private CommandSpec spec = CommandSpec.create();

    @Override
    public Integer call() throws Exception {
        try (StandIns gear = StandIns.onTheirPorts()) {
            java.io.PrintWriter out = spec.commandLine().getOut();
            table(gear).forEach(out::println);
            out.flush();
            CountDownLatch stop = new CountDownLatch(1);
            if (forMillis == null) {
                stop.await();
            } else {
                stop.await(forMillis, TimeUnit.MILLISECONDS);
            }
        }
        return 0;
    }

    /** A line for each: what it is, what it speaks, where. */
    static List<String> table(StandIns gear) {
        List<String[]> rows = new ArrayList<>();
        rows.add(new String[]{"studio", "OSC", "127.0.0.1:" + gear.studio().port()});
        rows.add(new String[]{"sound desk", "MIDI", "port “" + CableProvider.SOUND_DESK + "”, a cable to 127.0.0.1:"
                + gear.desk().port()});
        rows.add(new String[]{"lamps", "sACN", "127.0.0.1:" + gear.lamps().port() + ", universe 1"});
        Map<String, String> at = gear.addresses();
        String[][] more = {{"cues", "cue lists", "OSC"}, {"house", "house", "MQTT"}, {"chat", "chat", "IRC"},
                {"projector", "projector", "text line"}, {"camera", "camera head", "HTTP"},
                {"music", "music", "WebSocket"}, {"relays", "relays", "serial"},
                {"computer", "computer", "at the booth"}};
        for (String[] m : more) {
            if (at.containsKey(m[0])) {
                rows.add(new String[]{m[1], m[2], at.get(m[0]) + (m[0].equals("chat") ? ", channel #star-night" : "")});
            }
        }
        rows.add(new String[]{"player", "sound", "outputs “" + Speakers.HOUSE + "” and “" + Speakers.HEADPHONES + "”"});
        gear.gamepadPort().ifPresent(port -> rows.add(new String[]{"gamepad", "lines", "127.0.0.1:" + port
                + ", such as “press 0” or “axis 2 0.5”"}));
        return rows.stream().map(r -> "%-12s %-16s %s".formatted(r[0], r[1], r[2])).toList();
    }
}
