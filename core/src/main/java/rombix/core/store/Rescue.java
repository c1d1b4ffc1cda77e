package rombix.core.store;

import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Gear;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.board.RunDown;
import rombix.core.check.References;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;

/** Takes from a board that is damaged what stands before the damage. */
final class Rescue {
    /** How many ends of whole objects and lists are tried before the damage. */
    private static final int MOST = 64;

    private Rescue() {
    }

    /**
     * What can be read of a board, on top of one that is whole: all that the damage has taken is as it is there.
     *
     * @return empty where nothing can be read, or it does not fit together
     */
    static Optional<Board> of(Path file, String damaged, Rig whole) {
        for (String readable : readable(damaged)) {
            try {
                Board part = Json.read(file, readable, Board.class, false);
                Board both = merged(whole, part);
                return both.equals(whole.board()) || !References.flaws(whole.with(both)).isEmpty()
                        ? Optional.empty()
                        : Optional.of(both);
            } catch (BadFile e) {
                // What is open there misses something that stood behind the damage: it is left out, too.
            }
        }
        return Optional.empty();
    }

    /**
     * The text up to the end of the last object or list in it that is whole, with all closed that is open there; then up
     * to the one before, and so on.
     */
    private static List<String> readable(String text) {
        Deque<Character> open = new ArrayDeque<>();
        Deque<String> all = new ArrayDeque<>();
        try (JsonParser in = Json.MAPPER.createParser(text)) {
            for (JsonToken token = in.nextToken(); token != null; token = in.nextToken()) {
                switch (token) {
                    case START_OBJECT -> open.push('}');
                    case START_ARRAY -> open.push(']');
                    case END_OBJECT, END_ARRAY -> {
                        open.pop();
                        StringBuilder rest = new StringBuilder();
                        open.forEach(rest::append);
                        all.push((int) in.currentLocation().getCharOffset() + " " + rest);
                        if (all.size() > MOST) {
                            all.removeLast();
                        }
                    }
                    default -> {
                        // A value is part of what is around it.
                    }
                }
            }
        } catch (JacksonException e) {
            // Here is the damage.
        }
        return all.stream().map(end -> text.substring(0, Integer.parseInt(end.substring(0, end.indexOf(' ')))) + end
                .substring(end.indexOf(' ') + 1)).toList();
    }

    private static Board merged(Rig rig, Board part) {
        Board whole = rig.board();
        List<Page> pages = new ArrayList<>();
        for (Page page : joined(whole.pages(), part.pages(), Page::id)) {
            List<Button> before = rig.page(page.id()).map(Page::buttons).orElse(List.of());
            boolean cut = !part.pages().isEmpty() && page.equals(part.pages().getLast());
            pages.add(cut ? page.withButtons(joined(before, page.buttons(), Button::id)) : page);
        }
        return part.withPages(pages).withGear(joined(whole.gear(), part.gear(), Gear::id)).withValues(joined(whole
                .values(), part.values(), Board.BoardValue::id)).withChains(joined(whole.chains(), part.chains(),
                        Board.NamedChain::id))
                .withPictures(joined(whole.pictures(), part.pictures(), Board.Picture::id)).withRunDowns(joined(whole
                        .runDowns(), part.runDowns(), RunDown::id));
    }

    /** The second list, and behind it what only the first one has. */
    private static <T> List<T> joined(List<T> before, List<T> now, Function<T, String> id) {
        Map<String, T> all = new LinkedHashMap<>();
        now.forEach(x -> all.put(id.apply(x), x));
        before.forEach(x -> all.putIfAbsent(id.apply(x), x));
        return List.copyOf(all.values());
    }
}
