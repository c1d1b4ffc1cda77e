package rombix.core.event;

import java.util.Map;
import rombix.core.value.Value;

/**
 * One step as it was run.
 *
 * @param dueNanos when it was to be, on the engine's clock; {@code atNanos} when it was sent
 * @param run the chain's number; 0 for what was told by hand
 * @param button the button's id; empty for what was told by hand
 * @param step where the step stands in its chain: {@code press/3} or {@code press/2/0/1}; empty for what no chain did
 * @param who whose hand did it: {@value #RACK}, or what moved a button's level; empty for what a chain did
 * @param gear the gear's id, and {@code command} what it was told; both empty for a step that commands none
 * @param title the command in words
 * @param message why it failed; empty when it did not
 */
public record AsRun(long dueNanos, long atNanos, long run, String button, String step, String who, String gear,
        String command,
        Map<String, Value> args, String title, Outcome outcome, String message) {
    /** A hand at the rack. */
    public static final String RACK = "hand";

    /** What became of it. */
    public enum Outcome {
        SENT, FAULT
    }

    /** How much later than due, in microseconds. */
    public long lateMicros() {
        return (atNanos - dueNanos) / 1000;
    }
}
