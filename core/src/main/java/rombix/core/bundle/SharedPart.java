package rombix.core.bundle;

import com.fasterxml.jackson.annotation.JsonProperty;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Face;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.card.Card;
import rombix.core.chain.Gesture;
import rombix.core.check.References;
import rombix.core.store.BadFile;
import rombix.core.store.BoardTree;
import rombix.core.store.CardExchange;
import rombix.core.store.CardLibrary;
import tools.jackson.databind.JsonNode;

/**
 * A part of a board as text, to be pasted into another: a small board that has nothing but that part and what it names.
 * Addresses, user names and secrets of its gear stay behind.
 *
 * @param what which part it is
 * @param rig the small board, with its cards; one page, and but for a page at least one button on it
 */
public record SharedPart(What what, Rig rig) {
    private static final String MARK = "\"rombix-part\"";
    private static final int FORMAT = 1;
    /** Characters of a text that is taken for a part. */
    public static final int LONGEST = 64 << 20;

    /** Which part of a board it is. */
    public enum What {
        @JsonProperty("page")
        PAGE, @JsonProperty("buttons")
        BUTTONS,
        /** The first state of its button: its face and its chains. */
        @JsonProperty("state")
        STATE,
        /** The press chain of the first state of its button. */
        @JsonProperty("chain")
        CHAIN,
        /** The looks of its button. */
        @JsonProperty("look")
        LOOK
    }

    /** As the text has it. */
    private record Written(@JsonProperty("rombix-part") int format, What what, Board board, List<Card> cards) {
        Written {
            Objects.requireNonNull(what, "a part says \"what\" it is");
            Objects.requireNonNull(board, "a part needs its \"board\"");
            cards = List.copyOf(Objects.requireNonNullElse(cards, List.of()));
        }
    }

    /** A page with all its buttons. */
    public static SharedPart page(Rig rig, Page page) {
        return of(What.PAGE, rig, page);
    }

    /** Buttons of one page, or what of the first of them is meant. */
    public static SharedPart of(What what, Rig rig, List<Button> buttons) {
        Page page = rig.pageOf(buttons.getFirst().id()).orElseThrow();
        return of(what, rig, page.withFollows(null).withButtons(what == What.BUTTONS
                ? buttons
                : List.of(only(what, buttons.getFirst()))));
    }

    /** A button reduced to the part that is copied: nothing else of it then has to fit the other board. */
    private static Button only(What what, Button b) {
        State first = b.states().getFirst();
        List<State> states = switch (what) {
            case STATE -> List.of(first.withThen(State.NEXT).withFallBack(null));
            case CHAIN ->
                List.of(first.withFace(Face.PLAIN).withWhen(null).withFallBack(null).withThen(State.NEXT).withOn(Map
                        .of(Gesture.PRESS, first.chain(Gesture.PRESS))));
            case LOOK ->
                b.states().stream().map(s -> s.withFace(s.face().withTally(List.of())).withWhen(null).withFallBack(
                        null).withThen(State.NEXT).withOn(Map.of())).toList();
            case PAGE, BUTTONS -> b.states();
        };
        return new Button(b.id(), b.name(), b.column(), b.row(), b.width(), b.height(), b.busy(), states, Map.of())
                .withValues(b.values());
    }

    private static SharedPart of(What what, Rig rig, Page page) {
        Board all = rig.board();
        Board part = Board.empty(all.name()).withPages(List.of(page)).withGear(List.of());
        Board grown = part;
        do { // What is named may name something itself.
            part = grown;
            Set<String> names = names(BoardTree.of(part));
            grown = part.withGear(named(all.gear(), g -> g.id(), names)).withValues(named(all.values(), v -> v.id(),
                    names)).withChains(named(all.chains(), c -> c.id(), names))
                    .withPictures(named(all.pictures(), p -> p
                            .id(), names))
                    .withRunDowns(named(all.runDowns(), r -> r.id(), names));
        } while (!grown.equals(part));
        Board bare = grown.withGear(grown.gear().stream().map(BundleWriter::bare).toList());
        // What its steps name of other buttons and pages can't come along.
        return new SharedPart(what, CardExchange.fitted(Rig.of(bare, rig.cards())).rig());
    }

    private static <T> List<T> named(List<T> all, Function<T, String> id, Set<String> names) {
        return all.stream().filter(t -> names.contains(id.apply(t))).toList();
    }

    /** All words that stand in a tree: what is named is among them. */
    private static Set<String> names(JsonNode tree) {
        Set<String> words = new HashSet<>();
        collect(tree, words);
        return words;
    }

    private static void collect(JsonNode node, Set<String> words) {
        if (node.isString()) {
            words.add(node.stringValue());
            for (String word : node.stringValue().split("[^\\p{L}\\p{N}_-]+")) {
                words.add(word);
            }
        }
        node.forEach(child -> collect(child, words));
    }

    /** As text. */
    public String text() {
        Map<String, Card> shipped = CardLibrary.shipped();
        Set<String> used = new HashSet<>();
        rig.board().gear().forEach(g -> {
            used.add(g.card());
            g.patch().forEach(f -> used.add(f.personality()));
        });
        return BoardTree.text(new Written(FORMAT, what, rig.board(), rig.cards().values().stream().filter(c -> used
                .contains(c.id()) && !c.equals(shipped.get(c.id()))).toList()));
    }

    /**
     * The part that a text is; empty where it is none.
     *
     * @throws BadFile where it is one that can't be used
     */
    public static Optional<SharedPart> read(String text) throws BadFile {
        if (text.length() > LONGEST || !text.contains(MARK)) {
            return Optional.empty();
        }
        Path named = Path.of("part.json");
        Written read = BoardTree.read(named, text, Written.class);
        if (read.format() != FORMAT) {
            throw new BadFile(named, 0, 0, "has format %d; this Rombix reads %d".formatted(read.format(), FORMAT));
        }
        Map<String, Card> cards = new LinkedHashMap<>(CardLibrary.shipped());
        for (Card card : read.cards()) {
            cards.put(card.id(), CardLibrary.read(Path.of(card.id() + ".json"), CardLibrary.format(card)));
        }
        Rig rig = Rig.of(read.board(), cards);
        List<References.Flaw> flaws = References.flaws(rig);
        boolean empty = rig.board().pages().size() != 1 || read.what() != What.PAGE && rig.board().buttons().findAny()
                .isEmpty();
        if (empty || !flaws.isEmpty()) {
            throw new BadFile(named, 0, 0, empty ? "has not one page with a button" : flaws.getFirst().message());
        }
        return Optional.of(new SharedPart(read.what(), rig));
    }

    /** Its one page. */
    Page page() {
        return rig.board().pages().getFirst();
    }

    /** Its buttons. */
    List<Button> buttons() {
        return new ArrayList<>(page().buttons());
    }

    /** In words: {@code the page “Trouble”}. */
    public String words() {
        Page page = page();
        return switch (what) {
            case PAGE -> "the page “" + page.name() + "”";
            case BUTTONS -> page.buttons().size() == 1
                    ? "“" + page.buttons().getFirst().name() + "”"
                    : page.buttons().stream().map(Button::name).collect(Collectors.joining("”, “", "“", "”"));
            case STATE -> "the state “%s” of “%s”".formatted(page.buttons().getFirst().states().getFirst().name(),
                    page.buttons().getFirst().name());
            case CHAIN -> "a chain of “" + page.buttons().getFirst().name() + "”";
            case LOOK -> "the look of “" + page.buttons().getFirst().name() + "”";
        };
    }
}
