package rombix.core.chain;

import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rombix.core.value.Extra;
import rombix.core.value.Value;

/** Something that is so or not: about a reading, or a formula. */
public sealed interface Condition {

    /**
     * Something about a reading that is so or not: that it {@code is} a value, is {@code above} or is {@code below} a
     * number. Where nothing is given, that it is yes. Where several are given, all of them.
     */
    @JsonInclude(JsonInclude.Include.NON_EMPTY)
    record OnReading(String gear, String reading, @Nullable Value is, @Nullable Double above, @Nullable Double below,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Condition {
        public OnReading {
            Objects.requireNonNull(gear, "a condition needs a \"gear\"");
            Objects.requireNonNull(reading, "a condition needs a \"reading\"");
            extra = Extra.kept(extra);
        }

        /** That a reading is a value. */
        public static OnReading is(String gear, String reading, Value value) {
            return new OnReading(gear, reading, value, null, null, Map.of());
        }

        /** Whether it holds for the reading's present value; a value that never came makes nothing true. */
        public boolean holds(@Nullable Value now) {
            if (now == null) {
                return false;
            }
            if (is == null && above == null && below == null) {
                return now.asFlag();
            }
            return (is == null || is.matches(now)) && (above == null || now.asNumber() > above)
                    && (below == null || now.asNumber() < below);
        }
    }

    /** A formula that gives yes or no. In JSON: its text. */
    record Computed(@JsonValue String formula) implements Condition {
    }

    @JsonCreator(mode = JsonCreator.Mode.DELEGATING)
    static Condition fromJson(Object json) {
        if (json instanceof String formula) {
            return new Computed(formula);
        }
        if (!(json instanceof Map<?, ?> m)) {
            throw new IllegalArgumentException("expected a formula in quotes, or an object with gear and reading");
        }
        Map<String, Object> extra = new LinkedHashMap<>();
        m.forEach((k, v) -> extra.put(String.valueOf(k), v));
        Object is = extra.remove("is");
        return new Condition.OnReading(text(extra.remove("gear"), "gear"), text(extra.remove("reading"), "reading"),
                is == null ? null : Value.fromJson(is), number(extra.remove("above")), number(extra.remove("below")),
                extra);
    }

    private static String text(@Nullable Object o, String field) {
        if (o instanceof String s) {
            return s;
        }
        throw new IllegalArgumentException("a condition needs a \"" + field + "\"");
    }

    private static @Nullable Double number(@Nullable Object o) {
        return o instanceof Number n ? (Double) n.doubleValue() : null;
    }
}
