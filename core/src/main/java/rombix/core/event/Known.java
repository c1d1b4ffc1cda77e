package rombix.core.event;

import java.util.HashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rombix.core.value.Value;

/**
 * What is known at a moment: each gear's readings and whether it can be reached, the board's values, and the states of its
 * buttons. Gear whose status is not known is taken for reachable. Immutable; a forecast starts from it.
 */
public record Known(Map<String, Map<String, Value>> readings, Map<String, Status> statuses,
        Map<String, Value> values, Map<String, Integer> states) {
    /** Nothing. */
    public static final Known NOTHING = new Known(Map.of(), Map.of(), Map.of());

    /** What is known where no button has left its first state. */
    public Known(Map<String, Map<String, Value>> readings, Map<String, Status> statuses, Map<String, Value> values) {
        this(readings, statuses, values, Map.of());
    }

    public Known {
        Map<String, Map<String, Value>> copy = new HashMap<>();
        readings.forEach((gear, of) -> copy.put(gear, Map.copyOf(of)));
        readings = Map.copyOf(copy);
        statuses = Map.copyOf(statuses);
        values = Map.copyOf(values);
        states = Map.copyOf(states);
    }

    /** What a name in a formula stands for: a reading, {@code gear:reading}, or a value of the board. */
    public @Nullable Value named(String name) {
        int colon = name.indexOf(':');
        return colon < 0
                ? values.get(name)
                : readings.getOrDefault(name.substring(0, colon), Map.of()).get(name.substring(colon + 1));
    }
}
