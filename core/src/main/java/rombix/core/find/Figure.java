package rombix.core.find;

import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** A number among typed words, with its unit where one was typed. */
record Figure(double value, String unit) {
    private static final Set<String> UNITS = Set.of("ms", "s", "sec", "seconds", "second", "min", "minute", "minutes",
            "h", "%", "k", "db", "°", "°c", "times", "x");

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
    static @Nullable Figure take(List<Figure> figures, @Nullable String unit) {
        for (Figure f : figures) {
            if (unit != null && !f.unit().isEmpty() && unit.toLowerCase(Locale.ROOT).startsWith(f.unit())) {
                figures.remove(f);
                return f;
            }
        }
        for (Figure f : figures) {
            if (f.unit().isEmpty() || f.unit().equals("times") || f.unit().equals("x")) {
                figures.remove(f);
                return f;
            }
        }
        return null;
    }

    /** Takes the first time among some figures, in milliseconds; {@code otherwise} where there is none. */
    static long takeMillis(List<Figure> figures, boolean plain, long otherwise) {
        for (Figure f : figures) {
            if (f.isTime() || plain && f.unit().isEmpty()) {
                figures.remove(f);
                return f.millis();
            }
        }
        return otherwise;
    }
}
