package rombix.core.bundle;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Function;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Gear;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.card.Card;
import rombix.core.chain.Chain;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.edit.Copies;
import rombix.core.edit.Edits;
import rombix.core.store.BadFile;
import rombix.core.store.BoardTree;
import rombix.core.store.CardExchange;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Pastes a part of another board: its gear becomes that of this board where it is matched, and comes along where it is
 * not; values, chains, pictures and run-downs come along where there are none of their ids. Pure.
 */
public final class PartPaste {
    private final Rig mine;
    private final SharedPart part;
    private final List<String> lost = new ArrayList<>();
    private final Map<String, String> gear = new HashMap<>();
    private final Map<String, String> buttons = new HashMap<>();
    private final Map<String, String> pages = new HashMap<>();

    private PartPaste(Rig mine, SharedPart part) {
        this.mine = mine;
        this.part = part;
    }

    /**
     * Where it goes: onto a page, and for what belongs to one button onto that.
     *
     * @param column of a cell that is taken if it is free, counted from 0; {@code row} as well
     * @param button the id of a button; null where none is selected
     * @param state which of its states
     */
    public record Place(String page, int column, int row, @Nullable String button, int state, Gesture gesture) {
    }

    /** The board with the part, and what of it has no counterpart there, in words. */
    public record Pasted(Rig rig, List<String> lost) {
    }

    /** @param choices what is done about the gear of the part, by its ids */
    public static Pasted of(Rig mine, SharedPart part, Map<String, Matching.Choice> choices, Place place) {
        return new PartPaste(mine, part).pasted(choices, place);
    }

    private Pasted pasted(Map<String, Matching.Choice> choices, Place place) {
        CardExchange.Exchanged matched = new Matching(part.rig(), mine).applied(choices);
        lost.addAll(matched.lost());
        Board theirs = renamed(matched.rig().board(), choices);
        Rig with = brought(matched.rig(), theirs);
        Board board = placed(with.board(), theirs.pages().getFirst(), place);
        CardExchange.Exchanged whole = CardExchange.fitted(with.with(board));
        lost.addAll(whole.lost());
        return new Pasted(whole.rig(), List.copyOf(lost));
    }

    /** Their board with ids that are free here, or those of the gear here that it is matched with. */
    private Board renamed(Board theirs, Map<String, Matching.Choice> choices) {
        Board own = mine.board();
        for (Gear g : theirs.gear()) {
            gear.put(g.id(), choices.get(g.id()) instanceof Matching.Choice.Mine m
                    ? m.gear()
                    : free(g.id(), id -> own.gear(id).isPresent() || gear.containsValue(id)));
        }
        theirs.buttons().forEach(b -> buttons.put(b.id(), free(b.id(), id -> mine.button(id).isPresent() || buttons
                .containsValue(id))));
        theirs.pages().forEach(p -> pages.put(p.id(), free(p.id(), id -> mine.page(id).isPresent())));
        ObjectNode tree = BoardTree.of(theirs);
        ids(tree.path("gear"), gear);
        ids(tree.path("pages"), pages);
        tree.path("pages").forEach(p -> ids(p.path("buttons"), buttons));
        named(tree);
        try {
            return BoardTree.board(tree);
        } catch (BadFile e) {
            throw new IllegalStateException(e); // It was a board before.
        }
    }

    private static String free(String id, Predicate<String> taken) {
        return taken.test(id) ? Edits.freshId(id, id, taken) : id;
    }

    private static void ids(JsonNode list, Map<String, String> names) {
        list.forEach(item -> ((ObjectNode) item).put("id", names.getOrDefault(item.path("id").asString(""), item.path(
                "id").asString(""))));
    }

    private void named(JsonNode node) {
        if (node instanceof ObjectNode object) {
            for (String name : List.copyOf(object.propertyNames())) {
                JsonNode child = object.get(name);
                if (child.isString()) {
                    object.put(name, text(name, child.stringValue()));
                } else {
                    named(child);
                }
            }
        } else if (node instanceof ArrayNode array) {
            array.forEach(this::named);
        }
    }

    private String text(String member, String text) {
        Map<String, String> names = switch (member) {
            case "gear" -> gear;
            case "button" -> buttons;
            case "page" -> pages;
            default -> Map.of();
        };
        String now = names.getOrDefault(text, text);
        for (Map.Entry<String, String> g : gear.entrySet()) {
            now = now.replace("{" + g.getKey() + ":", "{" + g.getValue() + ":");
        }
        return now;
    }

    /** This board with all that comes along. */
    private Rig brought(Rig matched, Board theirs) {
        Rig with = mine;
        for (Gear g : theirs.gear()) {
            Card card = Objects.requireNonNull(matched.cards().get(g.card()));
            if (with.board().gear(g.id()).isEmpty()) {
                Board before = with.board();
                with = (with.cards().containsKey(card.id()) ? with : with.withCard(card))
                        .with(before.withGear(plus(before
                                .gear(), List.of(g), Gear::id)));
            }
        }
        Board b = with.board();
        return with.with(b.withValues(plus(b.values(), theirs.values(), v -> v.id())).withChains(plus(b.chains(), theirs
                .chains(), c -> c.id())).withPictures(plus(b.pictures(), theirs.pictures(), p -> p.id())).withRunDowns(
                        plus(b.runDowns(), theirs.runDowns(), r -> r.id())));
    }

    private static <T> List<T> plus(List<T> own, List<T> more, Function<T, String> id) {
        List<T> all = new ArrayList<>(own);
        more.stream().filter(m -> own.stream().noneMatch(o -> id.apply(o).equals(id.apply(m)))).forEach(all::add);
        return all;
    }

    private Board placed(Board board, Page page, Place place) {
        if (part.what() == SharedPart.What.PAGE) {
            List<Page> all = new ArrayList<>(board.pages());
            int at = all.stream().map(Page::id).toList().indexOf(place.page());
            all.add(at + 1, page.withName(Edits.freeName(page.name(), board.pages().stream().map(Page::name))));
            return board.withPages(all);
        }
        Button first = page.buttons().getFirst();
        String onto = place.button();
        if (part.what() == SharedPart.What.BUTTONS || onto == null) {
            Board with = board;
            for (Button b : page.buttons()) {
                Page to = with.pages().stream().filter(p -> p.id().equals(place.page())).findFirst().orElseThrow();
                int[] at = Edits.freePlace(to, b.withColumn(Math.max(0, place.column() + b.column() - first.column()))
                        .withRow(Math.max(0, place.row() + b.row() - first.row())));
                if (at.length == 0) {
                    lost.add("“" + b.name() + "”: the page has no room for it");
                } else {
                    with = Edits.addButton(with, place.page(), b.withColumn(at[0]).withRow(at[1]));
                }
            }
            return with;
        }
        State state = first.states().getFirst();
        return switch (part.what()) {
            case STATE -> Copies.state(board, onto, Integer.MAX_VALUE, state);
            case LOOK -> Copies.looks(board, onto, first);
            default -> Edits.chain(board, onto, place.state(), place.gesture(), was -> joined(was, state.chain(
                    Gesture.PRESS)));
        };
    }

    /** A chain goes behind the one that is there. */
    private static Chain joined(Chain was, Chain more) {
        List<Step> steps = new ArrayList<>(was.steps());
        steps.addAll(more.steps());
        List<Step> always = new ArrayList<>(was.always());
        always.addAll(more.always());
        return was.withSteps(steps).withAlways(always).withPutBack(was.putBack() || more.putBack());
    }
}
