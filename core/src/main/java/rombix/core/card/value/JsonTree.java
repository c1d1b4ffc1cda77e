package rombix.core.card.value;

import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import rombix.core.value.Limits;
import rombix.core.value.Template;
import rombix.core.value.Value;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonPointer;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.JsonNodeFactory;
import tools.jackson.databind.node.ObjectNode;

/** JSON as messages carry it: trees whose texts have places, and texts that are JSON with places in it. */
public final class JsonTree {
    private static final JsonMapper MAPPER = new JsonMapper();
    private static final JsonNodeFactory MAKE = JsonNodeFactory.instance;
    private static final Map<Template, Boolean> ARE_JSON = new ConcurrentHashMap<>();

    private JsonTree() {
    }

    /** A text as JSON; null where it is none. */
    public static @Nullable JsonNode read(String text) {
        try {
            return text.isBlank() ? null : MAPPER.readTree(text);
        } catch (JacksonException e) {
            return null;
        }
    }

    /** The tree as a text on one line, its places filled; a text that is one place becomes what fills it. */
    public static String filled(JsonNode tree, Function<String, @Nullable Value> places) {
        return MAPPER.writeValueAsString(fill(tree, places, new long[1]));
    }

    /** @param made how many characters were put together already */
    private static JsonNode fill(JsonNode tree, Function<String, @Nullable Value> places, long[] made) {
        switch (tree) {
            case ObjectNode object -> {
                ObjectNode filled = MAKE.objectNode();
                object.properties().forEach(e -> filled.set(new Template(e.getKey()).fill(places), fill(e.getValue(),
                        places, made)));
                return filled;
            }
            case ArrayNode array -> {
                ArrayNode filled = MAKE.arrayNode();
                array.forEach(item -> filled.add(fill(item, places, made)));
                return filled;
            }
            default -> {
                JsonNode filled = tree.isString() ? leaf(new Template(tree.stringValue()), places) : tree;
                made[0] += filled.isString() ? filled.stringValue().length() : 1;
                Limits.made(made[0]);
                return filled;
            }
        }
    }

    private static JsonNode leaf(Template text, Function<String, @Nullable Value> places) {
        Value sole = text.solePlace().map(places).orElse(null);
        return switch (sole) {
            case Value.Num n when n.number() == Math.rint(n.number()) && Math.abs(n.number()) < 1e15 -> MAKE.numberNode(
                    (long) n.number());
            case Value.Num n -> MAKE.numberNode(n.number());
            case Value.Flag f -> MAKE.booleanNode(f.on());
            case null, default -> MAKE.stringNode(text.fill(places));
        };
    }

    /** The places in all texts of a tree. */
    public static Set<String> places(@Nullable JsonNode tree) {
        Set<String> places = new HashSet<>();
        if (tree instanceof ObjectNode object) {
            object.propertyNames().forEach(name -> places.addAll(new Template(name).places()));
        }
        if (tree != null && tree.isString()) {
            places.addAll(new Template(tree.stringValue()).places());
        } else if (tree != null) {
            tree.forEach(item -> places.addAll(places(item)));
        }
        return places;
    }

    /** What fills places, with its quotes escaped where the text that they stand in is JSON. */
    static Function<String, @Nullable Value> quoting(Template text, Function<String, @Nullable Value> places) {
        String source = text.toString();
        if (!source.startsWith("{\"") && !source.startsWith("[")
                || !ARE_JSON.computeIfAbsent(text, t -> read(t.fill(_ -> Value.of(0))) != null)) {
            return places;
        }
        return name -> {
            Value v = places.apply(name);
            String quoted = v instanceof Value.Text t ? MAPPER.writeValueAsString(t.text()) : "";
            return quoted.isEmpty() ? v : Value.of(quoted.substring(1, quoted.length() - 1));
        };
    }

    /** What stands at a pointer (RFC 6901); null where nothing does. */
    public static @Nullable JsonNode at(@Nullable JsonNode tree, String pointer) {
        JsonNode found = tree == null ? null : tree.at(JsonPointer.compile(pointer));
        return found == null || found.isMissingNode() || found.isNull() ? null : found;
    }

    /** A value from JSON; an object or a list as its text. */
    public static Value value(JsonNode node) {
        return node.isContainer() ? Value.of(MAPPER.writeValueAsString(node)) : Meaning.scalar(node);
    }
}
