package rombix.torture;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Face;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.chain.Chain;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.edit.Edits;
import rombix.core.store.BadFile;
import rombix.core.store.BoardFile;
import rombix.core.value.Value;

/** The demo's gear with one button that holds something of each while it is pressed, and one that does for ten minutes. */
final class Holding {
    static final String HOLD = "hold";
    static final String AWHILE = "awhile";
    /** The gear that has the gate. */
    static final String GATE = "house";

    private static final Chain PRESS = Chain.of(orderStep("studio", "start-stream", Map.of()),
            orderStep("desk", "unmute", Map.of(
                    "channel", Value.of("host"))),
            lamps(100), orderStep("house", "unlock", Map.of("lock", Value.of("gate"))), orderStep(
                    "chat", "slow-on", Map.of("room", Value.of("star-night"))));
    private static final Chain RELEASE = Chain.of(orderStep("studio", "stop-stream", Map.of()),
            orderStep("desk", "mute", Map.of(
                    "channel", Value.of("host"))),
            lamps(0), orderStep("house", "lock", Map.of("lock", Value.of("gate"))), orderStep(
                    "chat", "slow-off", Map.of("room", Value.of("star-night"))));

    private Holding() {
    }

    static Step orderStep(String gear, String command, Map<String, Value> args) {
        return new GearStep.Do(gear, command, args);
    }

    private static Step lamps(int percent) {
        return orderStep("lamps", "level", Map.of("lamp", Value.of("desk-key"), "level", Value.of(percent)));
    }

    static Rig rig() throws BadFile {
        Rig demo = BoardFile.read(Path.of("demo/star-night.json"));
        Board board = demo.board().withPages(List.of(Page.empty("p", "P")));
        board = Edits.addButton(board, "p", button(HOLD, 0, Map.of(Gesture.PRESS, PRESS, Gesture.RELEASE, RELEASE)));
        // A cable does not leave its process, so the desk has no part in this one.
        Chain begin = PRESS.without(s -> s instanceof GearStep.Do d && d.gear().equals("desk"));
        board = Edits.addButton(board, "p", button(AWHILE, 1, Map.of(Gesture.PRESS, Chain.of(lamps(0), new Step.Wait(
                50), new Step.ForAWhile(begin, 600_000, StepOptions.PLAIN, Map.of())))));
        return Rig.of(board, demo.cards());
    }

    private static Button button(String id, int column, Map<Gesture, Chain> on) {
        return new Button(id, id, column, 0, 1, 1, Button.Busy.RESTART, List.of(new State("s", "s", Face.PLAIN,
                State.STAY, null, on, Map.of())), Map.of());
    }
}
