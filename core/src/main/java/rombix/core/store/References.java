package rombix.core.store;

import java.nio.file.Path;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Face.Tally;
import rombix.core.board.Gear;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.card.Card.Command;
import rombix.core.card.Card.Param;
import rombix.core.card.Twin;
import rombix.core.card.Twin.Readings;
import rombix.core.chain.Chain;
import rombix.core.chain.Condition;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.value.Kind;
import rombix.core.value.Value;

/** Checks that what a board names exists: the first that does not is the flaw that is told, with its place. */
final class References {
    private final Path file;
    private final String text;
    private final Rig rig;

    References(Path file, String text, Rig rig) {
        this.file = file;
        this.text = text;
        this.rig = rig;
    }

    void check() throws BadFile {
        Board board = rig.board();
        Set<String> gearIds = new HashSet<>();
        for (int i = 0; i < board.gear().size(); i++) {
            Gear g = board.gear().get(i);
            String at = "/gear/" + i;
            unique(gearIds, g.id(), "gear", at + "/id");
            if (rig.twin(g.id()).isEmpty()) {
                throw flaw(at + "/card", "no card “%s”; there are %s".formatted(g.card(), rig.cards().keySet()));
            }
        }
        Set<String> pageIds = new HashSet<>();
        Set<String> buttonIds = new HashSet<>();
        for (int p = 0; p < board.pages().size(); p++) {
            Page page = board.pages().get(p);
            unique(pageIds, page.id(), "page", "/pages/" + p + "/id");
            for (int b = 0; b < page.buttons().size(); b++) {
                String at = "/pages/%d/buttons/%d".formatted(p, b);
                unique(buttonIds, page.buttons().get(b).id(), "button", at + "/id");
                button(page, page.buttons().get(b), at);
            }
        }
    }

    private void unique(Set<String> seen, String id, String what, String pointer) throws BadFile {
        if (!seen.add(id)) {
            throw flaw(pointer, "two %ss have the id “%s”; ids are unique, so change one".formatted(what, id));
        }
    }

    private void button(Page page, Button button, String at) throws BadFile {
        if (button.column() + button.width() > page.columns() || button.row() + button.height() > page.rows()) {
            throw flaw(at, "“%s” reaches beyond its page, which has %d×%d cells".formatted(button.name(),
                    page.columns(), page.rows()));
        }
        for (Button other : page.buttons()) {
            if (other != button && other.column() < button.column() + button.width()
                    && button.column() < other.column() + other.width() && other.row() < button.row() + button.height()
                    && button.row() < other.row() + other.height() && page.buttons().indexOf(other) < page.buttons()
                            .indexOf(button)) {
                throw flaw(at, "“%s” and “%s” take the same cell".formatted(other.name(), button.name()));
            }
        }
        Set<String> ids = new HashSet<>();
        for (int s = 0; s < button.states().size(); s++) {
            unique(ids, button.states().get(s).id(), "state", at + "/states/" + s + "/id");
        }
        for (int s = 0; s < button.states().size(); s++) {
            state(button.states().get(s), ids, at + "/states/" + s);
        }
    }

    private void state(State state, Set<String> ids, String at) throws BadFile {
        if (!state.then().equals(State.NEXT) && !state.then().equals(State.STAY) && !ids.contains(state.then())) {
            throw flaw(at + "/then", "no state “%s” on this button; it has %s".formatted(state.then(), ids));
        }
        if (state.when() != null) {
            condition(state.when(), at + "/when");
        }
        for (int t = 0; t < state.face().tally().size(); t++) {
            Tally tally = state.face().tally().get(t);
            condition(tally.when(), at + "/face/tally/" + t + "/when");
        }
        for (Map.Entry<Gesture, Chain> e : state.on().entrySet()) {
            chain(e.getValue(), at + "/on/" + Json.MAPPER.convertValue(e.getKey(), String.class));
        }
    }

    private void condition(Condition condition, String at) throws BadFile {
        Twin twin = twin(condition.gear(), at + "/gear");
        if (twin.reading(condition.reading(), Readings.NONE).isEmpty()) {
            throw flaw(at + "/reading", "%s reports no “%s”; it reports %s".formatted(twin.title(),
                    condition.reading(), twin.card().readings().stream().map(r -> r.id().toString()).toList()));
        }
    }

    private void chain(Chain chain, String at) throws BadFile {
        for (int i = 0; i < chain.steps().size(); i++) {
            String here = at + "/" + i;
            switch (chain.steps().get(i)) {
                case Step.Do d -> doStep(d, here);
                case Step.Wait _ -> {
                }
                case Step.Together t -> {
                    for (int c = 0; c < t.chains().size(); c++) {
                        chain(t.chains().get(c), here + "/chains/" + c);
                    }
                }
            }
        }
    }

    private void doStep(Step.Do step, String at) throws BadFile {
        Twin twin = twin(step.gear(), at + "/gear");
        Command command = twin.card().command(step.command()).orElse(null);
        if (command == null) {
            throw flaw(at + "/command", "%s has no command “%s”; it has %s".formatted(twin.title(), step.command(),
                    twin.card().commands().stream().map(Command::id).toList()));
        }
        for (Map.Entry<String, Value> arg : step.with().entrySet()) {
            String here = at + "/with/" + arg.getKey();
            Param param = command.param(arg.getKey()).orElse(null);
            if (param == null) {
                throw flaw(here, "“%s” takes no “%s”; it takes %s".formatted(step.command(), arg.getKey(),
                        command.params().stream().map(Param::id).toList()));
            }
            String wrong = unfit(twin, param, arg.getValue());
            if (wrong != null) {
                throw flaw(here, wrong);
            }
        }
        for (Param param : command.params()) {
            if (param.usual() == null && !step.with().containsKey(param.id())) {
                throw flaw(at, "“%s” needs a value for “%s”".formatted(step.command(), param.id()));
            }
        }
    }

    private static @Nullable String unfit(Twin twin, Param param, Value value) {
        return switch (param.type()) {
            case NUMBER -> Double.isNaN(value.asNumber()) || value instanceof Value.Flag
                    ? "expected a number for “%s”, not “%s”".formatted(param.label(), value)
                    : null;
            case FLAG -> value instanceof Value.Flag
                    ? null
                    : "expected true or false for “%s”, not “%s”".formatted(param.label(), value);
            case CHOICE -> twin.fixed(param.list()) && twin.item(param.list(), value.toString(), Readings.NONE)
                    .isEmpty()
                            ? "%s has no %s “%s”; it has %s".formatted(twin.title(), param.label(), value,
                                    twin.items(param.list(), Readings.NONE).stream().map(i -> i.id()).toList())
                            : null;
            case COLOUR -> value.toString().matches("#[0-9A-Fa-f]{6}")
                    ? null
                    : "expected a colour such as #D0342C for “%s”, not “%s”".formatted(param.label(), value);
            case TEXT, LIST -> null;
        };
    }

    private Twin twin(String gear, String pointer) throws BadFile {
        return rig.twin(gear).orElseThrow(() -> flaw(pointer, "no gear “%s” on this board; it has %s".formatted(gear,
                List.copyOf(rig.twins().keySet()))));
    }

    private BadFile flaw(String pointer, String message) {
        return CardLibrary.at(file, text, pointer, message);
    }
}
