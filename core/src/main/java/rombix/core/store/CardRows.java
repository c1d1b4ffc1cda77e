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
     * Something of a row that can be said by itself.
     *
     * @param label what people call it
     * @param pointer where in the row's text it stands
     * @param value as text; empty where nothing is said
     */
    public record Part(String label, String pointer, String value) {
    }

    /** The parts of a row that most have, in a protocol: where it is on the wire, what it carries, its range. */
    public static List<Part> parts(Row row, Protocol protocol) {
        JsonNode tree;
        try {
            tree = Json.MAPPER.readTree(row.text());
        } catch (JacksonException e) {
            return List.of();
        }
        List<Part> all = new ArrayList<>();
        if (row.command()) {
            JsonNode packets = tree.path("send").path(protocol.id());
            for (int i = 0; i < packets.size(); i++) {
                String at = "/send/" + protocol.id() + "/" + i;
                String which = packets.size() == 1 ? "" : " " + (i + 1);
                part(all, tree, "To" + which, at + "/to");
                part(all, tree, "Payload" + which, packets.get(i).has("json") ? at + "/json" : at + "/args");
            }
            part(all, tree, "Duration in ms", "/takes");
        } else {
            JsonNode arrives = tree.path("arrives").path(protocol.id());
            String at = "/arrives/" + protocol.id() + (arrives.isArray() ? "/0" : "");
            part(all, tree, "Source", at + "/from");
            part(all, tree, "JSON path", at + "/at");
            part(all, tree, "Pattern", at + "/pattern");
            if ("number".equals(tree.path("type").asString(""))) {
                part(all, tree, "Minimum", "/min");
                part(all, tree, "Maximum", "/max");
                part(all, tree, "Step", "/step");
                part(all, tree, "Unit", "/unit");
            }
        }
        return all;
    }

    private static void part(List<Part> to, JsonNode tree, String label, String pointer) {
        JsonNode at = tree.at(pointer);
        to.add(new Part(label, pointer, at.isMissingNode() ? "" : at.isString() ? at.asString() : at.toString()));
    }

    /**
     * A row's text with one of its parts said anew: JSON where that is meant, else a number or a text; nothing takes it
     * away.
     *
     * @throws IllegalArgumentException in plain words, where the text cannot be read
     */
    public static String with(String text, Part part, String value) {
        try {
            JsonNode tree = Json.MAPPER.readTree(text);
            int last = part.pointer().lastIndexOf('/');
            if (!(tree.at(part.pointer().substring(0, last)) instanceof ObjectNode in)) {
                throw new IllegalArgumentException("This row has no place for it.");
            }
            String name = part.pointer().substring(last + 1);
            if (value.isBlank()) {
                in.remove(name);
            } else if (value.strip().matches("-?\\d+(\\.\\d+)?|[\\[{].*")) {
                in.set(name, Json.MAPPER.readTree(value.strip()));
            } else {
                in.put(name, value);
            }
            return Json.write(tree);
        } catch (JacksonException e) {
            throw new IllegalArgumentException("Not readable: " + e.getOriginalMessage().replaceAll("\\n.*", ""),
                    e);
        }
    }

    /**
     * A card with a row written anew.
     *
     * @throws IllegalArgumentException in plain words, where it cannot be read or does not fit the rest of the card
     */
    public static Card with(Card card, Row row, String title, String text) {
        if (title.isBlank()) {
            throw new IllegalArgumentException("Enter a name.");
        }
        ObjectNode tree = Json.MAPPER.valueToTree(card);
        ArrayNode all = (ArrayNode) tree.get(row.command() ? "commands" : "readings");
        try {
            for (int i = 0; i < all.size(); i++) {
                if (all.get(i).get("id").asString().equals(row.id())) {
                    ObjectNode made = Json.MAPPER.createObjectNode();
                    made.put("id", row.id()).put("title", title.strip());
                    if (!(Json.MAPPER.readTree(text) instanceof ObjectNode rest)) {
                        throw new IllegalArgumentException("It must begin with { and end with }.");
                    }
                    rest.properties().forEach(e -> made.set(e.getKey(), e.getValue()));
                    all.set(i, made);
                }
            }
            return CardLibrary.read(Path.of(""), Json.write(tree));
        } catch (BadFile e) {
            throw new IllegalArgumentException(e.reason(), e);
        } catch (JacksonException e) {
            throw new IllegalArgumentException("Not readable: " + e.getOriginalMessage().replaceAll("\\n.*", ""),
                    e);
        }
    }
}
