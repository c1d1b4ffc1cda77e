package rombix.core.twin;

import java.util.Locale;
import org.jspecify.annotations.Nullable;

/** Numbers as people read them. */
public final class Figures {
    private Figures() {
    }

    /** The number with at most one place after the point, a true minus sign, and its unit. */
    public static String withUnit(double number, @Nullable String unit) {
        double rounded = Math.rint(number * 10) / 10;
        String digits = rounded == Math.rint(rounded)
                ? String.format(Locale.ROOT, "%.0f", rounded == 0 ? 0.0 : rounded)
                : String.format(Locale.ROOT, "%.1f", rounded);
        String text = digits.replace('-', '\u2212');
        return unit == null || unit.isEmpty() ? text : text + "\u00a0" + unit;
    }

    /** Hours, minutes and seconds; minutes and seconds where it is less than an hour and need not be whole. */
    public static String clock(long seconds, boolean whole) {
        return whole || seconds >= 3600
                ? String.format(Locale.ROOT, "%02d:%02d:%02d", seconds / 3600, seconds / 60 % 60, seconds % 60)
                : String.format(Locale.ROOT, "%d:%02d", seconds / 60, seconds % 60);
    }

    /** Time left as a face shows it. */
    public static String left(double seconds) {
        return seconds < 60
                ? String.format(Locale.ROOT, "%.1f\u00a0s", Math.max(0, seconds))
                : clock(Math.round(seconds), false);
    }

    /** The number as finely as its step says, with its unit; with at most one place where there is no step. */
    public static String withUnit(double number, @Nullable String unit, @Nullable Double step) {
        if (step == null) {
            return withUnit(number, unit);
        }
        int places = Math.max(0, new java.math.BigDecimal(step.toString()).stripTrailingZeros().scale());
        double rounded = Math.rint(number / step) * step;
        String digits = String.format(Locale.ROOT, "%." + places + "f", rounded == 0 ? 0.0 : rounded);
        String text = (places == 0 ? digits : digits.replaceFirst("\\.?0+$", "")).replace('-', '\u2212');
        return unit == null || unit.isEmpty() ? text : text + "\u00a0" + unit;
    }

    /** So many of something: {@code 1 chain}, {@code 2 chains}. */
    public static String count(long n, String one) {
        return n + " " + one + (n == 1 ? "" : "s");
    }

    /** A span in words: {@code 0.7 s}, {@code 12 s}, {@code 2 min}, {@code 1:05 min}, {@code 20 h 10 min}. */
    public static String span(double millis) {
        if (millis < 60_000) {
            return withUnit(millis / 1000, "s");
        }
        long seconds = Math.round(millis / 1000);
        if (seconds >= 3600) {
            long minutes = Math.round(seconds / 60.0);
            return withUnit(minutes / 60, "h") + (minutes % 60 == 0 ? "" : " " + withUnit(minutes % 60, "min"));
        }
        return seconds % 60 == 0
                ? withUnit(seconds / 60.0, "min")
                : String.format(Locale.ROOT, "%d:%02d min", seconds / 60, seconds % 60);
    }

    /** The text with its first letter in upper case. */
    public static String capitalized(String text) {
        return text.isEmpty() ? text : text.substring(0, 1).toUpperCase(Locale.ROOT) + text.substring(1);
    }
}
