package rombix.app.cli.play;

import java.io.PrintWriter;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Rig;
import rombix.core.board.StepPlaces;
import rombix.core.board.StepWords;
import rombix.core.event.AsRun;
import rombix.core.event.Happening;
import rombix.core.twin.Figures;
import rombix.core.twin.Twin;
import rombix.running.RunningDeck;
import tools.jackson.databind.json.JsonMapper;

/** Prints what happens as it happens: a line for each step that was run, and for each message. */
final class Report {
    private static final long LATE_MICROS = 50_000;
    private static final JsonMapper JSON = new JsonMapper();

    private final PrintWriter out;
    private final boolean json;
    private final Rig rig;
    private final StepWords words;
    private final long startNanos = RunningDeck.CLOCK.nanos();
    /** The steps that failed last, by run and place, and faults that no step tells of. */
    private final Set<String> failed = new HashSet<>();
    private final Set<String> told = new HashSet<>();

    Report(PrintWriter out, boolean json, Rig rig) {
        this.out = out;
        this.json = json;
        this.rig = rig;
        this.words = new StepWords(rig, _ -> Twin.Readings.NONE);
    }

    /** How many steps failed so far; one that was tried again with success did not. */
    int faults() {
        return failed.size();
    }

    void take(Happening happening) {
        switch (happening) {
            case Happening.Ran ran -> ran(ran.line());
            case Happening.Said said -> printMessage(said);
            case Happening.Faulted f -> faulted(f);
            default -> {
                // The rest is not for a script.
            }
        }
    }

    private void ran(AsRun line) {
        String where = line.run() + " " + line.step();
        if (line.outcome() == AsRun.Outcome.FAULT) {
            failed.add(where);
            told.add(line.message());
        } else {
            failed.remove(where);
        }
        String title = line.gear().isEmpty()
                ? StepPlaces.step(rig, line.button(), line.step()).map(words.with(line.args())::of).orElse(line.title())
                : line.title();
        String outcome = line.outcome().name().toLowerCase(Locale.ROOT);
        if (json) {
            Map<String, @Nullable Object> object = new LinkedHashMap<>();
            object.put("due", millis(line.dueNanos()));
            object.put("at", millis(line.atNanos()));
            object.put("lateMicros", line.lateMicros());
            object.put("button", line.button());
            object.put("step", line.step());
            object.put("title", title);
            object.put("gear", line.gear());
            object.put("command", line.command());
            object.put("args", line.args());
            object.put("outcome", outcome);
            object.put("message", line.message());
            out.println(JSON.writeValueAsString(object));
        } else {
            boolean late = line.lateMicros() > LATE_MICROS;
            String message = !line.message().isEmpty() || !late
                    ? line.message()
                    : "%s late".formatted(Figures.span(line.lateMicros() / 1000.0));
            out.printf("%9.3f s  %-6s %-12s %s%s%n", millis(late ? line.atNanos() : line.dueNanos()) / 1000, outcome,
                    line
                            .gear(),
                    title, message.isEmpty() ? "" : "  — " + message);
        }
        out.flush();
    }

    /** What went wrong with the button itself, and no step tells of. */
    private void faulted(Happening.Faulted f) {
        String message = f.message();
        if (message == null || !told.add(message)) {
            return;
        }
        failed.add(message);
        if (json) {
            Map<String, @Nullable Object> object = new LinkedHashMap<>();
            object.put("at", millis(RunningDeck.CLOCK.nanos()));
            object.put("button", f.button());
            object.put("outcome", "fault");
            object.put("message", message);
            out.println(JSON.writeValueAsString(object));
        } else {
            out.printf("%9s    fault  %s%n", "", message);
        }
        out.flush();
    }

    private void printMessage(Happening.Said said) {
        if (json) {
            Map<String, @Nullable Object> object = new LinkedHashMap<>();
            object.put("at", millis(RunningDeck.CLOCK.nanos()));
            object.put("button", said.button());
            object.put("outcome", "said");
            object.put("message", said.text());
            out.println(JSON.writeValueAsString(object));
        } else {
            out.printf("%9s    says   %s%n", "", said.text());
        }
        out.flush();
    }

    private double millis(long nanos) {
        return Math.round((nanos - startNanos) / 1e3) / 1e3;
    }
}
