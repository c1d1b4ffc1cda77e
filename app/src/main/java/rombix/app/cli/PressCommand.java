package rombix.app.cli;

import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.Callable;
import java.util.concurrent.LinkedBlockingQueue;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import rombix.app.show.Show;
import rombix.core.board.Button;
import rombix.core.board.Rig;
import rombix.core.chain.Gesture;
import rombix.core.engine.AsRun;
import rombix.core.engine.Event;
import rombix.core.engine.Happening;
import rombix.core.store.BoardFile;
import rombix.core.value.Value;
import tools.jackson.databind.json.JsonMapper;

/** Presses a button from a script. */
@Command(name = "press", mixinStandardHelpOptions = true, description = {
        "Presses a button of a board: connects its gear, runs the chain to its end and prints one line per step.",
        "Exit code: 0 done, 1 a step failed, 2 a bad call or a bad file."})
final class PressCommand implements Callable<Integer> {
    @Parameters(index = "0", paramLabel = "BOARD", description = "The board file.")
    private Path board = Path.of("");

    @Parameters(index = "1", paramLabel = "BUTTON", description = "The button's id, such as doors-open.")
    private String button = "";

    @Option(names = "--gesture", defaultValue = "press", paramLabel = "GESTURE", converter = GestureName.class, description = "press (default), release, long-press, double-press, held, turn or turn-fine.")
    private Gesture gesture = Gesture.PRESS;

    @Option(names = "--times", defaultValue = "1", paramLabel = "N", description = "How many times, one after the other.")
    private int times = 1;

    @Option(names = "--at", paramLabel = "GEAR=HOST:PORT", description = "Reach a gear at another address than the board's; for MIDI the name of a port.")
    private Map<String, String> at = new LinkedHashMap<>();

    @Option(names = "--stand-ins", description = "Start stand-ins for the gear on free ports, and use them.")
    private boolean standIns;

    @Option(names = "--answer", paramLabel = "ANSWER", description = "The answer when the chain asks: a choice by name or by position from 0, a number, or a text. Several are used in turn.")
    private List<String> answers = List.of();

    @Option(names = "--json", description = "One JSON object per line; due and at are milliseconds since the first press.")
    private boolean json;

    @Spec
    private CommandSpec spec = CommandSpec.create();
    private int unanswered;

    @Override
    public Integer call() throws Exception {
        Rig rig = BoardFile.read(board);
        Button pressed = GearAccess.button(rig, board, button);
        if (times < 1) {
            throw new BadCall("--times takes a whole number from 1");
        }
        try (GearAccess gear = GearAccess.open(rig, at, standIns)) {
            return press(rig, pressed, gear.addresses());
        }
    }

    private int press(Rig rig, Button pressed, Map<String, String> addresses) throws InterruptedException {
        BlockingQueue<Happening> happenings = new LinkedBlockingQueue<>();
        try (Show show = new Show(addresses, happenings::add, null)) {
            show.load(rig);
            GearAccess.settle(happenings, pressed.gear());
            Deque<String> left = new ArrayDeque<>(answers);
            Report report = new Report(spec.commandLine().getOut(), json, Show.CLOCK.nanos());
            for (int i = 0; i < times; i++) {
                show.post(new Event.Perform(pressed.id(), gesture, "command line"));
                for (Happening h = happenings.take(); !(h instanceof Happening.Rested); h = happenings.take()) {
                    switch (h) {
                        case Happening.Ran ran -> report.line(ran.line());
                        case Happening.Said said -> report.said(said.text());
                        case Happening.Asked asked -> answer(show, asked, left);
                        default -> {
                            // The rest is not for a script.
                        }
                    }
                }
            }
            return report.faults + unanswered == 0 ? 0 : 1;
        }
    }

    /** Answers a question; where there is no answer left and none comes by itself, the chain is stopped. */
    private void answer(Show show, Happening.Asked asked, Deque<String> left) {
        String answer = left.poll();
        if (answer != null) {
            Value value = answer.matches("-?\\d+(\\.\\d+)?") && !asked.options().contains(answer)
                    ? Value.of(Double.parseDouble(answer))
                    : Value.of(answer);
            show.post(new Event.Reply(asked.question(), value));
        } else if (asked.timeoutMillis() < 0) {
            unanswered++;
            spec.commandLine().getErr().println("“%s” waits for an answer: give one with --answer%s".formatted(asked
                    .text(), asked.options().isEmpty() ? "" : ", one of " + String.join(", ", asked.options())));
            show.post(new Event.StopRun(asked.run()));
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

        void said(String text) {
            if (!json) {
                out.printf("%9s    says   %s%n", "", text);
                out.flush();
            }
        }

        private static String outcome(AsRun line) {
            return line.outcome().name().toLowerCase(java.util.Locale.ROOT);
        }

        private double millis(long nanos) {
            return Math.round((nanos - startNanos) / 1e3) / 1e3;
        }
    }
}
