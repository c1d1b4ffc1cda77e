package rombix.core.store;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.MalformedInputException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import rombix.core.card.Card;
import rombix.core.value.Limits;

/** The cards that ship, and those in a folder {@code cards} beside a board. */
public final class CardLibrary {
    private static final List<String> SHIPPED = List.of("studio", "sound-desk", "lamps", "house", "lamp-cues", "chat",
            "desktop", "player", "projector", "camera-head", "music", "relay-box", "wake-on-lan", "fixtures",
            "house-json",
            "machine-control", "show-control", "dimmer", "dimmer-16-bit", "tunable-white", "colour-lamp",
            "colour-lamp-dimmer", "colour-white-lamp", "strobe-lamp", "moving-spot", "any-midi", "any-osc", "any-http",
            "any-line", "any-websocket");

    /** The id in the text of a card that may be damaged. */
    private static final Pattern ID = Pattern.compile("\"id\"\\s*:\\s*\"([^\"]+)\"");

    private CardLibrary() {
    }

    /** Read once, and not before somebody asks for them. */
    private static final class Shipped {
        private static final Map<String, Card> CARDS = read();
    }

    /** The cards that ship, by id; a map of the caller's own. */
    public static Map<String, Card> shipped() {
        return new LinkedHashMap<>(Shipped.CARDS);
    }

    private static Map<String, Card> read() {
        Map<String, Card> cards = new LinkedHashMap<>();
        for (String name : SHIPPED) {
            String resource = "/rombix/cards/" + name + ".json";
            try (InputStream in = CardLibrary.class.getResourceAsStream(resource)) {
                if (in == null) {
                    throw new IllegalStateException("the card " + resource + " does not ship");
                }
                Card card = read(Path.of(name + ".json"), new String(in.readAllBytes(), StandardCharsets.UTF_8));
                cards.put(card.id(), card);
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            } catch (BadFile e) {
                throw new IllegalStateException(e);
            }
        }
        return cards;
    }

    /**
     * Cards, and those that could not be read, by the name of their file without its ending and by the id in it.
     */
    public record Cards(Map<String, Card> good, Map<String, BadFile> bad) {
        /** What is wrong with the file of a card that is not among the good ones; empty where there is no such file. */
        Optional<BadFile> trouble(String card) {
            return good.containsKey(card) ? Optional.empty() : Optional.ofNullable(bad.get(card));
        }
    }

    /** The cards that ship, and over them those in the folder {@code cards} beside a board file. */
    public static Map<String, Card> beside(Path boardFile) throws BadFile {
        return found(boardFile).good();
    }

    /** As {@link #beside}, with those that could not be read: they stop nothing but the boards that use them. */
    public static Cards found(Path boardFile) throws BadFile {
        Map<String, Card> cards = shipped();
        Map<String, BadFile> bad = new LinkedHashMap<>();
        Map<String, Path> from = new LinkedHashMap<>();
        Path folder = boardFile.toAbsolutePath().resolveSibling("cards");
        if (Files.isDirectory(folder)) {
            try (Stream<Path> files = Files.list(folder)) {
                for (Path file : files.filter(f -> f.toString().endsWith(".json")).sorted().toList()) {
                    String text = "";
                    try {
                        text = text(file);
                        Card card = read(file, text);
                        Path other = from.putIfAbsent(card.id(), file);
                        if (other != null) {
                            throw new BadFile(file, 0, 0,
                                    "the card in %s has the id “%s”, too; change one, as ids must be unique"
                                            .formatted(card.id(), other.getFileName()));
                        }
                        cards.put(card.id(), card);
                    } catch (BadFile e) {
                        bad.put(String.valueOf(file.getFileName()).replaceFirst("\\.json$", ""), e);
                        Matcher id = ID.matcher(text);
                        if (id.find()) {
                            bad.putIfAbsent(id.group(1), e);
                        }
                    }
                }
            } catch (IOException e) {
                throw new BadFile(folder, 0, 0, "can't be read: " + e.getMessage());
            }
        }
        return new Cards(cards, bad);
    }

    /**
     * The text of a file that may be anything: a folder, a pipe that nobody writes to, a device without an end, a link to
     * nowhere.
     */
    public static String text(Path file) throws BadFile {
        try {
            if (!Files.isRegularFile(file)) {
                throw new BadFile(file, 0, 0, Files.exists(file)
                        ? "isn't a file"
                        : Files.isSymbolicLink(file)
                                ? "is a link to a missing file"
                                : "there is no such file");
            }
            if (Files.size(file) > Limits.FILE) {
                throw new BadFile(file, 0, 0,
                        "has %d MB; the limit is %d MB".formatted(Files.size(file) >> 20,
                                Limits.FILE >> 20));
            }
            String text = Files.readString(file);
            return text.startsWith("\uFEFF") ? text.substring(1) : text; // Some editors mark UTF-8 so.
        } catch (MalformedInputException e) {
            throw new BadFile(file, 0, 0, "isn't text in UTF-8. Save it in that encoding.");
        } catch (IOException e) {
            throw new BadFile(file, 0, 0, "can't be read: " + e.getMessage());
        }
    }

    /** Reads a card and checks that its parts fit together. */
    public static Card read(Path file, String text) throws BadFile {
        Card card = Json.read(file, text, Card.class, true);
        if (card.card() > Card.FORMAT) {
            throw tooNew(file, text, card);
        }
        for (CardCheck.Flaw flaw : CardCheck.of(card)) {
            throw at(file, text, flaw.pointer(), flaw.message());
        }
        return card;
    }

    /** The card as its file holds it. */
    public static String format(Card card) {
        return Json.write(card) + "\n";
    }

    /** Where the cards of a board lie, and one of them, by its id. */
    public static Path file(Path boardFile, String card) {
        return boardFile.toAbsolutePath().resolveSibling("cards").resolve(card + ".json");
    }

    /** All that is wrong with a card, each with its place in the file; nothing where all is well. */
    public static List<BadFile> check(Path file, String text) {
        try {
            Card card = Json.read(file, text, Card.class, true);
            if (card.card() > Card.FORMAT) {
                return List.of(tooNew(file, text, card));
            }
            return CardCheck.of(card).stream().map(f -> at(file, text, f.pointer(), f.message())).toList();
        } catch (BadFile e) {
            return List.of(e);
        }
    }

    private static BadFile tooNew(Path file, String text, Card card) {
        return at(file, text, "/card", "this card has format %d; this Rombix reads up to %d. Use a newer Rombix."
                .formatted(card.card(), Card.FORMAT));
    }

    static BadFile at(Path file, String text, String pointer, String message) {
        Json.Place place = Json.find(text, pointer);
        for (String up = pointer; place.line() == 0 && !up.isEmpty(); place = Json.find(text, up)) {
            up = up.substring(0, up.lastIndexOf('/')); // What is missing is missed where it should be.
        }
        return new BadFile(file, place.line(), place.column(), message);
    }
}
