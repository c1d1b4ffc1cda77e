package rombix.app.view.window;

import java.util.function.Consumer;
import java.util.stream.Stream;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Gear;
import rombix.core.board.Rig;
import rombix.core.board.Walk;
import rombix.core.chain.Arg;
import rombix.core.chain.GearStep;
import rombix.core.chain.Step;
import rombix.core.value.ValueType;
import rombix.running.owner.Secrets;

/** Warns of secrets that a board names but this computer doesn't have. */
final class MissingSecrets {
    private MissingSecrets() {
    }

    /**
     * @param set shows where the secret of a gear is set, by the gear's id
     * @param go shows a button, by its id
     */
    static void tell(Rig rig, Secrets secrets, Notices notices, Consumer<String> set, Consumer<String> go) {
        Board board = rig.board();
        for (Gear g : board.gear()) {
            String name = g.link().secret();
            if (name != null && !secrets.has(name)) {
                notices.show("“%s” needs the secret “%s”, which isn't on this computer.".formatted(g.name(), name),
                        new Notices.Way("set-secret-" + g.id(), "Set it…", () -> set.accept(g.id())));
            }
        }
        Walk.steps(board, spot -> typed(rig, spot.step()).filter(s -> !s.isEmpty() && !secrets.has(s)).forEach(s -> {
            Button button = spot.owner().button();
            Notices.Way[] ways = button == null
                    ? new Notices.Way[0]
                    : new Notices.Way[]{new Notices.Way("go-secret-" + s, "Go to the button", () -> go.accept(button
                            .id()))};
            notices.show("%s types the secret “%s”, which isn't on this computer.".formatted(spot.owner().words(),
                    s), ways);
        }));
    }

    /** The names of the secrets that a step wants. */
    private static Stream<String> typed(Rig rig, Step step) {
        if (!(step instanceof GearStep.Do d)) {
            return Stream.empty();
        }
        return rig.twin(d.gear()).flatMap(t -> t.card().command(d.command())).stream().flatMap(c -> c.params().stream())
                .filter(p -> p.type() == ValueType.SECRET).map(p -> d.args().get(p.id())).filter(
                        Arg.Constant.class::isInstance)
                .map(a -> a.shown().toString());
    }
}
