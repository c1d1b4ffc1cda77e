package rombix.core.chain;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rombix.core.value.Value;

/** An argument: a constant, or a formula that is computed when the step runs. */
public sealed interface Arg {

    /** In JSON: the plain scalar. */
    record Constant(@JsonValue Value value) implements Arg {
    }

    /** In JSON: {@code {"formula": "…"}}. */
    record Computed(String formula) implements Arg {
    }

    /** All of a step's arguments, with others of it that may be absent. */
    static List<Arg> all(Map<String, Arg> args, @Nullable Arg... others) {
        List<Arg> all = new ArrayList<>(args.values());
        for (Arg other : others) {
            if (other != null) {
                all.add(other);
            }
        }
        return all;
    }

    /** Arguments as they were given, in their order; none where there are none. */
    static Map<String, Arg> ordered(@Nullable Map<String, Arg> with) {
        if (with == null) {
            return Map.of();
        }
        Map<String, Arg> all = new LinkedHashMap<>(with);
        all.values().removeIf(Objects::isNull);
        return Collections.unmodifiableMap(all);
    }

    static Arg of(Value value) {
        return new Constant(value);
    }

    static Arg of(double number) {
        return new Constant(Value.of(number));
    }

    static Arg of(String text) {
        return new Constant(Value.of(text));
    }

    /** The constant, or a text that shows the formula. */
    default Value shown() {
        return switch (this) {
            case Constant c -> c.value();
            case Computed c -> Value.of("= " + c.formula());
        };
    }

    @JsonCreator(mode = JsonCreator.Mode.DELEGATING)
    static Arg fromJson(Object json) {
        if (json instanceof Map<?, ?> m) {
            if (m.size() == 1 && m.get("formula") instanceof String formula) {
                return new Computed(formula);
            }
            throw new IllegalArgumentException("expected a number, a text, true or false, or {\"formula\": \"…\"}");
        }
        return new Constant(Value.fromJson(json));
    }
}
