package rombix.core.check;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Control;
import rombix.core.board.Face;
import rombix.core.board.Face.Tally;
import rombix.core.board.Gear;
import rombix.core.board.MessageTrigger;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.board.RunDown;
import rombix.core.board.State;
import rombix.core.board.Trigger;
import rombix.core.board.Walk;
import rombix.core.card.Card.Command;
import rombix.core.card.Card.Param;
import rombix.core.chain.Arg;
import rombix.core.chain.Condition;
import rombix.core.chain.DeckStep;
import rombix.core.chain.GearStep;
import rombix.core.chain.Step;
import rombix.core.twin.Scale;
import rombix.core.twin.Twin;
import rombix.core.twin.Twin.Readings;
import rombix.core.value.Value;
import rombix.core.value.ValueType;

/** Checks that what a board names exists. */
public final class References {
    private static final String NO_RUN_DOWN = "no run-down “%s” on this board; it has %s";

    /** Something named that is not there: where in the file, and what is wrong. */
    public record Flaw(String pointer, String message) {
    }

    private final Rig rig;
    private final Board board;
    private final List<Flaw> flaws = new ArrayList<>();
    private final Set<String> pageIds = new HashSet<>();
    private final Set<String> buttonIds = new HashSet<>();

    private References(Rig rig) {
        this.rig = rig;
        this.board = rig.board();
    }

    /** All that a board names and lacks, in the order of its file. */
    public static List<Flaw> flaws(Rig rig) {
        References references = new References(rig);
        references.check();
        return references.flaws;
    }

    private void check() {
        Set<String> gearIds = new HashSet<>();
        for (int i = 0; i < board.gear().size(); i++) {
            Gear g = board.gear().get(i);
            String at = "/gear/" + i;
            unique(gearIds, g.id(), "gear", at + "/id");
            if (rig.twin(g.id()).isEmpty()) {
                flaw(at + "/card", "no card “%s”; there are %s".formatted(g.card(), rig.cards().keySet()));
            }
        }
        Set<String> values = new HashSet<>();
        for (int i = 0; i < board.values().size(); i++) {
            unique(values, board.values().get(i).id(), "value", "/values/" + i + "/id");
        }
        Set<String> chains = new HashSet<>();
        for (int i = 0; i < board.chains().size(); i++) {
            unique(chains, board.chains().get(i).id(), "chain", "/chains/" + i + "/id");
        }
        Set<String> pictures = new HashSet<>();
        for (int i = 0; i < board.pictures().size(); i++) {
            unique(pictures, board.pictures().get(i).id(), "picture", "/pictures/" + i + "/id");
        }
        for (int p = 0; p < board.pages().size(); p++) {
            Page page = board.pages().get(p);
            unique(pageIds, page.id(), "page", "/pages/" + p + "/id");
            test(page.follows(), "/pages/" + p + "/follows", false);
            for (int b = 0; b < page.buttons().size(); b++) {
                String at = "/pages/%d/buttons/%d".formatted(p, b);
                unique(buttonIds, page.buttons().get(b).id(), "button", at + "/id");
                button(page, page.buttons().get(b), at);
            }
        }
        Walk.steps(board, this::step);
    }

    private void unique(Set<String> seen, String id, String what, String pointer) {
        if (!seen.add(id)) {
            flaw(pointer, "two %ss have the id “%s”; change one, as ids must be unique".formatted(what, id));
        }
    }

    private void button(Page page, Button button, String at) {
        if (button.column() + button.width() > page.columns() || button.row() + button.height() > page.rows()) {
            flaw(at, "“%s” extends beyond its page of %d×%d cells".formatted(button.name(),
                    page.columns(), page.rows()));
        }
        for (Button other : page.buttons()) {
            if (other != button && other.column() < button.column() + button.width()
                    && button.column() < other.column() + other.width() && other.row() < button.row() + button.height()
                    && button.row() < other.row() + other.height() && page.buttons().indexOf(other) < page.buttons()
                            .indexOf(button)) {
                flaw(at, "“%s” and “%s” overlap on the page".formatted(other.name(), button.name()));
            }
        }
        Set<String> ids = new HashSet<>();
        for (int s = 0; s < button.states().size(); s++) {
            unique(ids, button.states().get(s).id(), "state", at + "/states/" + s + "/id");
        }
        for (int s = 0; s < button.states().size(); s++) {
            state(button.states().get(s), ids, at + "/states/" + s);
        }
        for (int t = 0; t < button.triggers().size(); t++) {
            trigger(button.triggers().get(t), at + "/triggers/" + t);
        }
        if (button.control() instanceof Control.Items i && board.runDown(i.list()).isEmpty()) {
            flaw(at + "/control/list", NO_RUN_DOWN.formatted(i.list(), board.runDowns().stream().map(RunDown::id)
                    .toList()));
        }
        if (button.control() != null) {
            button.control().axes().forEach(a -> level(a, at + "/control"));
        }
    }

    private void trigger(Trigger trigger, String at) {
        switch (trigger) {
            case Trigger.Becomes b -> test(b.condition(), at + "/condition", false);
            case Trigger.When w when w.gear() != null && rig.twin(w.gear()).isEmpty() ->
                flaw(at + "/gear", "no gear “%s” on this board".formatted(w.gear()));
            case MessageTrigger.Mqtt m when rig.twin(m.gear()).isEmpty() ->
                flaw(at + "/gear", "no gear “%s” on this board".formatted(m.gear()));
            case MessageTrigger.Mqtt m when !rig.twin(m.gear()).orElseThrow().protocol().descriptor().topics() ->
                flaw(at + "/gear", "“%s” has no MQTT topics".formatted(m.gear()));
            case MessageTrigger.Mqtt _,Trigger.When _,Trigger.Key _,Trigger.Midi _,Trigger.Gamepad _,Trigger.Osc _,MessageTrigger.Http _,Trigger.Clock _ -> {
                // These name nothing of the board.
            }
        }
    }

    private void level(Control.Axis level, String at) {
        Twin twin = rig.twin(level.gear()).orElse(null);
        if (twin == null) {
            flaw(at, "no gear “%s” on this board".formatted(level.gear()));
        } else if (Scale.of(twin, level.reading()).isEmpty()) {
            flaw(at, "%s has no adjustable level “%s”".formatted(twin.title(), level.reading()));
        }
    }

    private void state(State state, Set<String> ids, String at) {
        if (!Set.of(State.NEXT, State.STAY, State.RANDOM).contains(state.then()) && !ids.contains(state.then())) {
            flaw(at + "/then", "no state “%s” on this button; it has %s".formatted(state.then(), ids));
        }
        if (state.fallBack() != null && !ids.contains(state.fallBack().to())) {
            flaw(at + "/fallBack/to", "no state “%s” on this button; it has %s".formatted(state.fallBack().to(), ids));
        }
        test(state.when(), at + "/when", true);
        Face.Image image = state.face().image();
        if (image != null && board.picture(image.picture()).isEmpty()) {
            flaw(at + "/face/image/picture", "no picture “%s” on this board; it has %s".formatted(image.picture(),
                    board.pictures().stream().map(Board.Picture::id).toList()));
        }
        for (int t = 0; t < state.face().tally().size(); t++) {
            Tally tally = state.face().tally().get(t);
            test(tally.when(), at + "/face/tally/" + t + "/when", true);
        }
    }

    private void condition(Condition.OnReading condition, String at) {
        Twin twin = twin(condition.gear(), at + "/gear");
        if (twin != null && twin.reading(condition.reading(), Readings.NONE).isEmpty()) {
            flaw(at + "/reading", "%s reports no “%s”; it reports %s".formatted(twin.title(),
                    condition.reading(), twin.card().readings().stream().map(r -> r.id().toString()).toList()));
        }
    }

    /** @param oneOf whether it is one of several, of which one may be for otherwise */
    private void test(@Nullable Condition test, String at, boolean oneOf) {
        if (test == null || oneOf && test instanceof Condition.Otherwise) {
            return;
        }
        test.each(at, (where, part) -> {
            if (part instanceof Condition.OnReading c) {
                condition(c, where);
            } else if (part instanceof Condition.Otherwise) {
                flaw(where, "“otherwise” can only stand alone, as the condition of a state or a lamp");
            }
        });
    }

    private void step(Walk.Spot spot) {
        int before = flaws.size();
        step(spot, "");
        if (flaws.size() > before) { // Only now it matters where the step stands.
            String at = spot.pointer();
            flaws.subList(before, flaws.size()).replaceAll(f -> new Flaw(at + f.pointer(), f.message()));
        }
    }

    private void step(Walk.Spot spot, String at) {
        test(spot.step().how().condition(), at + "/how/condition", false);
        test(spot.step().condition(), at + (spot.step() instanceof Step.Repeat ? "/while" : "/condition"), false);
        switch (spot.step()) {
            case GearStep.Do d -> command(d.gear(), d.command(), d.args(), null, at);
            case GearStep.Fade f -> command(f.gear(), f.command(), f.args(), f.param(), at);
            case GearStep.Nudge n -> command(n.gear(), n.command(), n.args(), n.param(), at);
            case DeckStep.Ask a -> value(spot, a.into(), at + "/into");
            case DeckStep.Set s -> value(spot, s.value(), at + "/value");
            case DeckStep.Go g when board.runDown(g.list()).isEmpty() -> flaw(at + "/list", NO_RUN_DOWN.formatted(g
                    .list(), board.runDowns().stream().map(RunDown::id).toList()));
            case DeckStep.Use u -> {
                button(u.button(), u.state(), at);
                if (u.chain() != null && board.chain(u.chain()).isEmpty()) {
                    flaw(at + "/chain", "no chain “%s” on this board; it has %s".formatted(u.chain(), board.chains()
                            .stream().map(Board.NamedChain::id).toList()));
                }
            }
            case DeckStep.Show s -> {
                button(s.button(), s.state(), at);
                if (s.page() != null && !pageIds.contains(s.page())) {
                    flaw(at + "/page", "no page “%s” on this board; it has %s".formatted(s.page(), pageIds));
                }
            }
            case DeckStep.Stop s -> button(s.button(), null, at);
            default -> {
                // It names nothing but what it asks.
            }
        }
    }

    private void value(Walk.Spot spot, @Nullable String value, String at) {
        Button of = spot.owner().button();
        if (value != null && board.values().stream().noneMatch(v -> v.id().equals(value))
                && (of == null || of.values().stream().noneMatch(v -> v.id().equals(value)))) {
            flaw(at, "no value “%s” on this board; it has %s".formatted(value, board.values().stream()
                    .map(Board.BoardValue::id).toList()));
        }
    }

    private void button(@Nullable String button, @Nullable String state, String at) {
        if (button == null) {
            return;
        }
        Button found = rig.button(button).orElse(null);
        if (found == null) {
            flaw(at + "/button", "no button “%s” on this board".formatted(button));
        } else if (state != null && found.states().stream().noneMatch(s -> s.id().equals(state))) {
            flaw(at + "/state", "“%s” has no state “%s”; it has %s".formatted(found.name(), state, found.states()
                    .stream().map(State::id).toList()));
        }
    }

    /** @param moving the parameter that the step gives by itself */
    private void command(String gear, String id, Map<String, Arg> with, @Nullable String moving, String at) {
        Twin twin = twin(gear, at + "/gear");
        if (twin == null) {
            return;
        }
        Command command = twin.card().command(id).orElse(null);
        if (command == null) {
            flaw(at + "/command", "%s has no command “%s”; it has %s".formatted(twin.title(), id, twin.card()
                    .commands().stream().map(Command::id).toList()));
            return;
        }
        List<String> params = command.params().stream().map(Param::id).toList();
        if (moving != null && !params.contains(moving)) {
            flaw(at + "/param", "“%s” takes no “%s”; it takes %s".formatted(id, moving, params));
        }
        with.forEach((name, arg) -> {
            Param param = command.param(name).orElse(null);
            String wrong = param == null
                    ? "“%s” takes no “%s”; it takes %s".formatted(id, name, params)
                    : arg instanceof Arg.Constant c ? unfit(twin, param, c.value()) : null;
            if (wrong != null) {
                flaw(at + "/with/" + name, wrong);
            }
        });
        for (Param param : command.params()) {
            if (param.preset() == null && !with.containsKey(param.id()) && !param.id().equals(moving)) {
                flaw(at, "“%s” needs a value for “%s”".formatted(id, param.id()));
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
            case KEYS, PLACE -> {
                try {
                    Twin.taken(param, value);
                    yield null;
                } catch (IllegalArgumentException e) {
                    yield "expected %s for “%s”: %s".formatted(param.type() == ValueType.KEYS
                            ? "keys such as Ctrl+S"
                            : "a place", param.label(), e.getMessage());
                }
            }
            case SECRET -> value.toString().isEmpty() || value.toString().matches(Gear.Link.SECRET_NAME)
                    ? null
                    : "expected the name of a secret for “%s”, not “%s”".formatted(param.label(), value);
            case TEXT, PATH, LIST -> null;
        };
    }

    private @Nullable Twin twin(String gear, String pointer) {
        Twin twin = rig.twins().get(gear);
        if (twin == null && board.gear().stream().noneMatch(g -> g.id().equals(gear))) {
            flaw(pointer, "no gear “%s” on this board; it has %s".formatted(gear, List.copyOf(rig.twins().keySet())));
        }
        return twin;
    }

    private void flaw(String pointer, String message) {
        flaws.add(new Flaw(pointer, message));
    }
}
