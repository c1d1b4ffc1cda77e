package rombix.core.diff;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.card.Card;
import rombix.core.edit.Edits;
import rombix.core.store.BadFile;
import rombix.core.store.BoardTree;
import rombix.core.store.CardExchange;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Two boards that were made of one, put together: what only one side changed is as that side has it. What both changed in
 * different ways stays as it is in ours, and is a clash. The result is always a board that can be opened. Pure.
 */
public final class BoardMerge {
    private static final String BUTTONS = "buttons";
    private static final String PAGE = "page of the button";

    /** What both sides changed: what it is, and in words what each made of it. */
    public record Clash(String what, String ours, String theirs) {
        /** As a line. */
        public String line() {
            return "%s: ours: %s; theirs: %s".formatted(what, ours, theirs);
        }
    }

    /** The board, and what both sides changed in different ways. */
    public record Merged(Board board, List<Clash> clashes) {
    }

    private final Rig base;
    private final Rig ours;
    private final Rig theirs;
    private final List<Clash> clashes = new ArrayList<>();

    private BoardMerge(Rig base, Rig ours, Rig theirs) {
        this.base = base;
        this.ours = ours;
        this.theirs = theirs;
    }

    public static Merged of(Rig base, Rig ours, Rig theirs) {
        return new BoardMerge(base, ours, theirs).merged();
    }

    private Merged merged() {
        TreeMerge merge = new TreeMerge();
        ObjectNode tree = (ObjectNode) Objects.requireNonNull(merge.merge(flat(base.board()), flat(ours.board()), flat(
                theirs.board()), ""));
        Set<String> told = new LinkedHashSet<>();
        for (TreeMerge.Clash c : merge.clashes()) {
            String[] path = c.path().split("/");
            if (path[0].equals(BUTTONS) && path.length > 1) {
                if (told.add(path[1])) {
                    clashes.add(new Clash("“" + name(path[1]) + "”", words(base, ours, path[1]), words(base, theirs,
                            path[1])));
                }
            } else {
                clashes.add(new Clash(c.path(), shown(c.ours()), shown(c.theirs())));
            }
        }
        Map<String, Card> cards = new LinkedHashMap<>(theirs.cards());
        cards.putAll(ours.cards());
        try {
            CardExchange.Exchanged whole = CardExchange.fitted(Rig.of(placed(tree), cards));
            whole.lost().forEach(l -> clashes.add(new Clash(l, "it is gone", "it is used")));
            return new Merged(whole.rig().board(), List.copyOf(clashes));
        } catch (BadFile e) {
            clashes.add(new Clash("the board", "kept", "can't be put together: " + e.getMessage()));
            return new Merged(ours.board(), List.copyOf(clashes));
        }
    }

    /** The board with its buttons in one list, each of which says on which page it is: they may change pages. */
    private static ObjectNode flat(Board board) {
        ObjectNode tree = BoardTree.of(board);
        ArrayNode all = tree.putArray(BUTTONS);
        for (JsonNode page : tree.path("pages")) {
            ObjectNode of = (ObjectNode) page;
            for (JsonNode button : of.path(BUTTONS)) {
                all.add(((ObjectNode) button).put(PAGE, of.path("id").asString("")));
            }
            of.remove(BUTTONS);
        }
        return tree;
    }

    /** The buttons back on their pages; where two want one cell, theirs takes a free one. */
    private Board placed(ObjectNode tree) throws BadFile {
        Map<String, ArrayNode> pages = new LinkedHashMap<>();
        tree.path("pages").forEach(p -> pages.put(p.path("id").asString(""), ((ObjectNode) p).putArray(BUTTONS)));
        JsonNode all = tree.remove(BUTTONS);
        for (JsonNode button : all) {
            ObjectNode plain = (ObjectNode) button;
            String page = plain.remove(PAGE).asString("");
            ArrayNode on = pages.get(page);
            if (on == null) {
                clashes.add(new Clash("“" + plain.path("name").asString("") + "”", "its page is gone", "it is on it"));
            } else {
                on.add(plain);
            }
        }
        Board board = BoardTree.board(tree);
        return board.withPages(board.pages().stream().map(this::apart).toList());
    }

    private Page apart(Page page) {
        Set<String> own = ours.board().buttons().map(Button::id).collect(Collectors.toSet());
        Page left = page.withButtons(List.of());
        List<Button> inTurn = new ArrayList<>(page.buttons().stream().filter(b -> own.contains(b.id())).toList());
        page.buttons().stream().filter(b -> !own.contains(b.id())).forEach(inTurn::add);
        Map<String, Button> at = new LinkedHashMap<>();
        for (Button b : inTurn) {
            int[] free = Edits.freePlace(left, b);
            if (free.length == 0) {
                clashes.add(
                        new Clash("“" + b.name() + "”", "its cell is taken, and the page has no other", "it is new"));
                continue;
            }
            Button placed = b.withColumn(free[0]).withRow(free[1]);
            at.put(b.id(), placed);
            List<Button> more = new ArrayList<>(left.buttons());
            more.add(placed);
            left = left.withButtons(more);
        }
        return page.withButtons(page.buttons().stream().map(b -> at.get(b.id())).filter(Objects::nonNull).toList());
    }

    private String name(String button) {
        return ours.button(button).or(() -> theirs.button(button)).or(() -> base.button(button)).map(Button::name)
                .orElse(button);
    }

    /** What one side made of a button. */
    private static String words(Rig from, Rig to, String button) {
        if (to.button(button).isEmpty()) {
            return "it is gone";
        }
        Button now = to.button(button).get();
        if (from.button(button).isEmpty()) {
            return "it is new";
        }
        Board was = only(from, from.button(button).get());
        Board is = only(to, now);
        String words = BoardDiff.of(from.with(was), to.with(is)).stream().filter(c -> c.button() != null).map(
                Change::words).collect(Collectors.joining(", "));
        return words.isEmpty() ? "as it was" : words;
    }

    private static Board only(Rig rig, Button button) {
        return rig.board().withPages(List.of(Page.empty("page", "page").withButtons(List.of(button))));
    }

    private static String shown(@Nullable JsonNode value) {
        String text = value == null ? "nothing" : value.toString();
        return text.length() > 120 ? text.substring(0, 118) + "…" : text;
    }
}
