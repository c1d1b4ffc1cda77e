package rombix.core.chain;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rombix.core.value.Value;

/** Something that is so or not: a {@link Condition} on a reading, or a formula. */
public sealed interface Test permits Condition, Test.Computed {

    /** A formula that gives yes or no. In JSON: its text. */
    record Computed(@JsonValue String formula) implements Test {
    }

    @JsonCreator(mode = JsonCreator.Mode.DELEGATING)
    static Test fromJson(Object json) {
        if (json instanceof String formula) {
            return new Computed(formula);
        }
        if (!(json instanceof Map<?, ?> m)) {
            throw new IllegalArgumentException("expected a formula in quotes, or an object with gear and reading");
        }
        Map<String, Object> extra = new LinkedHashMap<>();
        m.forEach((k, v) -> extra.put(String.valueOf(k), v));
        Object is = extra.remove("is");
        return new Condition(text(extra.remove("gear"), "gear"), text(extra.remove("reading"), "reading"),
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
