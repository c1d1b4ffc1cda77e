package rombix.core.twin;

import java.util.Optional;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Card;
import rombix.core.value.Value;

/**
 * How far along its way a level is, from 0 to 1, and back. Decibels go by the deflection of level meters, which gives
 * room to what can be heard (IEC 60268-18, annex on scales); everything else is even.
 */
public record Scale(double min, double max, @Nullable String unit, @Nullable Double step) {
    /** Detents from one end of the way to the other. */
    public static final int DETENTS = 40;
    private static final int FINEST = 1000;
    /** Decibels below the top, and how far up they stand, in hundredths. */
    private static final double[][] KNOTS = {{-70, 0}, {-60, 2.5}, {-50, 7.5}, {-40, 15}, {-30, 30}, {-20, 50}, {0,
            100}};

    /** A scale whose levels are set no finer than a thousandth of the range. */
    public Scale(double min, double max, @Nullable String unit) {
        this(min, max, unit, null);
    }

    public Scale {
        if (!(max > min)) {
            throw new IllegalArgumentException("a scale goes up");
        }
    }

    /** The scale of a reading that its card can move; empty where it cannot, or where it has no ends. */
    public static Optional<Scale> of(Twin twin, String reading) {
        return twin.toReach(reading, Value.of(0)).flatMap(call -> {
            String moving = call.moving();
            Card.Param param = moving == null ? null : call.command().param(moving).orElse(null);
            return param == null || param.min() == null || param.max() == null || param.max() <= param.min()
                    ? Optional.empty()
                    : Optional.of(new Scale(param.min(), param.max(), param.unit(), param.step()));
        });
    }

    /** The level at a place of the way; places beyond the ends count as the ends. */
    public double value(double position) {
        double p = Math.clamp(position, 0, 1);
        if (p == 0 || p == 1 || !decibels()) {
            return min + p * (max - min);
        }
        double floor = deflection(min - max);
        return Math.clamp(max + through(floor + p * (100 - floor), 1, 0), min, max);
    }

    /** The level at a place of the way as a person would set it: in the gear's steps, else in thousandths of the range. */
    public double setting(double position) {
        if (step != null) {
            double value = value(position);
            return value == max ? value : Math.clamp(Math.rint(value / step) * step, min, max);
        }
        double steps = Math.pow(10, Math.ceil(Math.log10(FINEST / (max - min))));
        return Math.rint(value(position) * steps) / steps;
    }

    /** How far a detent moves a level, where nothing else is said. */
    public double detent() {
        double even = (max - min) / DETENTS;
        return step == null ? even : Math.max(step, Math.rint(even / step) * step);
    }

    /** The place of a level on its way, from 0 to 1. */
    public double position(double value) {
        double v = Math.clamp(value, min, max);
        if (!decibels()) {
            return (v - min) / (max - min);
        }
        double floor = deflection(min - max);
        return (deflection(v - max) - floor) / (100 - floor);
    }

    /** A level in words. */
    public String spoken(double value) {
        return Figures.withUnit(value, unit, step);
    }

    private boolean decibels() {
        return unit != null && unit.startsWith("dB") && max - min > 20;
    }

    private static double deflection(double below) {
        // What is too faint for the scale still has a little way of its own, so that each level has one place.
        return below < KNOTS[0][0] ? (below - KNOTS[0][0]) / 100 : through(below, 0, 1);
    }

    private static double through(double x, int from, int to) {
        if (x < KNOTS[0][from]) {
            return to == 0 ? KNOTS[0][0] + x * 100 : x;
        }
        for (int i = 1; i < KNOTS.length; i++) {
            if (x <= KNOTS[i][from]) {
                double part = (x - KNOTS[i - 1][from]) / (KNOTS[i][from] - KNOTS[i - 1][from]);
                return KNOTS[i - 1][to] + part * (KNOTS[i][to] - KNOTS[i - 1][to]);
            }
        }
        return KNOTS[KNOTS.length - 1][to];
    }
}
