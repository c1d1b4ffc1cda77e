package rombix.app.cli.play;

import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import org.pcollections.HashTreePMap;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import rombix.app.cli.option.BadCall;
import rombix.core.event.Status;
import rombix.core.twin.Figures;
import rombix.core.twin.Twin;
import rombix.core.value.Value;
import rombix.running.RunningDeck;
import rombix.running.state.DeckState;
import tools.jackson.databind.json.JsonMapper;

/** Says what the gear reports in the Rombix that has a board open. */
@Command(name = "read", mixinStandardHelpOptions = true, description = {
        "Says what the gear reports in the Rombix that has the board open: each reading, its value, and for how long it has been so.",
        "Exit code: 0 done, 1 what was asked for is not known yet, 2 a bad call or nobody has the board open."})
public final class ReadCommand implements Callable<Integer> {
    @Parameters(index = "0", paramLabel = "BOARD", description = "The board file.")
    private Path board = Path.of("");

    @Parameters(index = "1", paramLabel = "GEAR[:READING]", arity = "0..1", description = {
            "Which gear, or which of its readings, by their ids; all of them if left out."})
    private @Nullable String what;

    @Option(names = "--json", description = "One JSON list.")
    private boolean json;

    @Spec
    private CommandSpec spec = CommandSpec.create();
    private final Playing.Stage stage;

    public ReadCommand(Playing.Stage stage) {
        this.stage = stage;
    }

    /**
     * A reading.
     *
     * @param value in words; null where none has come
     * @param seconds for how long it has been so; null where none has come
     * @param reported whether the gear says so itself; else it is taken to be as last sent
     */
    private record Line(String gear, String reading, String title, @Nullable String value, @Nullable Double seconds,
            boolean reported) {
    }

    @Override
    public Integer call() throws Exception {
        RunningDeck open = OpenDeck.of(stage, board);
        DeckState deck = open.feed().state();
        String wanted = what == null ? "" : what;
        int colon = wanted.indexOf(':');
        String gear = colon < 0 ? wanted : wanted.substring(0, colon);
        String reading = colon < 0 ? "" : wanted.substring(colon + 1);
        List<Twin> twins = open.rig().twins().values().stream().filter(t -> gear.isEmpty() || t.gear().equals(gear))
                .toList();
        if (twins.isEmpty()) {
            throw new BadCall(
                    "No gear “%s” on this board; it has %s.".formatted(gear, String.join(", ", open.rig().twins()
                            .keySet())));
        }
        List<Line> lines = new ArrayList<>();
        twins.forEach(
                t -> of(t, deck, open.nanos()).filter(l -> reading.isEmpty() || l.reading().equals(reading)).forEach(
                        lines::add));
        if (lines.isEmpty() && !reading.isEmpty()) {
            throw new BadCall("“%s” has no reading “%s”.".formatted(twins.getFirst().title(), reading));
        }
        PrintWriter out = spec.commandLine().getOut();
        if (json) {
            out.println(
                    JsonMapper.builder().build().writeValueAsString(lines.stream().map(ReadCommand::object).toList()));
        } else {
            twins.forEach(t -> print(t, deck, lines, out));
        }
        return !reading.isEmpty() && lines.getFirst().value() == null ? 1 : 0;
    }

    private static java.util.stream.Stream<Line> of(Twin twin, DeckState deck, long now) {
        Map<String, DeckState.Reading> there = deck.readings().getOrDefault(twin.gear(), HashTreePMap.empty());
        return twin.readings(deck.readings(twin.gear())).stream().map(r -> {
            DeckState.Reading is = there.get(r.id());
            Value value = is == null ? null : is.value();
            return new Line(twin.gear(), r.id(), r.title(), value == null
                    ? null
                    : value instanceof Value.Choices c
                            ? c.choices().size() + (c.choices().size() == 1 ? " item" : " items")
                            : twin.spoken(r, value, deck.readings(twin.gear())),
                    is == null
                            ? null
                            : (now - is.sinceNanos()) / 1e9,
                    twin.reports(r.id()));
        });
    }

    private static Map<String, @Nullable Object> object(Line line) {
        Map<String, @Nullable Object> all = new LinkedHashMap<>();
        all.put("gear", line.gear());
        all.put("reading", line.reading());
        all.put("title", line.title());
        all.put("value", line.value());
        all.put("seconds", line.seconds());
        all.put("reported", line.reported());
        return all;
    }

    private static void print(Twin twin, DeckState deck, List<Line> lines, PrintWriter out) {
        Status status = deck.status(twin.gear());
        out.printf("%s: %s%s%n", twin.title(), status.words(), status.hint().isEmpty() ? "" : ". " + status.hint());
        lines.stream().filter(l -> l.gear().equals(twin.gear()))
                .forEach(l -> out.printf("  %-32s %-20s %s%n", l.title(),
                        l.value() == null ? l.reported() ? "unknown" : "unknown until it is sent" : l.value(),
                        l.seconds() == null
                                ? ""
                                : "for " + Figures.span(l.seconds() * 1000) + (l.reported()
                                        ? ""
                                        : ", as sent: the gear never reports it")));
    }
}
