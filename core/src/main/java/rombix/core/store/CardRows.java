package rombix.core.store;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import rombix.core.card.Arrival;
import rombix.core.card.Card;
import rombix.core.card.Packet;
import rombix.core.card.Protocol;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** A card as rows, and one of them written anew. */
public final class CardRows {
    /**
     * A reading or a command.
     *
     * @param command whether it is one that the gear can be told
     * @param wire what it looks like there
     * @param text as the card's file says it, without its id and its title
     */
    public record Row(boolean command, String id, String title, String wire, String text) {
    }

    private CardRows() {
    }

    /** The readings of a card, and then its commands. */
    public static List<Row> of(Card card, Protocol protocol) {
        ObjectNode tree = Json.MAPPER.valueToTree(card);
        List<Row> rows = new ArrayList<>();
        for (int i = 0; i < card.readings().size(); i++) {
            Card.ReadingSpec r = card.readings().get(i);
            rows.add(new Row(false, r.id().toString(), r.title().toString(),
                    r.arrives().getOrDefault(protocol, List.of())
                            .stream().map(CardRows::wire).collect(Collectors.joining("; ")),
                    text(tree.get("readings").get(
                            i))));
        }
        for (int i = 0; i < card.commands().size(); i++) {
            Card.Command c = card.commands().get(i);
            rows.add(
                    new Row(true, c.id(), c.title().toString(), c.send().getOrDefault(protocol, List.of()).stream().map(
                            CardRows::wire).collect(Collectors.joining("; ")), text(tree.get("commands").get(i))));
        }
        return rows;
    }

    private static String wire(Arrival a) {
        return (a.from() + " " + (a.at() != null ? a.at() : a.pattern() != null ? a.pattern() : "")).strip();
    }

    private static String wire(Packet p) {
        JsonNode args = Json.MAPPER.valueToTree(p.json() != null ? p.json() : p.args());
        return (p.to() + " " + (p.json() != null
                ? compact(args)
                : args.valueStream().map(a -> a.isString() ? a.asString() : compact(a)).collect(Collectors.joining(
                        " "))))
                .strip();
    }

    private static String compact(JsonNode node) {
        return node.has("of")
                ? "{" + node.get("of").asString() + "}"
                : node.has("value") ? node.get("value").toString() : node.toString();
    }

    private static String text(JsonNode row) {
        ObjectNode rest = (ObjectNode) row.deepCopy();
        rest.remove(List.of("id", "title"));
        return Json.write(rest);
    }

    /**
     * A card with a row written anew.
     *
     * @throws IllegalArgumentException in plain words, where it cannot be read or does not fit the rest of the card
     */
    public static Card with(Card card, Row row, String title, String text) {
        if (title.isBlank()) {
            throw new IllegalArgumentException("Give it a name.");
        }
        ObjectNode tree = Json.MAPPER.valueToTree(card);
        ArrayNode all = (ArrayNode) tree.get(row.command() ? "commands" : "readings");
        try {
            for (int i = 0; i < all.size(); i++) {
                if (all.get(i).get("id").asString().equals(row.id())) {
                    ObjectNode made = Json.MAPPER.createObjectNode();
                    made.put("id", row.id()).put("title", title.strip());
                    if (!(Json.MAPPER.readTree(text) instanceof ObjectNode rest)) {
                        throw new IllegalArgumentException("It begins with { and ends with }.");
                    }
                    rest.properties().forEach(e -> made.set(e.getKey(), e.getValue()));
                    all.set(i, made);
                }
            }
            return CardLibrary.read(Path.of(""), Json.write(tree));
        } catch (BadFile e) {
            throw new IllegalArgumentException(e.reason(), e);
        } catch (JacksonException e) {
            throw new IllegalArgumentException("This cannot be read: " + e.getOriginalMessage().replaceAll("\\n.*", ""),
                    e);
        }
    }
}
