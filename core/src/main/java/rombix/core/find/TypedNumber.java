package rombix.core.find;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** A number among typed words, with its unit where one was typed. */
record TypedNumber(double value, String unit) {
    private static final Set<String> UNITS = Set.of("ms", "s", "sec", "seconds", "second", "min", "minute", "minutes",
            "h", "%", "k", "db", "°", "°c", "times", "x", "×", "px", "bpm", "hz");
    private static final String COLOUR = "colour";
    private static final Map<String, Integer> COLOURS = Map.ofEntries(Map.entry("red", 0xFF0000), Map.entry("green",
            0x00FF00), Map.entry("blue", 0x0000FF), Map.entry("white", 0xFFFFFF), Map.entry("amber", 0xFFBF00),
            Map.entry(
                    "yellow", 0xFFFF00),
            Map.entry("orange", 0xFF8000), Map.entry("pink", 0xFF80C0), Map.entry("purple",
                    0x8000FF),
            Map.entry("magenta", 0xFF00FF), Map.entry("cyan", 0x00FFFF));
    private static final Pattern HEX = Pattern.compile("#[0-9a-f]{6}");

    /** A colour by its name or code; null for any other word. */
    static @Nullable TypedNumber colour(String word) {
        Integer rgb = HEX.matcher(word).matches() ? Integer.valueOf(word.substring(1), 16) : COLOURS.get(word);
        return rgb == null ? null : new TypedNumber(rgb, COLOUR);
    }

    boolean isColour() {
        return unit.equals(COLOUR);
    }

    /** Takes the first colour among some figures, as its code; null where there is none. */
    static @Nullable String takeColour(List<TypedNumber> figures) {
        TypedNumber colour = figures.stream().filter(TypedNumber::isColour).findFirst().orElse(null);
        figures.remove(colour);
        return colour == null ? null : String.format(Locale.ROOT, "#%06X", (int) colour.value());
    }

    static boolean isUnit(String word) {
        return UNITS.contains(word);
    }

    boolean isTime() {
        return Set.of("ms", "s", "sec", "seconds", "second", "min", "minute", "minutes", "h").contains(unit);
    }

    /** As a time, in milliseconds; without a unit it is seconds. */
    long millis() {
        double factor = unit.equals("ms") ? 1 : unit.startsWith("m") ? 60_000 : unit.equals("h") ? 3_600_000 : 1000;
        return Math.max(0, Math.round(value * factor));
    }

    /** Takes the first of some figures that can be of a unit: one that has it, else one without any. */
    static @Nullable TypedNumber take(List<TypedNumber> figures, @Nullable String unit) {
        for (TypedNumber f : figures) {
            if (unit != null && !f.unit().isEmpty() && unit.toLowerCase(Locale.ROOT).startsWith(f.unit())) {
                figures.remove(f);
                return f;
            }
        }
        for (TypedNumber f : figures) {
            if (f.unit().isEmpty() || f.unit().equals("times") || f.unit().equals("x")) {
                figures.remove(f);
                return f;
            }
        }
        return null;
    }

    /** Takes the first time among some figures, in milliseconds; {@code otherwise} where there is none. */
    static long takeMillis(List<TypedNumber> figures, boolean plain, long otherwise) {
        for (TypedNumber f : figures) {
            if (f.isTime() || plain && f.unit().isEmpty()) {
                figures.remove(f);
                return f.millis();
            }
        }
        return otherwise;
    }
}
