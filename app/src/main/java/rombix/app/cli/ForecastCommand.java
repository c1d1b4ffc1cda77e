package rombix.app.cli;

import java.io.PrintWriter;
import java.nio.file.Path;
import java.time.ZonedDateTime;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import rombix.app.cli.RombixCommand.BadCall;
import rombix.core.board.Button;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.board.StepWords;
import rombix.core.board.Walk;
import rombix.core.card.Figures;
import rombix.core.chain.Gesture;
import rombix.core.engine.Known;
import rombix.core.forecast.Forecast;
import rombix.core.forecast.Forecaster;
import rombix.core.store.BoardFile;
import tools.jackson.databind.json.JsonMapper;

/** Says what a press will do, without telling the gear anything. */
@Command(name = "forecast", mixinStandardHelpOptions = true, description = {
        "Says what a press will do: when each step runs, what each reading will be, with what odds, what clashes.",
        "Nothing is sent. With --stand-ins or --live it starts from what the gear says now; else from what is not known."})
final class ForecastCommand implements Callable<Integer> {
    @Parameters(index = "0", paramLabel = "BOARD", description = "The board file.")
    private Path board = Path.of("");

    @Parameters(index = "1", paramLabel = "BUTTON", description = "The button's id, such as doors-open.")
    private String button = "";

    @Option(names = "--gesture", defaultValue = "press", paramLabel = "GESTURE", converter = RombixCommand.GestureName.class, description = "press (default), release, long-press, double-press, held, turn or turn-fine.")
    private Gesture gesture = Gesture.PRESS;

    @Option(names = "--state", paramLabel = "S", description = "The id of the state in which it is pressed; the one that would be shown when left out.")
    private @Nullable String state;

    @Option(names = "--runs", defaultValue = "1000", paramLabel = "N", description = "How many runs where there is chance (1000).")
    private int runs = 1000;

    @Option(names = "--seed", defaultValue = "1", paramLabel = "S", description = "Where chance starts (1): the same seed gives the same forecast.")
    private long seed = 1;

    @Option(names = "--at", paramLabel = "GEAR=HOST:PORT", description = "Reach a gear at another address than the board's.")
    private Map<String, String> at = new LinkedHashMap<>();

    @Option(names = "--live", description = "Ask the board's gear for its readings first.")
    private boolean live;

    @Option(names = "--stand-ins", description = "Start stand-ins for the gear, and ask them.")
    private boolean standIns;

    @Option(names = "--json", description = "One JSON object.")
    private boolean json;

    @Spec
    private CommandSpec spec = CommandSpec.create();

    @Override
    public Integer call() throws Exception {
        Rig rig = BoardFile.read(board);
        Button pressed = GearAccess.button(rig, board, button);
        if (runs < 1) {
            throw new BadCall("--runs takes a whole number from 1");
        }
        Known known = Known.NOTHING;
        try (GearAccess gear = GearAccess.open(rig, at, standIns)) {
            if (live || standIns || !at.isEmpty()) {
                known = gear.known(rig);
            }
        }
        State shown = state(pressed, known);
        Forecast forecast = Forecaster.of(rig, known, ZonedDateTime.now(), pressed.id(), shown.chain(gesture), gesture
                .id(), runs, seed);
        Known now = known;
        StepWords words = new StepWords(rig, g -> id -> now.readings().getOrDefault(g, Map.of()).get(id));
        Map<String, String> titles = new LinkedHashMap<>();
        Walk.steps(rig.board(), spot -> {
            if (spot.owner().button() == pressed && spot.owner().state() == shown
                    && spot.owner().gesture() == gesture) {
                titles.put(spot.place(), words.of(spot.step()));
            }
        });
        PrintWriter out = spec.commandLine().getOut();
        if (json) {
            out.println(JsonMapper.builder().build().writeValueAsString(json(pressed, shown, forecast, titles)));
        } else {
            print(out, forecast, titles, words);
        }
        out.flush();
        return 0;
    }

    private State state(Button pressed, Known known) throws BadCall {
        for (State s : pressed.states()) {
            if (state == null
                    ? s.when() != null && s.when().holds(known.readings().getOrDefault(s.when().gear(), Map.of()).get(s
                            .when().reading()))
                    : s.id().equals(state)) {
                return s;
            }
        }
        if (state != null) {
            throw new BadCall("“%s” has no state “%s”; it has %s".formatted(pressed.name(), state, pressed.states()
                    .stream().map(State::id).toList()));
        }
        return pressed.states().getFirst();
    }

    private Map<String, @Nullable Object> json(Button pressed, State shown, Forecast f, Map<String, String> titles) {
        Map<String, @Nullable Object> all = new LinkedHashMap<>();
        all.put("button", pressed.id());
        all.put("state", shown.id());
        all.put("gesture", gesture.id());
        all.put("runs", f.runs());
        all.put("seed", seed);
        all.put("endless", f.endless());
        all.put("length", f.length());
        all.put("steps", f.steps().stream().map(s -> {
            Map<String, @Nullable Object> step = new LinkedHashMap<>();
            step.put("step", s.step());
            step.put("title", titles.getOrDefault(s.step(), ""));
            step.put("share", s.share());
            step.put("times", s.times());
            step.put("start", s.start());
            step.put("end", s.end());
            return step;
        }).toList());
        all.put("readings", f.changes());
        all.put("odds", f.odds());
        all.put("clashes", f.clashes());
        all.put("off", f.off());
        all.put("faults", f.faults());
        return all;
    }

    private static void print(PrintWriter out, Forecast f, Map<String, String> titles, StepWords words) {
        out.printf("%s, %s%n%n", f.endless() ? "Goes on until it is stopped" : "Takes " + span(f.length()),
                f.runs() == 1
                        ? "no chance in it"
                        : f.runs() + " runs");
        out.println("  starts                  ends                    odds   step");
        for (Forecast.StepTime s : f.steps()) {
            String title = titles.getOrDefault(s.step(), "");
            out.printf("  %-22s  %-22s  %s   %s%s%n", span(s.start()), span(s.end()), percent(s.share()),
                    title.isEmpty() ? s.step() : title, s.times() > 1
                            ? String.format(Locale.ROOT, "  (%.0f times)", s
                                    .times())
                            : "");
        }
        section(out, "Readings", f.changes().stream().map(c -> "%s: %s → %s".formatted(words.reading(c.gear() + ":" + c
                .reading()), c.before() == null ? "—" : words.value(c.gear(), c.reading(), c.before()), String.join(
                        ", ", c.after().stream().map(o -> (o.share() < 1 ? percent(o.share()) + " " : "") + words.value(
                                c.gear(), c.reading(), o.value())).toList())))
                .toList());
        section(out, "Odds", f.odds().stream().map(o -> percent(o.share()) + " " + o.name() + "  (" + titles
                .getOrDefault(o.step(), o.step()) + ")").toList());
        section(out, "Clashes", f.clashes().stream().map(c -> "%s is set by two steps at %s: %s and %s".formatted(words
                .reading(c.gear() + ":" + c.reading()), Figures.span(c.atMillis()),
                titles.getOrDefault(c.first(), c
                        .first()),
                titles.getOrDefault(c.second(), c.second()))).toList());
        section(out, "Gear that is off", f.off().stream().map(o -> titles.getOrDefault(o.step(), o.step()) + " — " + o
                .why()).toList());
        section(out, "Faults", f.faults().stream().map(o -> percent(o.share()) + " " + titles.getOrDefault(o.step(), o
                .step()) + " — " + o.why()).toList());
    }

    private static void section(PrintWriter out, String title, List<String> lines) {
        if (!lines.isEmpty()) {
            out.printf("%n%s%n", title);
            lines.forEach(l -> out.println("  " + l));
        }
    }

    private static String percent(double share) {
        return String.format(Locale.ROOT, "%3.0f %%", share * 100);
    }

    private static String span(Forecast.Span s) {
        return Math.round(s.least()) == Math.round(s.most())
                ? Figures.span(s.most())
                : Figures.span(s.least()) + " ~ " + Figures.span(s.expected()) + " ~ " + Figures.span(s.most());
    }
}
