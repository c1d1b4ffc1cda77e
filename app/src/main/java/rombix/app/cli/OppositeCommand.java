package rombix.app.cli;

import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
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
import rombix.core.chain.Chain;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.engine.Known;
import rombix.core.forecast.Opposite;
import rombix.core.store.BoardFile;

/** Makes the chain that undoes a button's chain. */
@Command(name = "opposite", mixinStandardHelpOptions = true, description = {
        "Makes the chain that undoes a button's chain, from the cards, and lists what cannot be undone.",
        "With --stand-ins or --live it knows what the gear's readings are before."})
final class OppositeCommand implements Callable<Integer> {
    @Parameters(index = "0", paramLabel = "BOARD", description = "The board file.")
    private Path board = Path.of("");

    @Parameters(index = "1", paramLabel = "BUTTON", description = "The button's id, such as doors-open.")
    private String button = "";

    @Option(names = "--gesture", defaultValue = "press", paramLabel = "GESTURE", converter = RombixCommand.GestureName.class, description = "press (default), release, long-press, double-press, held, turn or turn-fine.")
    private Gesture gesture = Gesture.PRESS;

    @Option(names = "--state", paramLabel = "S", description = "The id of the state whose chain it is; the first when left out.")
    private @Nullable String state;

    @Option(names = "--at", paramLabel = "GEAR=HOST:PORT", description = "Reach a gear at another address than the board's.")
    private Map<String, String> at = new LinkedHashMap<>();

    @Option(names = "--live", description = "Ask the board's gear for its readings first.")
    private boolean live;

    @Option(names = "--stand-ins", description = "Start stand-ins for the gear, and ask them.")
    private boolean standIns;

    @Option(names = "--json", description = "The chain as a board file writes it.")
    private boolean json;

    @Spec
    private CommandSpec spec = CommandSpec.create();

    @Override
    public Integer call() throws Exception {
        Rig rig = BoardFile.read(board);
        Button of = GearAccess.button(rig, board, button);
        State shown = state == null
                ? of.states().getFirst()
                : of.states().stream().filter(s -> s.id().equals(state)).findFirst().orElseThrow(
                        () -> new BadCall("“%s” has no state “%s”; it has %s".formatted(of.name(), state, of.states()
                                .stream().map(State::id).toList())));
        Known known = Known.NOTHING;
        try (GearAccess gear = GearAccess.open(rig, at, standIns)) {
            if (live || standIns || !at.isEmpty()) {
                known = gear.known(rig);
            }
        }
        Known now = known;
        Opposite opposite = Opposite.of(rig, known, shown.chain(gesture), gesture.id());
        StepWords words = new StepWords(rig, g -> id -> now.readings().getOrDefault(g, Map.of()).get(id));
        PrintWriter out = spec.commandLine().getOut();
        if (json) {
            out.print(BoardFile.format(opposite.chain()));
        } else {
            print(out, opposite.chain(), words, "");
            if (!opposite.left().isEmpty()) {
                out.printf("%nCannot be undone:%n");
                opposite.left().forEach(l -> out.println("  " + words.of(l.what()) + " — " + l.why()));
            }
        }
        out.flush();
        return 0;
    }

    private static void print(PrintWriter out, Chain chain, StepWords words, String indent) {
        for (Step step : chain.steps()) {
            out.println(indent + words.of(step));
            List<Chain> inner = step.inner();
            for (Chain c : inner) {
                print(out, c, words, indent + "    ");
                if (inner.size() > 1) {
                    out.println(indent + "  ·");
                }
            }
        }
    }
}
