package rombix.app.cli;

import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import rombix.standins.CableProvider;
import rombix.standins.Speakers;
import rombix.standins.StandIns;

/** Runs the stand-ins alone. */
@Command(name = "stand-ins", mixinStandardHelpOptions = true, description = "Runs the simulated gear alone, on the"
        + " ports that the demo board names, until it is stopped.")
final class StandInsCommand implements Callable<Integer> {
    @Option(names = "--for", converter = Span.class, paramLabel = "TIME", description = "Stop after this time, such as 20s.")
    private @Nullable Long forMillis;

    @Spec
    private CommandSpec spec = CommandSpec.create();

    @Override
    public Integer call() throws Exception {
        try (StandIns gear = StandIns.onTheirPorts()) {
            java.io.PrintWriter out = spec.commandLine().getOut();
            out.println("studio      OSC     127.0.0.1:" + gear.studio().port());
            out.println("sound desk  MIDI    port “" + CableProvider.SOUND_DESK + "”, a cable to 127.0.0.1:"
                    + gear.desk().port());
            out.println("lamps       sACN    127.0.0.1:" + gear.lamps().port() + ", universe 1");
            out.println("house       MQTT    127.0.0.1:" + gear.house().port());
            out.println("chat        IRC     127.0.0.1:" + gear.chat().port() + ", channel #star-night");
            out.println("player      sound   outputs “" + Speakers.HOUSE + "” and “" + Speakers.HEADPHONES + "”");
            gear.gamepadPort().ifPresent(port -> out.println("gamepad     lines   127.0.0.1:" + port
                    + ", such as “press 0” or “axis 2 0.5”"));
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
}
