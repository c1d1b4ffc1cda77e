package rombix.core.store;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import rombix.core.card.Card;
import rombix.core.card.Card.Arrival;
import rombix.core.card.Card.Command;
import rombix.core.card.Card.Packet;
import rombix.core.card.Card.ReadingSpec;
import rombix.core.card.Protocol;

/** The cards that ship, and those in a folder {@code cards} beside a board. */
public final class CardLibrary {
    private static final List<String> SHIPPED = List.of("studio", "sound-desk", "lamps", "house", "lamp-cues", "chat",
            "desktop", "any-osc");

    private CardLibrary() {
    }

    /** The cards that ship, by id. */
    public static Map<String, Card> shipped() {
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

    /** The cards that ship, and over them those in the folder {@code cards} beside a board file. */
    public static Map<String, Card> beside(Path boardFile) throws BadFile {
        Map<String, Card> cards = shipped();
        Path folder = boardFile.toAbsolutePath().resolveSibling("cards");
        if (Files.isDirectory(folder)) {
            try (Stream<Path> files = Files.list(folder)) {
                for (Path file : files.filter(f -> f.toString().endsWith(".json")).sorted().toList()) {
                    Card card = read(file, Files.readString(file));
                    cards.put(card.id(), card);
                }
            } catch (IOException e) {
                throw new BadFile(folder, 0, 0, "cannot be read: " + e.getMessage());
            }
        }
        return cards;
    }

    /** Reads a card and checks that its parts fit together. */
    public static Card read(Path file, String text) throws BadFile {
        Card card = Json.read(file, text, Card.class, true);
        if (card.card() > Card.FORMAT) {
            throw at(file, text, "/card", "this card has format %d; this Rombix reads up to %d. Use a newer Rombix."
                    .formatted(card.card(), Card.FORMAT));
        }
        for (int i = 0; i < card.commands().size(); i++) {
            check(file, text, card, card.commands().get(i), "/commands/" + i);
        }
        for (int i = 0; i < card.readings().size(); i++) {
            for (Map.Entry<Protocol, Arrival> e : card.readings().get(i).arrives().entrySet()) {
                address(file, text, e.getKey(), e.getValue().from().toString(), "/readings/%d/arrives/%s/from"
                        .formatted(i, e.getKey().id()));
            }
        }
        return card;
    }

    private static void check(Path file, String text, Card card, Command command, String pointer) throws BadFile {
        for (int i = 0; i < command.changes().size(); i++) {
            String changed = command.changes().get(i).reading().toString();
            if (card.readings().stream().map(ReadingSpec::id).noneMatch(id -> id.toString().equals(changed))) {
                throw at(file, text, pointer + "/changes/" + i + "/reading",
                        "no reading “%s” on this card; it has %s".formatted(changed,
                                card.readings().stream().map(r -> r.id().toString()).toList()));
            }
        }
        if (command.undo() != null && card.command(command.undo().command()).isEmpty()) {
            throw at(file, text, pointer + "/undo/command",
                    "no command “%s” on this card".formatted(command.undo().command()));
        }
        for (Map.Entry<Protocol, List<Packet>> e : command.send().entrySet()) {
            for (int i = 0; i < e.getValue().size(); i++) {
                Packet packet = e.getValue().get(i);
                String where = pointer + "/send/%s/%d/to"
                        .formatted(e.getKey().id(), i);
                address(file, text, e.getKey(), packet.to().toString(), where);
                for (String place : packet.to().places()) {
                    String name = place.contains(".") ? place.substring(0, place.indexOf('.')) : place;
                    if (command.param(name).isEmpty()) {
                        throw at(file, text, where, "no parameter “%s” on the command “%s”".formatted(name,
                                command.id()));
                    }
                }
            }
        }
    }

    private static void address(Path file, String text, Protocol protocol, String address, String pointer)
            throws BadFile {
        if (!protocol.descriptor().takes(address)) {
            throw at(file, text, pointer, "“%s” is no %s address; expected %s".formatted(address, protocol.title(),
                    protocol.descriptor().expected()));
        }
    }

    static BadFile at(Path file, String text, String pointer, String message) {
        Json.Place place = Json.find(text, pointer);
        return new BadFile(file, place.line(), place.column(), message);
    }
}
