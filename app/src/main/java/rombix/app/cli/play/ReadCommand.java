package rombix.app.cli.play;

import java.io.PrintWriter;
import java.nio.file.Path;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import org.pcollections.HashTreePMap;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import rombix.app.cli.option.BadCall;
import rombix.core.event.Happening;
import rombix.core.event.Status;
import rombix.core.thread.Bounded;
import rombix.core.twin.Figures;
import rombix.core.twin.Twin;
import rombix.core.value.Value;
import rombix.running.RunningDeck;
import rombix.running.shell.Caller;
import rombix.running.state.DeckState;
import tools.jackson.databind.json.JsonMapper;

/** Prints the readings of a running Rombix. */
@Command(name = "read", mixinStandardHelpOptions = true, description = {
        "Lists the readings of the gear, each with its value and age, and the values of the board, from the Rombix that has the board open.",
        "Exit code: 0 done, 1 not known yet, 2 usage error or the board isn't open."})
public final class ReadCommand implements Callable<Integer> {
    private static final int MOST_WAITING = 10_000;
    private static final long PACE_MILLIS = 200;
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH:mm:ss", Locale.ROOT);

    @Parameters(index = "0", paramLabel = "BOARD", description = "The board file.")
    private Path board = Path.of("");

    @Parameters(index = "1..*", paramLabel = "NAME", arity = "0..*", description = {
            "GEAR, GEAR:READING, a value, or BUTTON/VALUE, by id; everything if omitted."})
    private List<String> what = List.of();

    @Option(names = Caller.FOLLOW, description = "Print each change on a line, until Ctrl+C.")
    private boolean follow;

    @Option(names = "--json", description = "One JSON list; with --follow one object per line.")
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
        Bounded<Happening> changes = new Bounded<>(MOST_WAITING, Bounded.Full.DROP_OLDEST);
        try (RunningDeck.Watching _ = open.watch(h -> { // Before: nothing is missed in between.
            if (follow && (h instanceof Happening.Came || h instanceof Happening.ValueSet)) {
                changes.offer(h);
            }
        })) {
            int code = now(open);
            if (follow) {
                follow(open, changes);
            }
            return code;
        }
    }

    /** Says how all that is asked for is now. */
    private int now(RunningDeck open) throws BadCall {
        DeckState deck = open.feed().state();
        Map<String, Twin> twins = new LinkedHashMap<>();
        List<Line> lines = new ArrayList<>();
        List<String> all = new ArrayList<>(open.rig().twins().keySet());
        all.addAll(deck.values().keySet().stream().sorted().toList());
        for (String wanted : what.isEmpty() ? all : what) {
            if (deck.values().containsKey(wanted)) {
                lines.add(value(open, wanted, deck.values().get(wanted).to()));
                continue;
            }
            String gear = gear(wanted);
            String reading = reading(wanted);
            Twin twin = open.rig().twins().get(gear);
            if (twin == null) {
                throw new BadCall(
                        "No gear and no value “%s” on this board; it has %s.".formatted(gear, String.join(", ",
                                all)));
            }
            List<Line> its = of(twin, deck, open.nanos()).filter(l -> reading.isEmpty() || l.reading().equals(reading))
                    .toList();
            if (its.isEmpty() && !reading.isEmpty()) {
                throw new BadCall("“%s” has no reading “%s”.".formatted(twin.title(), reading));
            }
            twins.put(gear, twin);
            lines.addAll(its);
        }
        PrintWriter out = spec.commandLine().getOut();
        if (!json) {
            twins.values().forEach(t -> print(t, deck, lines, out));
            List<Line> values = lines.stream().filter(l -> l.gear().isEmpty()).toList();
            if (!values.isEmpty()) {
                out.println("Values");
                values.forEach(l -> out.printf("  %-32s %s%n", l.title(), l.value()));
            }
        } else if (follow) {
            lines.forEach(l -> out.println(JsonMapper.builder().build().writeValueAsString(object(l))));
        } else {
            out.println(JsonMapper.builder().build().writeValueAsString(lines.stream().map(ReadCommand::object)
                    .toList()));
        }
        out.flush();
        return lines.stream().anyMatch(l -> l.value() == null && what.contains(l.gear() + ":" + l.reading())) ? 1 : 0;
    }

    private static String gear(String wanted) {
        int colon = wanted.indexOf(':');
        return colon < 0 ? wanted : wanted.substring(0, colon);
    }

    private static String reading(String wanted) {
        int colon = wanted.indexOf(':');
        return colon < 0 ? "" : wanted.substring(colon + 1);
    }

    /** Says each change, until nobody reads on. */
    private void follow(RunningDeck open, Bounded<Happening> changes) throws InterruptedException {
        PrintWriter out = spec.commandLine().getOut();
        while (!out.checkError()) {
            Happening next = changes.poll(PACE_MILLIS, TimeUnit.MILLISECONDS);
            if (next instanceof Happening.ValueSet set) {
                value(open, set, out);
            }
            Happening.Came came = next instanceof Happening.Came c ? c : null;
            Twin twin = came == null ? null : open.rig().twins().get(came.gear());
            if (came == null || twin == null || !what.isEmpty() && !what.contains(came.gear())
                    && !what.contains(came.gear() + ":" + came.reading())) {
                continue;
            }
            DeckState deck = open.feed().state();
            twin.reading(came.reading(), deck.readings(came.gear())).ifPresent(r -> {
                String value = words(twin, r, came.value(), deck);
                out.println(json
                        ? JsonMapper.builder().build().writeValueAsString(object(new Line(came.gear(), r.id(), r
                                .title(), value, 0.0, twin.reports(r.id()))))
                        : "%s  %s %s: %s".formatted(TIME.format(open.wall()), twin.title(), r.title(), value));
            });
        }
    }

    private void value(RunningDeck open, Happening.ValueSet set, PrintWriter out) {
        String name = set.button() == null ? set.value() : set.button() + "/" + set.value();
        if (what.isEmpty() || what.contains(name)) {
            Line line = value(open, name, set.to());
            out.println(json
                    ? JsonMapper.builder().build().writeValueAsString(object(line))
                    : "%s  %s: %s".formatted(TIME.format(open.wall()), line.title(), line.value()));
        }
    }

    /** A value as it is now, by its name: {@code visitors}, {@code night.item}, {@code BUTTON/VALUE}. */
    private static Line value(RunningDeck open, String name, Value now) {
        String title = open.rig().board().values().stream().filter(v -> v.id().equals(name)).map(v -> v.name())
                .findFirst()
                .orElse(name);
        return new Line("", name, title, now.toString(), null, true);
    }

    private static java.util.stream.Stream<Line> of(Twin twin, DeckState deck, long now) {
        Map<String, DeckState.Reading> there = deck.readings().getOrDefault(twin.gear(), HashTreePMap.empty());
        return twin.readings(deck.readings(twin.gear())).stream().map(r -> {
            DeckState.Reading is = there.get(r.id());
            Value value = is == null ? null : is.value();
            return new Line(twin.gear(), r.id(), r.title(), value == null
                    ? null
                    : words(twin, r, value, deck),
                    is == null
                            ? null
                            : (now - is.sinceNanos()) / 1e9,
                    twin.reports(r.id()));
        });
    }

    private static String words(Twin twin, Twin.Reading reading, Value value, DeckState deck) {
        return value instanceof Value.Choices c
                ? Figures.count(c.choices().size(), "item")
                : twin.spoken(reading, value, deck.readings(twin.gear()));
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
                        l.value() == null ? l.reported() ? "unknown" : "unknown until sent" : l.value(),
                        l.seconds() == null
                                ? ""
                                : "for " + Figures.span(l.seconds() * 1000) + (l.reported()
                                        ? ""
                                        : ", as sent (the gear doesn't report it)")));
    }
}
