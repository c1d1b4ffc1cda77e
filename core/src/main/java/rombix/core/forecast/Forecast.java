package rombix.core.forecast;

import java.util.List;
import org.jspecify.annotations.Nullable;
import rombix.core.value.Value;

/**
 * What a chain will do, as far as that can be known: it was run so many times on twins, in simulated time.
 *
 * @param runs how many times it was run; once where there is no chance in it
 * @param length from the press to the last thing that it does
 * @param steps in the order of their first start
 * @param changes readings that end up otherwise than they are
 * @param odds where one of several is picked, or a branch taken
 * @param endless whether it goes on until it is stopped; then times are those of the first day, or of its first
 *            {@value Forecaster#MAX_STEPS} steps
 */
public record Forecast(int runs, Span length, List<StepTime> steps, List<Change> changes, List<Odds> odds,
        List<Clash> clashes, List<Off> off, List<Fault> faults, boolean endless) {

    /** The least, the mean and the most of all runs, in milliseconds. */
    public record Span(double least, double expected, double most) {
    }

    /**
     * When a step runs.
     *
     * @param step its place in the chain
     * @param share in how many of the runs it ran, from 0 to 1
     * @param times how often it ran in a run where it did, on average
     * @param start when it first starts, and {@code end} when it last ends
     */
    public record StepTime(String step, double share, double times, Span start, Span end) {
    }

    /** What a reading is before, null where that is not known; and what it may be after. */
    public record Change(String gear, String reading, @Nullable Value before, List<Outcome> after) {
    }

    /** A value, and in how many of the runs it came to that. */
    public record Outcome(Value value, double share) {
    }

    /** How often a choice of a step was taken, out of all times that the step ran. */
    public record Odds(String step, int choice, String name, double share) {
    }

    /** Two steps that set one reading at the same moment. */
    public record Clash(String gear, String reading, String first, String second, double atMillis) {
    }

    /** A step whose gear cannot be reached now, and why. */
    public record Off(String step, String gear, String why) {
    }

    /** A step that fails, and in how many of the runs. */
    public record Fault(String step, String why, double share) {
    }
}
