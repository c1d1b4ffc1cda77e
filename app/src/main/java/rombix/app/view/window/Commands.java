package rombix.app.view.window;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyEvent;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Desk;
import rombix.app.view.common.KeyNames;
import rombix.app.view.window.Command.Where;

/** The table of all that can be done, in the order in which it was put in: what of it a key means, and where. */
final class Commands {
    private final Desk desk;
    private final List<Command> all = new ArrayList<>();

    Commands(Desk desk) {
        this.desk = desk;
    }

    void add(Command command) {
        all.add(command);
    }

    List<Command> all() {
        return List.copyOf(all);
    }

    /** Does what the key is for where the hand is; whether there was anything. */
    boolean run(KeyEvent e, @Nullable Node focus) {
        String key = KeyNames.name(e);
        boolean typing = focus instanceof TextInputControl;
        for (Command c : all) {
            if (c.keys().contains(key) && holds(c.where(), focus) && (!typing || worksWhileTyping(e, c))) {
                c.run().run();
                return true;
            }
        }
        return false;
    }

    /** What a text field needs for itself is left to it. */
    private static boolean worksWhileTyping(KeyEvent e, Command c) {
        return c.where() == Where.ALWAYS && !e.getCode().isNavigationKey() || e.getCode().isFunctionKey()
                || e.isAltDown() || e.isControlDown()
                        && switch (e.getCode()) {
                            case Z, Y, C, X, V, A, PAGE_UP, PAGE_DOWN -> false;
                            default -> true;
                        };
    }

    /** All that can be done in the present mode. */
    List<Command> possible() {
        return all.stream().filter(c -> desk.building()
                ? c.where() != Where.LIVE
                : c.where() == Where.ALWAYS || c
                        .where() == Where.LIVE)
                .filter(c -> !c.words().get().isEmpty()).toList();
    }

    private boolean holds(Where where, @Nullable Node focus) {
        return switch (where) {
            case ALWAYS -> true;
            case LIVE -> !desk.building();
            case BUILD -> desk.building();
            case STEPS -> desk.building() && within(focus, "score-drawing", "step-list");
            case PAGE -> desk.building() && (focus == null || within(focus, "page"));
        };
    }

    private static boolean within(@Nullable Node node, String... ids) {
        for (Node n = node; n != null; n = n.getParent()) {
            if (n.getId() != null && List.of(ids).contains(n.getId())) {
                return true;
            }
        }
        return false;
    }
}
