package rombix.core.engine;

import java.util.HashMap;
import java.util.Map;
import rombix.core.value.Value;

/**
 * What is known at a moment: each gear's readings and whether it can be reached, and the board's values. Gear whose
 * status is not known is taken for reachable. Immutable; a forecast starts from it.
 */
public record Known(Map<String, Map<String, Value>> readings, Map<String, Status> statuses,
        Map<String, Value> values) {
    /** Nothing. */
    public static final Known NOTHING = new Known(Map.of(), Map.of(), Map.of());

    public Known {
        Map<String, Map<String, Value>> copy = new HashMap<>();
        readings.forEach((gear, of) -> copy.put(gear, Map.copyOf(of)));
        readings = Map.copyOf(copy);
        statuses = Map.copyOf(statuses);
        values = Map.copyOf(values);
    }
}
