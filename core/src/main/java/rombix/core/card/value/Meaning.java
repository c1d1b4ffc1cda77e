package rombix.core.card.value;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import rombix.core.value.Template;
import rombix.core.value.Value;
import tools.jackson.databind.JsonNode;

/**
 * What counts as one answer: a value, one of several, or a comparison. In JSON a scalar, a list, or
 * {@code {"above": 0.5}}, {@code {"below": 1}}.
 *
 * @param any those that count; where it goes out, the first of them
 */
public record Meaning(List<Value> any, @Nullable Double above, @Nullable Double below) {
    public Meaning {
        any = List.copyOf(any);
        if (any.isEmpty() && above == null && below == null) {
            throw new IllegalArgumentException("expected a value, a list of them, or \"above\" and \"below\"");
        }
    }

    public static Meaning of(Value value) {
        return new Meaning(List.of(value), null, null);
    }

    @JsonCreator(mode = JsonCreator.Mode.DELEGATING)
    static Meaning fromJson(JsonNode node) {
        if (node.isObject()) {
            for (String name : node.propertyNames()) {
                if (!name.equals("above") && !name.equals("below") || !node.get(name).isNumber()) {
                    throw new IllegalArgumentException("a comparison has \"above\" or \"below\" with a number, not \""
                            + name + "\"");
                }
            }
            return new Meaning(List.of(), number(node, "above"), number(node, "below"));
        }
        return node.isArray()
                ? new Meaning(node.valueStream().map(Meaning::scalar).toList(), null, null)
                : of(scalar(node));
    }

    private static @Nullable Double number(JsonNode node, String field) {
        return node.hasNonNull(field) ? node.get(field).doubleValue() : null;
    }

    static Value scalar(JsonNode node) {
        return node.isNumber()
                ? Value.of(node.doubleValue())
                : node.isBoolean() ? Value.of(node.booleanValue()) : Value.of(node.asString());
    }

    @JsonValue
    Object json() {
        if (!any.isEmpty()) {
            return any.size() == 1 ? any.getFirst() : any;
        }
        Map<String, Object> compared = new LinkedHashMap<>();
        if (above != null) {
            compared.put("above", above);
        }
        if (below != null) {
            compared.put("below", below);
        }
        return compared;
    }

    /** What goes out for it; null where it is only a comparison. */
    @Nullable
    Value out() {
        return any.isEmpty() ? null : any.getFirst();
    }

    /** Whether a value from the wire counts as it. */
    public boolean is(Value wire) {
        double n = wire.asNumber();
        if (any.isEmpty()) {
            return !Double.isNaN(n) && (above == null || n > above) && (below == null || n < below);
        }
        return any.stream().anyMatch(said -> said.matches(wire) || said.toString().equals(wire.toString())
                || !Double.isNaN(said.asNumber()) && said.asNumber() == n && !(said instanceof Value.Flag));
    }

    /** With places in its texts filled; what nothing fills stays. */
    public Meaning filled(Function<String, @Nullable Value> places) {
        return any.stream().noneMatch(v -> v instanceof Value.Text t && t.text().contains("{"))
                ? this
                : new Meaning(any.stream().map(v -> v instanceof Value.Text t
                        ? Value.of(new Template(t.text()).fill(places))
                        : v).toList(), above, below);
    }

    /** The place that is all there is of it; null where something else is. */
    @Nullable
    public String place() {
        return any.size() == 1 && any.getFirst() instanceof Value.Text t
                ? new Template(t.text()).solePlace().orElse(null)
                : null;
    }
}
