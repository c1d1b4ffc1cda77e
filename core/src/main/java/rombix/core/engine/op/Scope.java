package rombix.core.engine.op;

import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rombix.core.value.Value;

/**
 * What names mean inside a chain: the arguments of a use, the count of a repeat, the turn of a dial; and whose values
 * come before the board's. Immutable.
 *
 * @param owner the id of the button that runs the chain; empty where there is none
 */
public record Scope(@Nullable Scope outer, String owner, Map<String, Value> values) {

    public static Scope of(String owner) {
        return new Scope(null, owner, Map.of());
    }

    public Scope with(String name, Value value) {
        return with(Map.of(name, value));
    }

    public Scope with(Map<String, Value> more) {
        return new Scope(this, owner, more);
    }

    /** All names that it gives a value. */
    public Map<String, Value> shown() {
        Map<String, Value> all = new LinkedHashMap<>();
        for (Scope s = this; s != null; s = s.outer) {
            s.values.forEach(all::putIfAbsent);
        }
        return Map.copyOf(all);
    }

    @Nullable
    Value find(String name) {
        for (Scope s = this; s != null; s = s.outer) {
            Value v = s.values.get(name);
            if (v != null) {
                return v;
            }
        }
        return null;
    }
}
