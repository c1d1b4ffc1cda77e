package rombix.core.edit;

import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Control;
import rombix.core.board.Face;
import rombix.core.board.Page;
import rombix.core.board.State;
import rombix.core.board.Trigger;
import rombix.core.board.Walk;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.computer.Place;
import rombix.core.value.Value;

/** Edits as functions from board to board. What an edit names and the board lacks leaves the board as it is. */
public final class Edits {
    private Edits() {
    }

    /** Adds a button where there is room for it; a taken cell leaves the board as it is. */
    public static Board addButton(Board board, String pageId, Button button) {
        return page(board, pageId, p -> {
            List<Button> after = plus(p.buttons(), button);
            return overlaps(after) ? p : p.withButtons(after);
        });
    }

    /** An id made from a name, in kebab-case, that no button of the board has. */
    public static String freshId(Board board, String name) {
        Set<String> taken = board.buttons().map(Button::id).collect(Collectors.toSet());
        return freshId(name, "button", taken::contains);
    }

    /** An id made from a name, in kebab-case, with a number behind it if it is taken. */
    public static String freshId(String name, String otherwise, Predicate<String> taken) {
        String base = name.toLowerCase(Locale.ROOT).replaceAll("[^\\p{L}\\p{N}]+", "-").replaceAll("^-|-$", "");
        String stem = base.isEmpty() ? otherwise : base;
        String id = stem;
        for (int n = 2; taken.test(id); n++) {
            id = stem + "-" + n;
        }
        return id;
    }

    public static Board removeButton(Board board, String buttonId) {
        return pages(board, p -> p.withButtons(p.buttons().stream().filter(b -> !b.id().equals(buttonId)).toList()));
    }

    /** Moves a button to a cell of its page; a button already there takes its old place. */
    public static Board moveButton(Board board, String buttonId, int column, int row) {
        return pages(board, p -> {
            Button moved = p.buttons().stream().filter(b -> b.id().equals(buttonId)).findFirst().orElse(null);
            if (moved == null || column < 0 || row < 0 || column + moved.width() > p.columns()
                    || row + moved.height() > p.rows()) {
                return p;
            }
            Button there = p.at(column, row).filter(b -> b != moved).orElse(null);
            List<Button> after = p.buttons().stream().map(b -> b == moved
                    ? moved.withColumn(column).withRow(row)
                    : b == there ? b.withColumn(moved.column()).withRow(moved.row()) : b).toList();
            return overlaps(after) ? p : p.withButtons(after);
        });
    }

    /** Moves several buttons of a page by so many cells, if they all fit there beside the others. */
    public static Board moveButtons(Board board, Collection<String> buttonIds, int columns, int rows) {
        return pages(board, p -> {
            List<Button> after = p.buttons().stream().map(b -> buttonIds.contains(b.id())
                    && b.column() + columns >= 0 && b.row() + rows >= 0
                            ? b.withColumn(b.column() + columns).withRow(b.row() + rows)
                            : b)
                    .toList();
            boolean all = after.stream().filter(b -> buttonIds.contains(b.id()))
                    .noneMatch(b -> p.buttons().contains(b));
            return !all || !beyond(p.withButtons(after), p.columns(), p.rows()).isEmpty() || overlaps(after)
                    ? p
                    : p.withButtons(after);
        });
    }

    /** Has a button take so many cells, if there is room for it. */
    public static Board sizeButton(Board board, String buttonId, int width, int height) {
        return pages(board, p -> {
            List<Button> after = p.buttons().stream().map(b -> b.id().equals(buttonId)
                    ? b.withWidth(width).withHeight(height)
                    : b).toList();
            return width < 1 || height < 1 || after.equals(p.buttons())
                    || !beyond(p.withButtons(after), p.columns(), p.rows()).isEmpty() || overlaps(after)
                            ? p
                            : p.withButtons(after);
        });
    }

    /** Moves a button to another page: to its own cell there if that is free, else to the first place that is. */
    public static Board moveToPage(Board board, String buttonId, String pageId) {
        Button button = board.button(buttonId).orElse(null);
        Page to = board.page(pageId).orElse(null);
        if (button == null || to == null || to.buttons().contains(button)) {
            return board;
        }
        int[] free = freePlace(to, button);
        return free.length == 0
                ? board
                : page(removeButton(board, buttonId), pageId, p -> p.withButtons(plus(p.buttons(),
                        button.withColumn(free[0]).withRow(free[1]))));
    }

    /** Where on a page a button of this size has room, its own cell first: column and row; nothing where nowhere. */
    public static int[] freePlace(Page page, Button button) {
        List<int[]> places = new ArrayList<>(List.of(new int[]{button.column(), button.row()}));
        for (int row = 0; row < page.rows(); row++) {
            for (int column = 0; column < page.columns(); column++) {
                places.add(new int[]{column, row});
            }
        }
        for (int[] at : places) {
            Page with = page.withButtons(plus(page.buttons(), button.withColumn(at[0]).withRow(at[1])));
            if (beyond(with, page.columns(), page.rows()).isEmpty() && !overlaps(with.buttons())) {
                return at;
            }
        }
        return new int[0];
    }

    private static boolean overlaps(List<Button> buttons) {
        for (int i = 0; i < buttons.size(); i++) {
            Button a = buttons.get(i);
            for (int j = i + 1; j < buttons.size(); j++) {
                Button b = buttons.get(j);
                if (a.column() < b.column() + b.width() && b.column() < a.column() + a.width()
                        && a.row() < b.row() + b.height() && b.row() < a.row() + a.height()) {
                    return true;
                }
            }
        }
        return false;
    }

    public static Board button(Board board, String buttonId, UnaryOperator<Button> change) {
        return pages(board, p -> p.buttons().stream().noneMatch(b -> b.id().equals(buttonId))
                ? p
                : p.withButtons(p.buttons().stream().map(b -> b.id().equals(buttonId) ? change.apply(b) : b).toList()));
    }

    public static Board state(Board board, String buttonId, int state, UnaryOperator<State> change) {
        return button(board, buttonId, b -> {
            if (state < 0 || state >= b.states().size()) {
                return b;
            }
            List<State> all = new ArrayList<>(b.states());
            all.set(state, change.apply(all.get(state)));
            return b.withStates(all);
        });
    }

    /** Changes the chain of a gesture. */
    public static Board chain(Board board, String buttonId, int state, Gesture gesture, UnaryOperator<Chain> change) {
        return state(board, buttonId, state, s -> s.withChain(gesture, change.apply(s.chain(gesture))));
    }

    /** Changes every chain of a board. */
    public static Board chains(Board board, UnaryOperator<Chain> change) {
        Board changed = pages(board, p -> p.withButtons(p.buttons().stream().map(b -> b.withOnStart(change.apply(b
                .onStart())).withStates(b.states().stream().map(s -> {
                    Map<Gesture, Chain> on = new EnumMap<>(Gesture.class);
                    s.on().forEach((g, c) -> on.put(g, change.apply(c)));
                    return s.withOn(on);
                }).toList())).toList()));
        return changed.withChains(changed.chains().stream().map(c -> new Board.NamedChain(c.id(), c.name(), c.params(),
                change.apply(c.chain()))).toList());
    }

    /** Changes a chain of the board. */
    public static Board namedChain(Board board, String chainId, UnaryOperator<Chain> change) {
        return board.withChains(board.chains().stream().map(c -> c.id().equals(chainId)
                ? new Board.NamedChain(c.id(), c.name(), c.params(), change.apply(c.chain()))
                : c).toList());
    }

    /** Adds an empty chain to the board. */
    public static Board addNamedChain(Board board, String name) {
        String id = freshId(name, "chain", x -> board.chain(x).isPresent());
        return board.withChains(plus(board.chains(), new Board.NamedChain(id, name, List.of(), Chain.EMPTY)));
    }

    /** The name, with a number behind it if it is taken: two things of one name can't be told apart. */
    public static String freeName(String name, Stream<String> taken) {
        Set<String> names = taken.collect(Collectors.toSet());
        String free = name;
        for (int n = 2; names.contains(free); n++) {
            free = name + " " + n;
        }
        return free;
    }

    /** Adds a value to the board. */
    public static Board addValue(Board board, String name, Value initial) {
        String id = freshId(name, "value", x -> board.values().stream().anyMatch(v -> v.id().equals(x)));
        return board.withValues(plus(board.values(), new Board.BoardValue(id, name, initial)));
    }

    /** Takes a value away. */
    public static Board removeValue(Board board, String valueId) {
        return board.withValues(board.values().stream().filter(v -> !v.id().equals(valueId)).toList());
    }

    /** Takes a run-down away; lists that show it are push buttons then. */
    public static Board removeRunDown(Board board, String runDownId) {
        Board left = board.withRunDowns(board.runDowns().stream().filter(r -> !r.id().equals(runDownId)).toList());
        return left.withPages(left.pages().stream().map(p -> p.withButtons(p.buttons().stream().map(b -> b
                .control() instanceof Control.Items i && i.list().equals(runDownId) ? b.withControl(null) : b)
                .toList()))
                .toList());
    }

    /** Takes a chain of the board away. */
    public static Board removeNamedChain(Board board, String chainId) {
        return board.withChains(board.chains().stream().filter(c -> !c.id().equals(chainId)).toList());
    }

    /** Adds a picture, if it is not there yet. */
    public static Board addPicture(Board board, Board.Picture picture) {
        return board.picture(picture.id()).isPresent() ? board : board.withPictures(plus(board.pictures(), picture));
    }

    /** Gives a state's face a picture, which travels with the board from then on. */
    public static Board showPicture(Board board, String button, int state, Board.Picture picture) {
        return state(addPicture(board, picture), button, state, s -> s.withFace(s.face().withImage(new Face.Image(
                picture.id(), Face.Image.Fit.ICON, 0, null))));
    }

    /** The board without the pictures that no face shows and no place remembers. */
    public static Board withoutSpentPictures(Board board) {
        Set<String> shown = new HashSet<>();
        board.buttons().flatMap(b -> b.states().stream()).map(s -> s.face().image()).filter(Objects::nonNull)
                .forEach(i -> shown.add(i.picture()));
        Walk.steps(board, spot -> {
            if (spot.step() instanceof GearStep.Do d) {
                d.args().values().forEach(arg -> {
                    if (arg instanceof Arg.Constant c && c.value() instanceof Value.Text t) {
                        Place.parse(t.text()).map(Place::seen).ifPresent(shown::add);
                    }
                });
            }
        });
        List<Board.Picture> left = board.pictures().stream().filter(p -> shown.contains(p.id())).toList();
        return left.equals(board.pictures()) ? board : board.withPictures(left);
    }

    /** Adds a state that looks like the last and has no chains yet. */
    public static Board addState(Board board, String buttonId) {
        return button(board, buttonId, b -> {
            if (b.states().size() >= Button.MAX_STATES) {
                return b;
            }
            Set<String> ids = b.states().stream().map(State::id).collect(Collectors.toSet());
            String name = "state " + (b.states().size() + 1);
            State last = b.states().getLast();
            State added = new State(freshId(name, "state", ids::contains), name, last.face().withTally(List.of()),
                    State.NEXT, null, Map.of(), Map.of());
            return b.withStates(plus(b.states(), added));
        });
    }

    public static Board removeState(Board board, String buttonId, int state) {
        return button(board, buttonId, b -> {
            if (b.states().size() < 2) {
                return b;
            }
            String gone = b.states().get(state).id();
            List<State> left = new ArrayList<>(b.states());
            left.remove(state);
            return b.withStates(left.stream().map(s -> s.then().equals(gone) ? s.withThen(State.NEXT) : s).map(
                    s -> s.fallBack() != null && s.fallBack().to().equals(gone) ? s.withFallBack(null) : s).toList())
                    .withTriggers(b.triggers().stream().map(t -> t instanceof Trigger.Midi m
                            ? m.withLeds(without(m.leds(), gone))
                            : t).toList());
        });
    }

    private static <V> Map<String, V> without(Map<String, V> map, String key) {
        Map<String, V> left = new LinkedHashMap<>(map);
        left.remove(key);
        return left;
    }

    /** Adds an empty page behind all others, of the size of the last one. */
    public static Board addPage(Board board, String name) {
        Page last = board.pages().getLast();
        String id = freshId(name, "page", x -> board.page(x).isPresent());
        return board.withPages(plus(board.pages(), new Page(id, name, last.columns(), last.rows(), List.of(), Map
                .of())));
    }

    /** Puts a copy of a page behind it; its buttons get ids of their own. */
    public static Board duplicatePage(Board board, String pageId) {
        Page page = board.page(pageId).orElse(null);
        if (page == null) {
            return board;
        }
        Set<String> taken = board.buttons().map(Button::id).collect(Collectors.toSet());
        List<Button> buttons = new ArrayList<>();
        for (Button b : page.buttons()) {
            String id = freshId(b.id(), "button", taken::contains);
            taken.add(id);
            buttons.add(b.withId(id).withTriggers(List.of()));
        }
        List<Page> pages = new ArrayList<>(board.pages());
        pages.add(pages.indexOf(page) + 1, page.withId(freshId(page.id(), "page", x -> board.page(x).isPresent()))
                .withName(freeName(page.name(), board.pages().stream().map(Page::name))).withButtons(buttons));
        return board.withPages(pages);
    }

    /** Moves a page by so many places. */
    public static Board movePage(Board board, String pageId, int by) {
        List<Page> pages = new ArrayList<>(board.pages());
        Page page = board.page(pageId).orElse(null);
        int to = page == null ? -1 : pages.indexOf(page) + by;
        if (page == null || to < 0 || to >= pages.size()) {
            return board;
        }
        pages.remove(page);
        pages.add(to, page);
        return board.withPages(pages);
    }

    /** Takes a page away with its buttons; the last one stays. */
    public static Board removePage(Board board, String pageId) {
        return board.pages().size() < 2
                ? board
                : board.withPages(board.pages().stream().filter(p -> !p.id().equals(pageId)).toList());
    }

    /** The buttons that a page of another size would not hold. */
    public static List<Button> beyond(Page page, int columns, int rows) {
        return page.buttons().stream().filter(b -> b.column() + b.width() > columns || b.row() + b.height() > rows)
                .toList();
    }

    /** Gives a page another size; buttons that fall off go. */
    public static Board resizePage(Board board, String pageId, int columns, int rows) {
        return page(board, pageId, p -> {
            List<Button> gone = beyond(p, columns, rows);
            return new Page(p.id(), p.name(), columns, rows,
                    p.buttons().stream().filter(b -> !gone.contains(b)).toList(),
                    p.extra());
        });
    }

    public static Board page(Board board, String pageId, UnaryOperator<Page> change) {
        return pages(board, p -> p.id().equals(pageId) ? change.apply(p) : p);
    }

    private static Board pages(Board board, UnaryOperator<Page> change) {
        return board.withPages(board.pages().stream().map(change).toList());
    }

    private static <T> List<T> plus(List<T> list, T item) {
        List<T> all = new ArrayList<>(list);
        all.add(item);
        return all;
    }
}
