package rombix.core.card.value;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.StreamSupport;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The object form of a {@link WireValue}. */
final class WireValueJson {
    private static final Set<String> FIELDS = new TreeSet<>(List.of("of", "value", "from", "to", "curve", "yes", "no",
            "format", "as", "points", "packed"));
    private static final Set<String> COMPUTED = new TreeSet<>(List.of("compute", "over", "key", "form", "crc"));

    private static final JsonMapper MAPPER = JsonMapper.builder().enable(
            DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES).build();

    private WireValueJson() {
    }

    static WireValue read(JsonNode node) {
        Set<String> known = node.has("compute") ? COMPUTED : FIELDS;
        for (String name : node.propertyNames()) {
            if (!known.contains(name)) {
                throw new IllegalArgumentException("unknown field \"" + name + "\"; expected one of " + known);
            }
        }
        if (node.has("compute")) {
            JsonNode key = node.get("key");
            return new Computed(one(Computed.Way.class, node, "compute"), WireValue.fromJson(Objects.requireNonNull(node
                    .get("over"), "a computed value needs \"over\"")), key == null ? null : WireValue.fromJson(key),
                    node.has("form") ? one(Computed.Form.class, node, "form") : null, node.has("crc")
                            ? MAPPER.treeToValue(node.get("crc"), Crc.class)
                            : null);
        }
        String as = text(node, "as");
        return new Mapped(text(node, "of"), node.hasNonNull("value") ? Meaning.scalar(node.get("value")) : null,
                numbers(
                        node, "from"),
                numbers(node, "to"), node.has("curve") ? one(Mapped.Curve.class, node, "curve") : null,
                meaning(node, "yes"), meaning(node, "no"), text(node, "format"), as == null ? null : As.of(as),
                points(node),
                node.has("packed") ? MAPPER.treeToValue(node.get("packed"), Packed.class) : null);
    }

    /** One of several by the word that stands for it. */
    private static <E extends Enum<E>> E one(Class<E> type, JsonNode node, String field) {
        String said = node.get(field).asString();
        return Arrays.stream(type.getEnumConstants()).filter(e -> word(e).equals(said)).findFirst().orElseThrow(
                () -> new IllegalArgumentException("\"%s\" is \"%s\"; expected one of %s".formatted(field, said, Arrays
                        .stream(type.getEnumConstants()).map(WireValueJson::word).collect(Collectors.joining(", ")))));
    }

    private static String word(Enum<?> of) {
        return of.name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    private static @Nullable List<List<Double>> points(JsonNode node) {
        return node.hasNonNull("points")
                ? node.get("points").valueStream().map(pair -> pair.valueStream().map(JsonNode::doubleValue).toList())
                        .toList()
                : null;
    }

    private static @Nullable Meaning meaning(JsonNode node, String field) {
        return node.hasNonNull(field) ? Meaning.fromJson(node.get(field)) : null;
    }

    private static @Nullable String text(JsonNode node, String field) {
        return node.hasNonNull(field) ? node.get(field).asString() : null;
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
}
