package rombix.core.card;

import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.StreamSupport;
import org.jspecify.annotations.Nullable;
import rombix.core.value.Value;
import tools.jackson.databind.JsonNode;

/** The object form of a {@link WireValue}. */
final class WireValueJson {
    private static final Set<String> FIELDS = new TreeSet<>(List.of("of", "from", "to", "yes", "no", "as"));

    private WireValueJson() {
    }

    static WireValue.Mapped read(JsonNode node) {
        for (String name : node.propertyNames()) {
            if (!FIELDS.contains(name)) {
                throw new IllegalArgumentException("unknown field \"" + name + "\"; expected one of " + FIELDS);
            }
        }
        return new WireValue.Mapped(text(node, "of"), numbers(node, "from"), numbers(node, "to"), value(node, "yes"),
                value(node, "no"), as(text(node, "as")));
    }

    private static @Nullable String text(JsonNode node, String field) {
        return node.hasNonNull(field) ? node.get(field).asString() : null;
    }

    private static WireValue.@Nullable As as(@Nullable String text) {
        if (text == null) {
            return null;
        }
        try {
            return WireValue.As.valueOf(text.toUpperCase(Locale.ROOT));
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException("\"as\" is \"" + text + "\"; expected int, float, text or rgb", e);
        }
    }

    private static @Nullable List<Double> numbers(JsonNode node, String field) {
        if (!node.hasNonNull(field)) {
            return null;
        }
        JsonNode list = node.get(field);
        if (!list.isArray() || !StreamSupport.stream(list.spliterator(), false).allMatch(JsonNode::isNumber)) {
            throw new IllegalArgumentException("\"" + field + "\" takes a list of two numbers");
        }
        return StreamSupport.stream(list.spliterator(), false).map(JsonNode::doubleValue).toList();
    }

    private static @Nullable Value value(JsonNode node, String field) {
        if (!node.hasNonNull(field)) {
            return null;
        }
        JsonNode v = node.get(field);
        return v.isNumber()
                ? Value.of(v.doubleValue())
                : v.isBoolean() ? Value.of(v.booleanValue()) : Value.of(v.asString());
    }
}
