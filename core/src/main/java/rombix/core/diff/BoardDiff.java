package rombix.core.diff;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Gear;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.board.Trigger;
import rombix.core.chain.Chain;
import rombix.core.chain.Gesture;
import rombix.core.store.BoardTree;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** What is otherwise in one board than in another, in words, by page, button, state and step. Pure. */
public final class BoardDiff {
    /** What members are called; those that are not named here are called as in the file. */
    private static final Map<String, String> NAMES = Map.ofEntries(Map.entry("name", "the name"), Map.entry("columns",
            "the number of columns"), Map.entry("rows", "the number of rows"), Map.entry("fill", "the colour"),
            Map
                    .entry("tint", "the colour"),
            Map.entry("ink", "the colour of the text"), Map.entry("accent",
                    "the colour of the icon"),
            Map.entry("label", "the label"), Map.entry("second",
                    "the second line"),
            Map.entry("icon", "the icon"), Map.entry("mark", "the mark"),
            Map.entry("then", "the next state"), Map.entry("busy", "what a second press does"), Map.entry("card",
                    "the card"),
            Map.entry("address", "the address"), Map.entry("protocol", "the protocol"), Map.entry(
                    "user", "the user name"),
            Map.entry("secret", "the name of the secret"), Map.entry("tag",
                    "the tag"),
            Map.entry("width", "the width"), Map.entry("height", "the height"), Map
                    .entry("hidden", "hidden"),
            Map.entry("longPress",
                    "the time of a long press"),
            Map.entry("doublePress",
                    "the time of a double press"),
            Map.entry("oscPort",
                    "the OSC port"),
            Map.entry("initial", "what it begins as"));

    private final Rig before;
    private final Rig after;
    private final StepChanges steps;
    private final List<Change> found = new ArrayList<>();

    private BoardDiff(Rig before, Rig after) {
        this.before = before;
        this.after = after;
        this.steps = new StepChanges(before, after);
    }

    /** All that is otherwise; nothing where the boards are equal. */
    public static List<Change> of(Rig before, Rig after) {
        BoardDiff diff = new BoardDiff(before, after);
        if (!before.board().equals(after.board())) {
            diff.board(before.board(), after.board());
            if (diff.found.isEmpty()) {
                diff.found.add(Change.of("the order of its parts has changed"));
            }
        }
        return List.copyOf(diff.found);
    }

    private void board(Board was, Board is) {
        members(tree(was, "gear", "pages", "values", "chains", "pictures", "runDowns"), tree(is, "gear", "pages",
                "values", "chains", "pictures", "runDowns"), w -> found.add(Change.of(w)));
        each(was.gear(), is.gear(), Gear::id, g -> "the gear “" + g.name() + "”", (b, a) -> members(BoardTree.of(b),
                BoardTree.of(a), w -> found.add(Change.of("the gear “" + a.name() + "”: " + w))));
        each(was.values(), is.values(), Board.BoardValue::id, v -> "the value “" + v.name() + "”", (b, a) -> members(
                BoardTree.of(b), BoardTree.of(a), w -> found.add(Change.of("the value “" + a.name() + "”: " + w))));
        each(was.runDowns(), is.runDowns(), r -> r.id(), r -> "the run-down “" + r.name() + "”", (_, a) -> found.add(
                Change.of("the run-down “" + a.name() + "” has other items")));
        each(was.pictures(), is.pictures(), Board.Picture::id, p -> "the picture “" + p.name() + "”", (_, a) -> found
                .add(Change.of("the picture “" + a.name() + "” has changed")));
        each(was.chains(), is.chains(), Board.NamedChain::id, c -> "the chain “" + c.name() + "”", (b, a) -> {
            members(tree(b, "chain"), tree(a, "chain"),
                    w -> found.add(Change.of("the chain “" + a.name() + "”: " + w)));
            chain(null, null, null, "The chain “" + a.name() + "”", b.chain(), a.chain());
        });
        pages(was, is);
    }

    private interface Both<T> {
        void of(T before, T after);
    }

    /** Those that are gone, new and changed, by their ids. */
    private <T> void each(List<T> was, List<T> is, Function<T, String> id, Function<T, String> words, Both<T> changed) {
        Map<String, T> old = byId(was, id);
        Map<String, T> now = byId(is, id);
        old.forEach((k, v) -> {
            if (!now.containsKey(k)) {
                found.add(Change.of(words.apply(v) + " is gone"));
            }
        });
        now.forEach((k, v) -> {
            T b = old.get(k);
            if (b == null) {
                found.add(Change.of(words.apply(v) + " is new"));
            } else if (!b.equals(v)) {
                changed.of(b, v);
            }
        });
    }

    private static <T> Map<String, T> byId(List<T> all, Function<T, String> id) {
        Map<String, T> map = new LinkedHashMap<>();
        all.forEach(t -> map.put(id.apply(t), t));
        return map;
    }

    private static ObjectNode tree(Object part, String... without) {
        ObjectNode tree = (ObjectNode) BoardTree.of(part);
        tree.remove(List.of(without));
        return tree;
    }

    private interface Told {
        void say(String words);
    }

    /** The members of two that are the same thing: a clause for each that is otherwise. */
    private static void members(JsonNode was, JsonNode is, Told told) {
        Set<String> names = new LinkedHashSet<>(was.propertyNames());
        names.addAll(is.propertyNames());
        for (String name : names) {
            JsonNode b = was.get(name);
            JsonNode a = is.get(name);
            if (Objects.equals(a, b)) {
                continue;
            }
            if (a != null && b != null && a.isObject() && b.isObject()) {
                members(b, a, told);
                continue;
            }
            String called = NAMES.getOrDefault(name, "“" + name + "”");
            boolean plain = (a == null || a.isValueNode()) && (b == null || b.isValueNode());
            told.say(!plain
                    ? called + " has changed"
                    : a == null
                            ? called + " is no longer " + shown(b)
                            : b == null
                                    ? called + " is " + shown(a)
                                    : called + " is " + shown(a) + " instead of " + shown(b));
        }
    }

    private static String shown(@Nullable JsonNode value) {
        if (value == null || value.isNull()) {
            return "none";
        }
        String text = value.isString() ? "“" + value.stringValue() + "”" : value.toString();
        return text.length() > 80 ? text.substring(0, 78) + "…" : text;
    }

    private void pages(Board was, Board is) {
        each(was.pages(), is.pages(), Page::id, p -> "the page “" + p.name() + "”", (b, a) -> members(tree(b,
                "buttons"), tree(a, "buttons"), w -> found.add(new Change(a.name(), null, null, null, w))));
        List<String> order = is.pages().stream().map(Page::id).filter(p -> before.page(p).isPresent()).toList();
        if (!order.equals(was.pages().stream().map(Page::id).filter(p -> after.page(p).isPresent()).toList())) {
            found.add(Change.of("the pages are in another order"));
        }
        Map<String, Button> old = byId(was.buttons().toList(), Button::id);
        Set<String> now = new LinkedHashSet<>();
        for (Page page : is.pages()) {
            for (Button b : page.buttons()) {
                now.add(b.id());
                Button from = old.get(b.id());
                if (from == null) {
                    found.add(new Change(page.name(), b.name(), null, null, "it is new"));
                } else {
                    button(from, b, page);
                }
            }
        }
        for (Page page : was.pages()) {
            page.buttons().stream().filter(b -> !now.contains(b.id())).forEach(b -> found.add(new Change(page.name(), b
                    .name(), null, null, "it is gone")));
        }
    }

    private void button(Button was, Button is, Page page) {
        String from = before.pageOf(was.id()).map(Page::name).orElse("");
        Told told = w -> found.add(new Change(page.name(), is.name(), null, null, w));
        if (before.pageOf(was.id()).map(Page::id).filter(page.id()::equals).isEmpty()) {
            told.say("it is on the page “%s” instead of “%s”".formatted(page.name(), from));
        }
        if (was.equals(is)) {
            return;
        }
        if (was.column() != is.column() || was.row() != is.row()) {
            told.say("it stands in column %d, row %d instead of column %d, row %d".formatted(is.column() + 1, is.row()
                    + 1, was.column() + 1, was.row() + 1));
        }
        String[] own = {"column", "row", "states", "onStart", "triggers"};
        members(tree(was, own), tree(is, own), told);
        for (Trigger t : was.triggers()) {
            if (!is.triggers().contains(t)) {
                told.say("the trigger “" + t.words() + "” is gone");
            }
        }
        for (Trigger t : is.triggers()) {
            if (!was.triggers().contains(t)) {
                told.say("the trigger “" + t.words() + "” is new");
            }
        }
        chain(page.name(), is.name(), null, "at the start", was.onStart(), is.onStart());
        Map<String, State> states = byId(was.states(), State::id);
        Map<String, State> now = byId(is.states(), State::id);
        states.forEach((id, s) -> {
            if (!now.containsKey(id)) {
                told.say("the state “" + s.name() + "” is gone");
            }
        });
        for (State s : is.states()) {
            State b = states.get(s.id());
            if (b == null) {
                told.say("the state “" + s.name() + "” is new");
            } else if (!b.equals(s)) {
                state(b, s, is, page.name());
            }
        }
    }

    private void state(State was, State is, Button of, String page) {
        String state = of.states().size() > 1 ? is.name() : null;
        members(tree(was, "on"), tree(is, "on"), w -> found.add(new Change(page, of.name(), state, null, w)));
        for (Gesture g : Gesture.values()) {
            chain(page, of.name(), state, g == Gesture.PRESS ? null : g.words(), was.chain(g), is.chain(g));
        }
    }

    private void chain(@Nullable String page, @Nullable String button, @Nullable String state, @Nullable String chain,
            Chain was, Chain is) {
        if (!was.equals(is)) {
            steps.of(was, is).forEach(w -> found.add(new Change(page, button, state, chain, w)));
        }
    }
}
