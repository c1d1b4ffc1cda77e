package rombix.core.listen;

import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Arrival;
import rombix.core.card.value.As;
import rombix.core.card.value.ColourPart;
import rombix.core.card.value.JsonTree;
import rombix.core.card.value.Mapped;
import rombix.core.value.Template;
import rombix.core.value.Value;
import tools.jackson.databind.JsonNode;

/**
 * A colour as gear tells it in JSON: the names of its parts, and how far each goes there. Immutable.
 *
 * @param members the name of each part's member
 * @param most the number at the end of each part's range
 */
record ColourFormat(Map<ColourPart, String> members, Map<ColourPart, Double> most) {
    private static final List<Map<ColourPart, List<String>>> WAYS = List.of(Map.of(ColourPart.RED, List.of("r", "red"),
            ColourPart.GREEN, List.of("g", "green"), ColourPart.BLUE, List.of("b", "blue")),
            Map.of(ColourPart.HUE, List
                    .of("h", "hue"), ColourPart.SATURATION, List.of("s", "sat", "saturation")),
            Map.of(ColourPart.X, List
                    .of("x"), ColourPart.Y, List.of("y")));

    /** The colour that an object is; null where it is none. */
    static @Nullable ColourFormat in(@Nullable JsonNode object) {
        if (object == null || !object.isObject()) {
            return null;
        }
        for (Map<ColourPart, List<String>> way : WAYS) {
            Map<ColourPart, String> members = new EnumMap<>(ColourPart.class);
            way.forEach((part, names) -> names.stream().filter(n -> object.path(n).isNumber()).findFirst().ifPresent(
                    n -> members.put(part, n)));
            if (members.size() == way.size()) {
                Map<ColourPart, Double> most = new EnumMap<>(ColourPart.class);
                members.forEach((part, name) -> most.put(part, most(part, object.path(name).doubleValue())));
                return new ColourFormat(members, alike(most));
            }
        }
        return null;
    }

    /** The colour that was heard, the last at the end; null where it was none in parts. */
    static @Nullable ColourFormat of(List<Value> seen) {
        ColourFormat last = in(JsonTree.read(seen.getLast().toString()));
        if (last == null) {
            return null;
        }
        Map<ColourPart, Double> most = new EnumMap<>(last.most());
        seen.stream().map(v -> in(JsonTree.read(v.toString()))).filter(c -> c != null).forEach(c -> c.most()
                .forEach((part, n) -> most.merge(part, n, Math::max)));
        return new ColourFormat(last.members(), alike(most));
    }

    /** Red, green and blue go as far as each other, and so do x and y, though one of them was never bright. */
    private static Map<ColourPart, Double> alike(Map<ColourPart, Double> most) {
        if (most.containsKey(ColourPart.HUE)) {
            return most;
        }
        double all = most.values().stream().mapToDouble(Double::doubleValue).max().orElse(1);
        most.replaceAll((_, _) -> all);
        return most;
    }

    /** How far a part goes that was heard to be so: as is usual for it. */
    private static double most(ColourPart part, double heard) {
        double[] usual = switch (part) {
            case HUE -> new double[]{1, 360, 65_535};
            case SATURATION -> new double[]{1, 100, 254, 255};
            case X, Y -> new double[]{1, 65_535};
            default -> new double[]{1, 255, 65_535};
        };
        for (double end : usual) {
            if (heard <= end) {
                return end;
            }
        }
        return usual[usual.length - 1];
    }

    private static double whole(ColourPart part) {
        return switch (part) {
            case HUE -> 360;
            case SATURATION, BRIGHTNESS -> 100;
            case X, Y -> 1;
            default -> 255;
        };
    }

    /** How a card reads it; {@code at} is where its object stands. */
    Map<ColourPart, Arrival> parts(String at) {
        Map<ColourPart, Arrival> parts = new EnumMap<>(ColourPart.class);
        members.forEach((part, name) -> {
            double end = most.getOrDefault(part, whole(part));
            parts.put(part, new Arrival(null, 0, Map.of(), new Template(at + "/" + name), null, null, null, null, null,
                    null, end == whole(part)
                            ? null
                            : new Mapped(null, null, List.of(0.0, whole(part)), List.of(0.0, end), null, null, null,
                                    null,
                                    null)));
        });
        return parts;
    }

    /** What goes out for it: each part by its place's name, made from the parameter {@code to}. */
    Map<String, Mapped> carries() {
        Map<String, Mapped> all = new LinkedHashMap<>();
        members.forEach((part, name) -> {
            double end = most.getOrDefault(part, whole(part));
            boolean same = end == whole(part);
            all.put(name,
                    new Mapped("to", null, same ? null : List.of(0.0, whole(part)), same ? null : List.of(0.0, end),
                            null, null, null, null, as(part)));
        });
        return all;
    }

    private static As as(ColourPart part) {
        return Stream.of(As.values()).filter(a -> a.word().equals(part.word())).findFirst().orElse(As.PLAIN);
    }

    /** In words: {@code red 0–255, green 0–255, blue 0–255}. */
    String words() {
        return String.join(", ",
                members.keySet().stream().map(p -> p.word() + " 0–" + Value.of(most.getOrDefault(p, 0.0)))
                        .toList());
    }
}
