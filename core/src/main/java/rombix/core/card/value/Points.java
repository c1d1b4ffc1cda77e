package rombix.core.card.value;

import java.util.Comparator;
import java.util.List;

/** A curve by points: pairs of a value and its wire value, evenly between them. Both rise, or one falls as the other rises. */
final class Points {
    private Points() {
    }

    /** In the order of their values; throws in plain words where they are no curve that can be read both ways. */
    static List<List<Double>> checked(List<List<Double>> points) {
        if (points.size() < 2 || points.stream().anyMatch(p -> p.size() != 2)) {
            throw new IllegalArgumentException(
                    "\"points\" are two or more pairs of a value and its raw value, such as [[-90, 0], [0, 768], [10, 1023]]");
        }
        List<List<Double>> sorted = points.stream().map(List::copyOf).sorted(Comparator.comparing(List::getFirst))
                .toList();
        double way = Math.signum(sorted.getLast().get(1) - sorted.getFirst().get(1));
        for (int i = 1; i < sorted.size(); i++) {
            List<Double> before = sorted.get(i - 1);
            List<Double> here = sorted.get(i);
            if (here.get(0).equals(before.get(0)) || Math.signum(here.get(1) - before.get(1)) != way || way == 0) {
                throw new IllegalArgumentException(
                        "\"points\" must rise or fall throughout: %s follows %s, so one raw value would stand for two values"
                                .formatted(
                                        here,
                                        before));
            }
        }
        return sorted;
    }

    /** @param out from a value to its wire value, else back */
    static double at(List<List<Double>> points, double x, boolean out) {
        int of = out ? 0 : 1;
        boolean falls = points.getFirst().get(of) > points.getLast().get(of);
        List<List<Double>> rising = falls ? points.reversed() : points;
        if (!(x > rising.getFirst().get(of))) {
            return rising.getFirst().get(1 - of);
        }
        for (int i = 1; i < rising.size(); i++) {
            List<Double> low = rising.get(i - 1);
            List<Double> high = rising.get(i);
            if (x <= high.get(of)) {
                double part = (x - low.get(of)) / (high.get(of) - low.get(of));
                return low.get(1 - of) + part * (high.get(1 - of) - low.get(1 - of));
            }
        }
        return rising.getLast().get(1 - of);
    }

    /** How far apart two values are at most that are a step apart on the wire; 0 where it carries fractions. */
    static double grain(List<List<Double>> points, double step) {
        if (Math.abs(points.getLast().get(1) - points.getFirst().get(1)) <= 2) {
            return 0;
        }
        double most = 0;
        for (int i = 1; i < points.size(); i++) {
            most = Math.max(most, (points.get(i).get(0) - points.get(i - 1).get(0)) / Math.abs(points.get(i).get(1)
                    - points.get(i - 1).get(1)));
        }
        return most * step;
    }
}
