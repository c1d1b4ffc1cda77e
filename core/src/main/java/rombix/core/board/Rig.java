package rombix.core.board;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Card;
import rombix.core.patch.Patching;
import rombix.core.twin.Twin;

/** A board with a twin for each of its gear, and what stands on it by id. Immutable; safe to use from any thread. */
public final class Rig {
    private final Board board;
    private final Map<String, Card> cards;
    private final Map<String, Twin> twins;
    private final @Nullable String folder;
    private final Map<String, Page> pages = new HashMap<>();
    private final Map<String, Place> places;
    private final List<Button> valued = new ArrayList<>();

    /** Where a button stands: its page, and its index among the buttons of that. */
    private record Place(int page, int button) {
    }

    /** @param like a rig whose index is shared where the same buttons stand in the same order; null where there is none */
    private Rig(Board board, Map<String, Card> cards, Map<String, Twin> twins, @Nullable String folder,
            @Nullable Rig like) {
        this.board = board;
        this.cards = cards;
        this.twins = twins;
        this.folder = folder;
        this.places = like != null && sameOrder(board, like.board) ? like.places : places(board);
        for (Page p : board.pages()) {
            pages.putIfAbsent(p.id(), p);
            for (Button b : p.buttons()) {
                if (!b.values().isEmpty()) {
                    valued.add(b);
                }
            }
        }
    }

    private static Map<String, Place> places(Board board) {
        Map<String, Place> places = new HashMap<>();
        for (int p = 0; p < board.pages().size(); p++) {
            List<Button> buttons = board.pages().get(p).buttons();
            for (int b = 0; b < buttons.size(); b++) {
                places.putIfAbsent(buttons.get(b).id(), new Place(p, b));
            }
        }
        return places;
    }

    private static boolean sameOrder(Board one, Board other) {
        if (one.pages().size() != other.pages().size()) {
            return false;
        }
        for (int p = 0; p < one.pages().size(); p++) {
            List<Button> a = one.pages().get(p).buttons();
            List<Button> b = other.pages().get(p).buttons();
            if (a.size() != b.size()) {
                return false;
            }
            for (int i = 0; a != b && i < a.size(); i++) {
                if (!a.get(i).id().equals(b.get(i).id())) {
                    return false;
                }
            }
        }
        return true;
    }

    /** Makes the twins; gear whose card is not among {@code cards} gets none. */
    public static Rig of(Board board, Map<String, Card> cards) {
        return of(board, cards, null, Map.of(), null);
    }

    /** @param known the twins of gear that is as it was */
    private static Rig of(Board board, Map<String, Card> cards, @Nullable String folder, Map<Gear, Twin> known,
            @Nullable Rig like) {
        Map<String, Twin> twins = new LinkedHashMap<>();
        for (Gear g : board.gear()) {
            Card card = cards.get(g.card());
            if (known.get(g) instanceof Twin twin) {
                twins.put(g.id(), twin);
            } else if (card != null) {
                Patching patched = Patching.of(card, g.lists(), g.patch(), cards);
                twins.put(g.id(), new Twin(g.id(), g.name(), patched.card(), g.link().protocol(), patched.lists(),
                        patched.outputs()));
            }
        }
        return new Rig(board, cards, Collections.unmodifiableMap(twins), folder, like);
    }

    /** The same cards with another board. Twins of unchanged gear are kept. */
    public Rig with(Board next) {
        if (next.gear().equals(board.gear())) {
            return new Rig(next, cards, twins, folder, this);
        }
        Map<Gear, Twin> known = new HashMap<>();
        for (Gear g : board.gear()) {
            if (twins.get(g.id()) instanceof Twin twin) {
                known.put(g, twin);
            }
        }
        return of(next, cards, folder, known, this);
    }

    /** The same board with another card of its kind, or with one more. */
    public Rig withCard(Card card) {
        Map<String, Card> all = new LinkedHashMap<>(cards);
        all.put(card.id(), card);
        return of(board, all, folder, Map.of(), this);
    }

    /** The same with a board that is kept in a folder: what it names by halves is looked for from there. */
    public Rig in(String where) {
        return new Rig(board, cards, twins, where.replace('\\', '/'), this);
    }

    /** Where a file lies that the board names: from the board's own folder on, where it is not named in full. */
    public String file(String named) {
        return folder == null || named.matches("([A-Za-z]:)?[/\\\\].*") ? named : folder + "/" + named;
    }

    /** Whether a name is that of a file with a sound which can be played. */
    public static boolean sound(String name) {
        return name.matches("(?i).+\\.(wav|wave|aif|aiff|flac|ogg|oga|mp3)");
    }

    /** How the board names a file: from its own folder on where the file lies in that, so that both can be moved. */
    public String named(String file) {
        String whole = file.replace('\\', '/');
        return folder != null && whole.startsWith(folder + "/") ? whole.substring(folder.length() + 1) : whole;
    }

    public Board board() {
        return board;
    }

    public Map<String, Card> cards() {
        return cards;
    }

    public Map<String, Twin> twins() {
        return twins;
    }

    public Optional<Twin> twin(String gear) {
        return Optional.ofNullable(twins.get(gear));
    }

    public Optional<Button> button(String id) {
        return Optional.ofNullable(places.get(id)).map(at -> board.pages().get(at.page()).buttons().get(at.button()));
    }

    public Optional<Page> page(String id) {
        return Optional.ofNullable(pages.get(id));
    }

    /** The buttons that have values of their own. */
    public List<Button> valued() {
        return Collections.unmodifiableList(valued);
    }

    /** The page that a button stands on. */
    public Optional<Page> pageOf(String buttonId) {
        return Optional.ofNullable(places.get(buttonId)).map(at -> board.pages().get(at.page()));
    }

    @Override
    public boolean equals(@Nullable Object other) {
        return other instanceof Rig r && r.board.equals(board) && r.cards.equals(cards) && r.twins.equals(twins);
    }

    @Override
    public int hashCode() {
        return Objects.hash(board, cards);
    }

    @Override
    public String toString() {
        return "Rig[" + board.name() + "]";
    }
}
