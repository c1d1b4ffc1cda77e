package rombix.bench.measure;

import java.util.List;

/**
 * A measured figure beside its baseline.
 *
 * @param ratio Rombix over the baseline
 * @param reach what the ratio is to reach at most; 0 where it is only told
 */
public record Figure(String figure, double rombix, double baseline, double ratio, String unit, double reach) {
    public static Figure of(String figure, double rombix, double baseline, String unit, double reach) {
        return new Figure(figure, rombix, baseline, rombix / baseline, unit, reach);
    }

    /** The value below which a share of all lie. */
    public static double percentile(List<Long> of, double share) {
        return of.stream().sorted().toList().get((int) (share * (of.size() - 1)));
    }

    public String verdict() {
        return reach == 0 ? "" : ratio <= reach ? "reached" : "missed";
    }
}
