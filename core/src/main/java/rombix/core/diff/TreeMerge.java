package rombix.core.diff;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Merges trees of JSON three ways: members of objects each by themselves, lists whose items have ids item by item. Where
 * both sides changed the same in different ways it stays as it is in ours, and is listed.
 */
final class TreeMerge {
    /** Where both sides differ: {@code buttons/gate/name}, and what each has there; null where it has nothing. */
    record Clash(String path, @Nullable JsonNode ours, @Nullable JsonNode theirs) {
    }

    private final List<Clash> clashes = new ArrayList<>();

    List<Clash> clashes() {
        return clashes;
    }

    /** What becomes of it; null where it goes. */
    @Nullable
    JsonNode merge(@Nullable JsonNode base, @Nullable JsonNode ours, @Nullable JsonNode theirs, String path) {
        if (Objects.equals(ours, theirs) || Objects.equals(base, theirs)) {
            return ours;
        }
        if (Objects.equals(base, ours)) {
            return theirs;
        }
        if (ours instanceof ObjectNode o && theirs instanceof ObjectNode t && (base == null
                || base instanceof ObjectNode) && sameKind(o, t)) {
            return members((ObjectNode) base, o, t, path);
        }
        if (ours instanceof ArrayNode o && theirs instanceof ArrayNode t && (base == null
                || base instanceof ArrayNode)) {
            Map<String, JsonNode> of = items(o);
            Map<String, JsonNode> and = items(t);
            Map<String, JsonNode> from = base == null ? Map.of() : items((ArrayNode) base);
            if (of != null && and != null && from != null) {
                return listed(from, of, and, path, o);
            }
        }
        clashes.add(new Clash(path, ours, theirs));
        return ours;
    }

    /** Whether two objects are of one kind, so that what one has fits into the other. */
    private static boolean sameKind(ObjectNode one, ObjectNode other) {
        for (String kind : List.of("step", "trigger", "control", "protocol")) {
            if (!Objects.equals(one.get(kind), other.get(kind))) {
                return false;
            }
        }
        return true;
    }

    private ObjectNode members(@Nullable ObjectNode base, ObjectNode ours, ObjectNode theirs, String path) {
        Set<String> names = new LinkedHashSet<>(ours.propertyNames());
        names.addAll(theirs.propertyNames());
        ObjectNode merged = ours.objectNode();
        for (String name : names) {
            JsonNode value = merge(base == null ? null : base.get(name), ours.get(name), theirs.get(name), path
                    .isEmpty() ? name : path + "/" + name);
            if (value != null) {
                merged.set(name, value);
            }
        }
        return merged;
    }

    /** The items of a list by their ids; null where they have none, or not each its own. */
    private static @Nullable Map<String, JsonNode> items(ArrayNode list) {
        Map<String, JsonNode> items = new LinkedHashMap<>();
        for (JsonNode item : list) {
            JsonNode id = item.get("id");
            if (id == null || !id.isString() || items.put(id.stringValue(), item) != null) {
                return null;
            }
        }
        return items;
    }

    private ArrayNode listed(Map<String, JsonNode> base, Map<String, JsonNode> ours, Map<String, JsonNode> theirs,
            String path, ArrayNode maker) {
        boolean oursMoved = moved(base, ours);
        List<String> first = List.copyOf((oursMoved ? ours : theirs).keySet());
        List<String> second = List.copyOf((oursMoved ? theirs : ours).keySet());
        if (oursMoved && moved(base, theirs) && !common(ours, theirs).equals(common(theirs, ours))) {
            clashes.add(new Clash(path + "/order", null, null));
        }
        List<String> order = new ArrayList<>(first);
        for (int i = 0; i < second.size(); i++) { // Each that is only there stands behind the one that it stood behind.
            if (!order.contains(second.get(i))) {
                order.add(i == 0 ? 0 : order.indexOf(second.get(i - 1)) + 1, second.get(i));
            }
        }
        ArrayNode merged = maker.arrayNode();
        for (String id : order) {
            JsonNode value = merge(base.get(id), ours.get(id), theirs.get(id), path + "/" + id);
            if (value != null) {
                merged.add(value);
            }
        }
        return merged;
    }

    private static boolean moved(Map<String, JsonNode> base, Map<String, JsonNode> side) {
        return !common(base, side).equals(common(side, base));
    }

    private static List<String> common(Map<String, JsonNode> of, Map<String, JsonNode> with) {
        return of.keySet().stream().filter(with::containsKey).toList();
    }
}
