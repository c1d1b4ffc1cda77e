package rombix.app.cli;

import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.Callable;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import rombix.app.cli.RombixCommand.BadCall;
import rombix.app.show.Show;
import rombix.core.board.Button;
import rombix.core.board.Rig;
import rombix.core.chain.Gesture;
import rombix.core.engine.AsRun;
import rombix.core.engine.Event;
import rombix.core.engine.Happening;
import rombix.core.engine.Status.Phase;
import rombix.core.store.BoardFile;
import rombix.standins.StandIns;
import tools.jackson.databind.json.JsonMapper;

/** Presses a button from a script. */
@Command(name = "press", mixinStandardHelpOptions = true, description = {
        "Presses a button of a board: connects its gear, runs the chain to its end and prints a line a step.",
        "Ends with 0, with 1 if a step failed, with 2 for a bad call or a bad file."})
final class PressCommand implements Callable<Integer> {
    private static final long SETTLE_MILLIS = 3000;
    private static final long QUIET_MILLIS = 200;

    @Parameters(index = "0", paramLabel = "BOARD", description = "The board file.")
    private Path board = Path.of("");

    @Parameters(index = "1", paramLabel = "BUTTON", description = "The button's id, such as doors-open.")
    private String button = "";

    @Option(names = "--gesture", defaultValue = "press", paramLabel = "GESTURE", description = "press (default) or release.")
    private Gesture gesture = Gesture.PRESS;

    @Option(names = "--times", defaultValue = "1", paramLabel = "N", description = "How many times, one after the other.")
    private int times = 1;

    @Option(names = "--at", paramLabel = "GEAR=HOST:PORT", description = "Reach a gear at another address than the board's; for MIDI the name of a port.")
    private Map<String, String> at = new LinkedHashMap<>();

    @Option(names = "--stand-ins", description = "Start stand-ins for the gear on free ports, and use them.")
    private boolean standIns;

    @Option(names = "--json", description = "One JSON object a line; due and at are milliseconds since the first press.")
    private boolean json;

    @Spec
    private CommandSpec spec = CommandSpec.create();

    @Override
    public Integer call() throws Exception {
        Rig rig = BoardFile.read(board);
        Button pressed = rig.board().button(button).orElseThrow(() -> new BadCall(
                "%s: no button “%s”; it has %s".formatted(board, button,
                        String.join(", ", rig.board().buttons().map(Button::id).toList()))));
        for (String gear : at.keySet()) {
            if (rig.twin(gear).isEmpty()) {
                throw new BadCall("--at %s: no such gear; the board has %s".formatted(gear,
                        String.join(", ", rig.twins().keySet())));
            }
        }
        if (times < 1) {
            throw new BadCall("--times takes a whole number from 1");
        }
        try (StandIns gear = standIns ? StandIns.onFreePorts() : null) {
            Map<String, String> addresses = new HashMap<>(gear == null ? Map.of() : gear.addresses());
            addresses.putAll(at);
            return press(rig, pressed, addresses);
        }
    }

    private int press(Rig rig, Button pressed, Map<String, String> addresses) throws InterruptedException {
        BlockingQueue<Happening> happenings = new LinkedBlockingQueue<>();
        try (Show show = new Show(addresses, happenings::add)) {
            show.load(rig);
            settle(happenings, new HashSet<>(pressed.gear()));
            Report report = new Report(spec.commandLine().getOut(), json, Show.CLOCK.nanos());
            for (int i = 0; i < times; i++) {
                show.post(new Event.Perform(pressed.id(), gesture, "command line"));
                for (Happening h = happenings.take(); !(h instanceof Happening.Rested); h = happenings.take()) {
                    if (h instanceof Happening.Ran ran) {
                        report.line(ran.line());
                    }
                }
            }
            return report.faults == 0 ? 0 : 1;
        }
    }

    /** Waits until each of some gear answers or is known not to, and what it reports has come. */
    private static void settle(BlockingQueue<Happening> happenings, Set<String> gear) throws InterruptedException {
        long until = System.nanoTime() + TimeUnit.MILLISECONDS.toNanos(SETTLE_MILLIS);
        while (System.nanoTime() - until < 0) {
            Happening h = happenings.poll(gear.isEmpty() ? QUIET_MILLIS : SETTLE_MILLIS, TimeUnit.MILLISECONDS);
            if (h == null) {
                return;
            }
            if (h instanceof Happening.Linked l && l.status().phase() != Phase.CONNECTING) {
                gear.remove(l.gear());
            }
        }
    }

    /** Prints steps as they are run. */
    private static final class Report {
        private static final JsonMapper JSON = new JsonMapper();
        private final PrintWriter out;
        private final boolean json;
        private final long startNanos;
        private int faults;

        Report(PrintWriter out, boolean json, long startNanos) {
            this.out = out;
            this.json = json;
            this.startNanos = startNanos;
        }

        void line(AsRun line) {
            faults += line.outcome() == AsRun.Outcome.FAULT ? 1 : 0;
            if (json) {
                Map<String, @Nullable Object> object = new LinkedHashMap<>();
                object.put("due", millis(line.dueNanos()));
                object.put("at", millis(line.atNanos()));
                object.put("lateMicros", line.lateMicros());
                object.put("button", line.button());
                object.put("gear", line.gear());
                object.put("command", line.command());
                object.put("args", line.args());
                object.put("outcome", outcome(line));
                object.put("message", line.message());
                out.println(JSON.writeValueAsString(object));
            } else {
                out.printf("%9.3f s  %-6s %-12s %s%s%n", millis(line.dueNanos()) / 1000, outcome(line), line.gear(),
                        line.title(), line.message().isEmpty() ? "" : "  — " + line.message());
            }
            out.flush();
        }

        private static String outcome(AsRun line) {
            return line.outcome().name().toLowerCase(java.util.Locale.ROOT);
        }

        private double millis(long nanos) {
            return Math.round((nanos - startNanos) / 1e3) / 1e3;
        }
    }
}
