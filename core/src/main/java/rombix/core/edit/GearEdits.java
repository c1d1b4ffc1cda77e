package rombix.core.edit;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Control;
import rombix.core.board.Face;
import rombix.core.board.Gear;
import rombix.core.board.MessageTrigger;
import rombix.core.board.Page;
import rombix.core.board.State;
import rombix.core.board.Trigger;
import rombix.core.board.Walk;
import rombix.core.card.Card;
import rombix.core.card.Card.Item;
import rombix.core.card.Protocol;
import rombix.core.chain.Arg;
import rombix.core.chain.Condition;
import rombix.core.chain.GearStep;
import rombix.core.chain.Step;
import rombix.core.value.ValueType;

/** Edits of a board's gear, as functions from board to board. */
public final class GearEdits {
    private GearEdits() {
    }

    /** Adds gear of a card behind the others, called after it, with an address still to be set. */
    public static Board add(Board board, Card card, Protocol protocol) {
        String name = Edits.freeName(card.title(), board.gear().stream().map(Gear::name));
        String id = Edits.freshId(name, "gear", x -> board.gear(x).isPresent());
        List<Gear> all = new ArrayList<>(board.gear());
        all.add(new Gear(id, name, card.id(), new Gear.Link(protocol, protocol.descriptor().presetAddress(), Map.of()),
                Map.of(), Map
                        .of()));
        return board.withGear(all);
    }

    public static Board change(Board board, String gear, UnaryOperator<Gear> change) {
        return board.withGear(board.gear().stream().map(g -> g.id().equals(gear) ? change.apply(g) : g).toList());
    }

    /** Has a gear be reached another way. */
    public static Board reached(Board board, String gear, Protocol protocol, String address) {
        return change(board, gear, g -> g.withLink(g.link().reached(protocol, address)));
    }

    /** Gives a gear a list of its own in place of its card's. */
    public static Board listed(Board board, String gear, String list, List<Item> items) {
        return change(board, gear, g -> {
            Map<String, List<Item>> lists = new LinkedHashMap<>(g.lists());
            lists.put(list, items);
            return g.withLists(lists);
        });
    }

    /** What names a gear, in words: steps by their chains, faces, levels, triggers and pages. */
    public static List<String> uses(Board board, String gear) {
        return uses(board, new Mention(gear, null, "", ""));
    }

    /** What names an item of a gear's list, such as a channel of a desk, in words. */
    public static List<String> uses(Board board, String gear, Card card, String list, String item) {
        return uses(board, new Mention(gear, card, list, item));
    }

    private static List<String> uses(Board board, Mention mention) {
        Set<String> found = new LinkedHashSet<>();
        Walk.steps(board, spot -> {
            if (mention.in(spot.step())) {
                found.add(spot.owner().words());
            }
        });
        for (Page page : board.pages()) {
            if (mention.in(page.follows())) {
                found.add("when the page “" + page.name() + "” is shown");
            }
            for (Button b : page.buttons()) {
                if (b.states().stream().anyMatch(s -> mention.in(s.when()) || s.face().tally().stream().anyMatch(
                        t -> mention.in(t.when())))) {
                    found.add("the face of “" + b.name() + "”");
                }
                if (mention.in(b.control())) {
                    found.add("the level that “" + b.name() + "” moves");
                }
                if (b.triggers().stream().anyMatch(mention::in)) {
                    found.add("a trigger of “" + b.name() + "”");
                }
            }
        }
        return List.copyOf(found);
    }

    /** The board without a gear, and without all that names it. What formulas say of it stays. */
    public static Board without(Board board, String gear) {
        Mention gone = new Mention(gear, null, "", "");
        Board left = Edits.chains(board, c -> c.without(gone::in));
        return left.withGear(left.gear().stream().filter(g -> !g.id().equals(gear)).toList())
                .withPages(left.pages().stream().map(p -> without(p, gone)).toList());
    }

    private static Page without(Page page, Mention gone) {
        Page left = gone.in(page.follows()) ? page.withFollows(null) : page;
        return left.withButtons(left.buttons().stream().map(b -> (gone.in(b.control()) ? b.withControl(null) : b)
                .withTriggers(b.triggers().stream().filter(t -> !gone.in(t)).toList())
                .withStates(b.states().stream().map(s -> without(s, gone)).toList())).toList());
    }

    private static State without(State state, Mention gone) {
        Face face = state.face().withTally(state.face().tally().stream().filter(t -> !gone.in(t.when())).toList());
        return (gone.in(state.when()) ? state.withWhen(null) : state).withFace(face);
    }

    /** What is looked for: a gear, or where there is a card, an item of one of its lists. */
    private record Mention(String gear, @Nullable Card card, String list, String item) {
        /** Whether a step itself names it; those within it are another matter. */
        boolean in(Step step) {
            return in(step.how().condition()) || in(step.condition()) || step instanceof GearStep g && sends(g.gear(), g
                    .command(), g.args());
        }

        private boolean sends(String to, String command, Map<String, Arg> with) {
            return to.equals(gear) && (card == null || card.command(command).stream().flatMap(c -> c.params().stream())
                    .anyMatch(p -> p.type() == ValueType.CHOICE && p.list().equals(list)
                            && with.get(p.id()) instanceof Arg.Constant c && c.value().toString().equals(item)));
        }

        private boolean read(String of, String reading) {
            return of.equals(gear) && (card == null || card.readings().stream().anyMatch(r -> r.id().match(reading)
                    .filter(places -> item.equals(places.get(list))).isPresent()));
        }

        boolean in(@Nullable Condition test) {
            return Condition.readings(test).stream().anyMatch(r -> read(r.gear(), r.reading()));
        }

        boolean in(Trigger trigger) {
            return switch (trigger) {
                case Trigger.Becomes b -> in(b.condition());
                case Trigger.When w -> card == null && Objects.equals(w.gear(), gear);
                case MessageTrigger.Mqtt m -> card == null && m.gear().equals(gear);
                case Trigger.Key _,Trigger.Midi _,Trigger.Gamepad _,Trigger.Osc _,MessageTrigger.Http _,Trigger.Clock _ ->
                    false;
            };
        }

        boolean in(@Nullable Control control) {
            return control != null && control.axes().stream().anyMatch(a -> read(a.gear(), a.reading()));
        }
    }
}
