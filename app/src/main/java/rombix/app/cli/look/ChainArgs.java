package rombix.app.cli.look;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import rombix.app.cli.option.AllowSecrets;
import rombix.app.cli.option.BadCall;
import rombix.app.cli.option.GearAccess;
import rombix.app.cli.option.GestureName;
import rombix.app.cli.play.Playing;
import rombix.core.board.Button;
import rombix.core.board.Question;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.chain.Chain;
import rombix.core.chain.Gesture;
import rombix.core.event.Known;
import rombix.core.store.BadFile;
import rombix.core.store.BoardFile;
import rombix.running.RunningDeck;

/** The chain and the present readings for commands that inspect chains and send nothing. */
final class ChainArgs {
    @Parameters(index = "0", paramLabel = "BOARD", description = "The board file.")
    private Path board = Path.of("");

    @Parameters(index = "1", paramLabel = "BUTTON", description = "Id of the button, such as doors-open.")
    private String button = "";

    @Option(names = "--gesture", defaultValue = "press", paramLabel = "GESTURE", converter = GestureName.class, description = "press (default), release, long-press, double-press, held, turn or turn-fine.")
    private Gesture gesture = Gesture.PRESS;

    @Option(names = "--state", paramLabel = "S", description = "Id of the state that has the chain; if omitted, the one the button shows.")
    private @Nullable String state;

    @Option(names = "--at", paramLabel = "GEAR=HOST:PORT", description = "Use another address for this gear than the board's, and ask for its readings.")
    private Map<String, String> at = new LinkedHashMap<>();

    @Option(names = "--live", description = "Start from the present readings: from the Rombix that has the board open, or else from the gear itself.")
    private boolean live;

    @Option(names = "--stand-ins", description = "Start stand-ins for the gear, and read from them.")
    private boolean standIns;

    @Mixin
    private AllowSecrets secrets = new AllowSecrets();

    /** A chain with whose it is. */
    record Chosen(Rig rig, Known known, Button button, State state, Gesture gesture) {
        Chain chain() {
            return state.chain(gesture);
        }
    }

    /**
     * Finds the chain. The board, and what is known of its gear, is that of the Rombix that has it open; else it is read, and
     * the gear asked where that is wanted.
     */
    Chosen choose(Playing.Stage stage) throws BadFile, BadCall, java.io.IOException, InterruptedException {
        RunningDeck open = stage.deck();
        if (open != null) {
            Rig rig = open.rig();
            Button chosen = GearAccess.button(rig, board, button);
            Known known = open.known();
            return new Chosen(rig, known, chosen, state(chosen, known), gesture);
        }
        Rig rig = BoardFile.read(board);
        Button chosen = GearAccess.button(rig, board, button);
        Known known = Known.NOTHING;
        try (GearAccess gear = GearAccess.open(rig, at, standIns)) {
            if (live || standIns || !at.isEmpty()) {
                known = gear.known(rig, chosen, secrets);
            }
        }
        return new Chosen(rig, known, chosen, state(chosen, known), gesture);
    }

    private State state(Button of, Known known) throws BadCall {
        if (state != null) {
            for (State s : of.states()) {
                if (s.id().equals(state)) {
                    return s;
                }
            }
            throw new BadCall("“%s” has no state “%s”; it has %s".formatted(of.name(), state, of.states().stream().map(
                    State::id).toList()));
        }
        List<@Nullable Question> follows = new ArrayList<>();
        of.states().forEach(s -> follows.add(s.when() == null ? null : Question.of(s.when()).orElse(null)));
        int followed = Question.first(follows, q -> q.known(known::named));
        return of.states().get(followed >= 0
                ? followed
                : Math.min(known.states().getOrDefault(of.id(), 0), of.states().size() - 1));
    }
}
