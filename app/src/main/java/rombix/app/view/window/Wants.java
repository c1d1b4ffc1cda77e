package rombix.app.view.window;

import java.util.function.Consumer;
import rombix.app.edit.Secrets;
import rombix.core.board.Board;
import rombix.core.board.Gear;

/** Says which secrets a board names that are not on this computer. */
final class Wants {
    private Wants() {
    }

    /** @param set shows where the secret of a gear is set, by the gear's id */
    static void tell(Board board, Secrets secrets, Notices notices, Consumer<String> set) {
        for (Gear g : board.gear()) {
            String name = g.link().secret();
            if (name != null && !secrets.has(name)) {
                notices.show("“%s” wants the secret “%s”, which is not on this computer.".formatted(g.name(), name),
                        new Notices.Way("set-secret-" + g.id(), "Set it…", () -> set.accept(g.id())));
            }
        }
    }
}
