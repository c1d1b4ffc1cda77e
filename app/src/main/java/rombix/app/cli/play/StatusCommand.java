package rombix.app.cli.play;

import com.fasterxml.jackson.annotation.JsonIgnore;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.OptionalLong;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.pcollections.HashTreePMap;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import rombix.core.board.Button;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.event.Status;
import rombix.core.twin.Figures;
import rombix.running.RunningDeck;
import rombix.running.face.FaceNow;
import rombix.running.face.FaceWords;
import rombix.running.state.DeckState;
import tools.jackson.databind.json.JsonMapper;

/** Prints the status of a running Rombix. */
@Command(name = "status", mixinStandardHelpOptions = true, description = {
        "Shows the state of the Rombix that has the board open: mode, page, faces, running chains, gear and faults.",
        "Exit code: 0 all well, 1 faults or unreachable gear, 2 usage error or the board isn't open."})
public final class StatusCommand implements Callable<Integer> {
    @Parameters(index = "0", paramLabel = "BOARD", description = "The board file.")
    private Path board = Path.of("");

    @Option(names = "--json", description = "One JSON object.")
    private boolean json;

    @Spec
    private CommandSpec spec = CommandSpec.create();
    private final Playing.Stage stage;

    public StatusCommand(Playing.Stage stage) {
        this.stage = stage;
    }

    private record Running(String button, String name, String what, @Nullable Double secondsLeft) {
    }

    private record Gear(String gear, String title, String status, String reason, String hint, int readings,
            @Nullable Double seconds, boolean well) {
    }

    private record Fault(String button, String name, String message) {
    }

    /**
     * What a button shows.
     *
     * @param state the name of its state; empty where it has only one
     * @param words all that its face says beside its name
     */
    private record Shown(String button, String name, String page, String state, String label, String second,
            String tally, List<String> levels, boolean held, @JsonIgnore String words) {
    }

    private record Found(String board, String mode, String page, List<Shown> faces, List<Running> running,
            List<Gear> gear, List<Fault> faults) {
        boolean well() {
            return faults.isEmpty() && gear.stream().allMatch(Gear::well);
        }
    }

    @Override
    public Integer call() throws Exception {
        Found found = look(OpenDeck.of(stage, board));
        PrintWriter out = spec.commandLine().getOut();
        if (json) {
            Map<String, Object> all = new LinkedHashMap<>();
            all.put("board", found.board());
            all.put("mode", found.mode());
            all.put("page", found.page());
            all.put("faces", found.faces());
            all.put("running", found.running());
            all.put("gear", found.gear());
            all.put("faults", found.faults());
            out.println(JsonMapper.builder().build().writeValueAsString(all));
        } else {
            out.printf("%s, %s, page %s%n", found.board(),
                    Figures.capitalized(found.mode()), found.page());
            found.faces().stream().filter(f -> f.page().equals(found.page()) && !f.words().isEmpty()).forEach(f -> out
                    .printf("face   %-20s %s%n", f.name(), f.words()));
            found.running().forEach(r -> out.printf("runs   %-20s %s%s%n", r.name(), r.what(), r.secondsLeft() == null
                    ? ""
                    : ", " + Figures.left(r.secondsLeft()) + " left"));
            found.gear().forEach(g -> out.printf("gear   %-20s %s%s%s%n", g.title(), g.status(), g
                    .seconds() == null
                            ? ""
                            : ", %d %s, last change %s ago".formatted(g.readings(),
                                    g.readings() == 1 ? "reading" : "readings", Figures.span(g.seconds()
                                            * 1000)),
                    g.well() || g.hint().isEmpty() ? "" : ". " + g.hint()));
            found.faults().forEach(f -> out.printf("fault  %-20s %s%n", f.name(), f.message()));
        }
        return found.well() ? 0 : 1;
    }

    private static Found look(RunningDeck open) {
        DeckState deck = open.feed().state();
        Rig rig = open.rig();
        long now = open.nanos();
        List<Running> running = new ArrayList<>();
        for (DeckState.Running r : deck.running()) {
            running.add(new Running(r.button(), name(rig, r.button()), r.what(),
                    r.startNanos() + r.expectedNanos() <= now || deck.asks(r.run())
                            ? null
                            : (r.startNanos() + r.expectedNanos() - now) / 1e9));
        }
        List<Gear> gear = rig.twins().values().stream().map(t -> {
            Status s = deck.status(t.gear());
            Collection<DeckState.Reading> readings = deck.readings().getOrDefault(t.gear(), HashTreePMap.empty())
                    .values();
            OptionalLong last = readings.stream().mapToLong(DeckState.Reading::sinceNanos).max();
            return new Gear(t.gear(), t.title(), s.words(), s.reason().id(), s.hint(), readings.size(), last.isEmpty()
                    ? null
                    : (now - last.getAsLong()) / 1e9, s.well());
        }).toList();
        FaceWords words = new FaceWords(() -> rig, () -> deck, open::wall, open::nanos);
        List<Shown> faces = rig.board().pages().stream().flatMap(p -> p.buttons().stream().map(b -> shown(p, b, FaceNow
                .of(b, deck, words)))).toList();
        return new Found(rig.board().name(), deck.mode().name().toLowerCase(Locale.ROOT), rig.page(String
                .valueOf(deck.page())).orElse(rig.board().pages().getFirst()).name(),
                faces, running, gear, deck.troubles().stream().map(f -> new Fault(f.button(), name(rig, f.button()), f
                        .message())).toList());
    }

    private static Shown shown(Page page, Button button, FaceNow face) {
        String state = face.states() > 1 ? face.stateName() : "";
        String tally = face.tally() == null ? "" : face.tally().word();
        List<String> levels = face.levels().stream().map(FaceNow.Level::words).toList();
        String label = face.label().replace('\n', ' ');
        String words = Stream.of(Stream.of(label.equals(button.name()) ? "" : label, face.second(), state, tally, face
                .held() ? "held" : ""), levels.stream()).flatMap(s -> s).filter(s -> !s.isEmpty()).collect(Collectors
                        .joining(", "));
        return new Shown(button.id(), button.name(), page.name(), state, label, face.second(), tally, levels, face
                .held(), words);
    }

    private static String name(Rig rig, String button) {
        return rig.button(button).map(Button::name).orElse(button);
    }
}
