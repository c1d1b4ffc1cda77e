package rombix.app.cli.look;

import java.io.PrintWriter;
import java.time.ZonedDateTime;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import rombix.app.cli.option.BadCall;
import rombix.app.cli.play.Playing;
import rombix.core.board.StepPlaces;
import rombix.core.board.StepWords;
import rombix.core.forecast.Forecast;
import rombix.core.forecast.Forecaster;
import rombix.core.twin.Figures;
import tools.jackson.databind.json.JsonMapper;

/** Forecasts a press without sending anything to the gear. */
@Command(name = "forecast", mixinStandardHelpOptions = true, description = {
        "Forecasts a press: when each step runs, what each reading will be, the odds, and conflicts.",
        "Nothing is sent. With --stand-ins or --live it starts from the present readings; otherwise they are unknown.",
        "With --live, readings come from the Rombix that has the board open, or else from the gear."})
public final class ForecastCommand implements Callable<Integer> {
    @Mixin
    private ChainArgs chain = new ChainArgs();

    @Option(names = "--runs", defaultValue = "1000", paramLabel = "N", description = "Number of simulated runs if chance is involved (default 1000).")
    private int runs = 1000;

    @Option(names = "--seed", defaultValue = "1", paramLabel = "S", description = "Random seed (default 1): the same seed gives the same forecast.")
    private long seed = 1;

    @Option(names = "--json", description = "One JSON object.")
    private boolean json;

    /** Steps in words, by their places. */
    private interface Titles {
        String of(String place);
    }

    @Spec
    private CommandSpec spec = CommandSpec.create();
    private final Playing.Stage stage;

    public ForecastCommand(Playing.Stage stage) {
        this.stage = stage;
    }

    @Override
    public Integer call() throws Exception {
        if (runs < 1) {
            throw new BadCall("--runs takes a whole number from 1");
        }
        ChainArgs.Chosen of = chain.choose(stage);
        Forecast forecast = Forecaster.of(of.rig(), of.known(), ZonedDateTime.now(), of.button().id(), of.chain(), of
                .gesture().id(), runs, seed);
        StepWords words = new StepWords(of.rig(), g -> id -> of.known().readings().getOrDefault(g, Map.of()).get(id));
        Titles titles = place -> StepPlaces.step(of.rig(), of.button(), of.state(), place).map(words::of).orElse(place);
        PrintWriter out = spec.commandLine().getOut();
        if (json) {
            out.println(JsonMapper.builder().build().writeValueAsString(json(of, forecast, titles)));
        } else {
            print(out, forecast, titles, words);
        }
        out.flush();
        return 0;
    }

    private Map<String, @Nullable Object> json(ChainArgs.Chosen of, Forecast f, Titles titles) {
        Map<String, @Nullable Object> all = new LinkedHashMap<>();
        all.put("button", of.button().id());
        all.put("state", of.state().id());
        all.put("gesture", of.gesture().id());
        all.put("runs", f.runs());
        all.put("seed", seed);
        all.put("endless", f.endless());
        all.put("length", f.length());
        all.put("steps", f.steps().stream().map(s -> {
            Map<String, @Nullable Object> step = new LinkedHashMap<>();
            step.put("step", s.step());
            step.put("title", titles.of(s.step()));
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

    private static void print(PrintWriter out, Forecast f, Titles titles, StepWords words) {
        out.printf("%s, %s%n%n", f.endless() ? "Runs until stopped" : "Takes " + span(f.length()),
                f.runs() == 1
                        ? "no chance involved"
                        : f.runs() + " runs");
        out.println("  starts                  ends                    odds   step");
        for (Forecast.StepTime s : f.steps()) {
            String title = titles.of(s.step());
            out.printf("  %-22s  %-22s  %s   %s%s%n", span(s.start()), span(s.end()), percent(s.share()),
                    title, s.times() > 1
                            ? String.format(Locale.ROOT, "  (%.0f times)", s
                                    .times())
                            : "");
        }
        section(out, "Readings", f.changes().stream().map(c -> "%s: %s → %s".formatted(words.reading(c.gear() + ":" + c
                .reading()), c.before() == null ? "—" : words.value(c.gear(), c.reading(), c.before()), String.join(
                        ", ", c.after().stream().map(o -> (o.share() < 1 ? percent(o.share()) + " " : "") + words.value(
                                c.gear(), c.reading(), o.value())).toList())))
                .toList());
        section(out, "Odds", f.odds().stream()
                .map(o -> percent(o.share()) + " " + o.name() + "  (" + titles.of(o.step()) + ")").toList());
        section(out, "Conflicts", f.clashes().stream().map(c -> "Two steps set %s at %s: %s and %s".formatted(words
                .reading(c.gear() + ":" + c.reading()), Figures.span(c.atMillis()),
                titles.of(c.first()),
                titles.of(c.second()))).toList());
        section(out, "Unreachable gear", f.off().stream().map(o -> titles.of(o.step()) + " — " + o
                .why()).toList());
        section(out, "Faults", f.faults().stream()
                .map(o -> percent(o.share()) + " " + titles.of(o.step()) + " — " + o.why()).toList());
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
