package rombix.core.chain;

import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonProperty;
import com.fasterxml.jackson.annotation.JsonUnwrapped;
import com.fasterxml.jackson.annotation.JsonValue;
import java.time.LocalTime;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.BiConsumer;
import org.jspecify.annotations.Nullable;
import rombix.core.value.Extra;
import rombix.core.value.TextPattern;
import rombix.core.value.Value;

/** Something that is so or not: about a reading, a value, the time of day, or a formula; or several of them. */
public sealed interface Condition {

    /** Something about a reading. */
    record OnReading(String gear, String reading, @JsonUnwrapped Comparison that,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Condition {
        public OnReading {
            Objects.requireNonNull(gear, "a condition needs a \"gear\"");
            Objects.requireNonNull(reading, "a condition needs a \"reading\"");
            extra = Extra.kept(extra);
        }

        public OnReading(String gear, String reading, Comparison that) {
            this(gear, reading, that, Map.of());
        }

        /** That a reading is a value. */
        public static OnReading is(String gear, String reading, Value value) {
            return new OnReading(gear, reading, Comparison.is(value));
        }

        /** Its name in formulas. */
        public String name() {
            return gear + ":" + reading;
        }
    }

    /** Something about a value of the board, or of the button that it belongs to. */
    record OnValue(String value, @JsonUnwrapped Comparison that,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Condition {
        public OnValue {
            Objects.requireNonNull(value, "a condition needs a \"value\"");
            extra = Extra.kept(extra);
        }

        public OnValue(String value, Comparison that) {
            this(value, that, Map.of());
        }
    }

    /**
     * That it is some time of the day, such as {@code 21:30}: from one on, until another. Where the second comes before
     * the first, midnight lies between them.
     */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    record Daytime(@Nullable String from, @Nullable String until,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Condition {
        public Daytime(@Nullable String from, @Nullable String until) {
            this(from, until, Map.of());
        }

        public Daytime {
            extra = Extra.kept(extra);
            if (from == null && until == null) {
                throw new IllegalArgumentException("a time of day needs a \"from\" or an \"until\"");
            }
            second(from == null ? String.valueOf(until) : from);
            second(until == null ? String.valueOf(from) : until);
        }

        /** A time of day in seconds since midnight. */
        public static int second(String time) {
            try {
                return LocalTime.parse(time.indexOf(':') == 1 ? "0" + time : time).toSecondOfDay();
            } catch (DateTimeParseException e) {
                throw new IllegalArgumentException("“" + time + "” is not a time of day such as 21:30", e);
            }
        }
    }

    /** A formula that gives yes or no. In JSON: its text. */
    record Computed(@JsonValue String formula) implements Condition {
    }

    /** That all of several are so. */
    record All(@JsonProperty("all") List<Condition> parts,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Condition {
        public All {
            parts = List.copyOf(parts);
            extra = Extra.kept(extra);
        }

        public All(List<Condition> parts) {
            this(parts, Map.of());
        }
    }

    /** That one of several is so, or more. */
    record Any(@JsonProperty("any") List<Condition> parts,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Condition {
        public Any {
            parts = List.copyOf(parts);
            extra = Extra.kept(extra);
        }

        public Any(List<Condition> parts) {
            this(parts, Map.of());
        }
    }

    /** That something is not so. */
    record Not(@JsonProperty("not") Condition part,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Condition {
        public Not {
            extra = Extra.kept(extra);
        }

        public Not(Condition part) {
            this(part, Map.of());
        }
    }

    /** Of a state, or a lamp: that none of the others' conditions is so. */
    record Otherwise(@JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Condition {
        public Otherwise {
            extra = Extra.kept(extra);
        }

        public Otherwise() {
            this(Map.of());
        }

        @JsonProperty("otherwise")
        public boolean otherwise() {
            return true;
        }
    }

    /** The conditions that it is made of; none where it isn't. */
    default List<Condition> within() {
        return switch (this) {
            case All a -> a.parts();
            case Any a -> a.parts();
            case Not n -> List.of(n.part());
            case OnReading _,OnValue _,Daytime _,Computed _,Otherwise _ -> List.of();
        };
    }

    /** Hands over each that isn't made of others, with the place where it stands, as a JSON pointer. */
    default void each(String at, BiConsumer<String, Condition> to) {
        switch (this) {
            case All a -> parts(a.parts(), at + "/all/", to);
            case Any a -> parts(a.parts(), at + "/any/", to);
            case Not n -> n.part().each(at + "/not", to);
            case OnReading _,OnValue _,Daytime _,Computed _,Otherwise _ -> to.accept(at, this);
        }
    }

    private static void parts(List<Condition> parts, String at, BiConsumer<String, Condition> to) {
        for (int i = 0; i < parts.size(); i++) {
            parts.get(i).each(at + i, to);
        }
    }

    /** What it asks of readings, in whatever part, formulas left out; nothing of null. */
    static List<OnReading> readings(@Nullable Condition of) {
        List<OnReading> all = new ArrayList<>();
        if (of != null) {
            of.each("", (_, c) -> {
                if (c instanceof OnReading r) {
                    all.add(r);
                }
            });
        }
        return all;
    }

    /** Readings and values for which it is so, by their names in formulas, as far as they can be made up. */
    default Map<String, Value> meeting() {
        Map<String, Value> all = new HashMap<>();
        switch (this) {
            case OnReading r -> put(all, r.name(), r.that().meeting());
            case OnValue v -> put(all, v.value(), v.that().meeting());
            case All a -> a.parts().forEach(p -> p.meeting().forEach(all::putIfAbsent));
            case Any a -> a.parts().stream().findFirst().ifPresent(p -> all.putAll(p.meeting()));
            case Not n -> n.part().failing(all);
            case Daytime _,Computed _,Otherwise _ -> {
                // None can be made up.
            }
        }
        return all;
    }

    /** What makes it not so, for yes and no. */
    default void failing(Map<String, Value> all) {
        if (this instanceof OnReading(String _, String _, Comparison that, var _) && that.above() == null
                && that.below() == null && (that.is() == null || that.is() instanceof Value.Flag)) {
            Value is = that.is();
            all.putIfAbsent(((OnReading) this).name(), Value.of(is != null && !is.asFlag()));
        }
    }

    private static void put(Map<String, Value> all, String name, @Nullable Value value) {
        if (value != null) {
            all.put(name, value);
        }
    }

    @JsonCreator(mode = JsonCreator.Mode.DELEGATING)
    static Condition fromJson(Object json) {
        if (json instanceof String formula) {
            return new Computed(formula);
        }
        if (!(json instanceof Map<?, ?> m)) {
            throw new IllegalArgumentException(
                    "expected a formula in quotes, or an object with gear and reading, value, from, until, all, any or not");
        }
        Map<String, Object> left = new LinkedHashMap<>();
        m.forEach((k, v) -> left.put(String.valueOf(k), v));
        if (left.remove("all") instanceof List<?> parts) {
            return new All(parts.stream().map(Condition::fromJson).toList(), left);
        }
        if (left.remove("any") instanceof List<?> parts) {
            return new Any(parts.stream().map(Condition::fromJson).toList(), left);
        }
        Object not = left.remove("not");
        if (not != null) {
            return new Not(fromJson(not), left);
        }
        if (Boolean.TRUE.equals(left.remove("otherwise"))) {
            return new Otherwise(left);
        }
        if (left.containsKey("from") || left.containsKey("until")) {
            Object from = left.remove("from");
            Object until = left.remove("until");
            return new Daytime(from == null ? null : text(from, "from"), until == null ? null : text(until, "until"),
                    left);
        }
        Comparison that = comparison(left);
        return left.containsKey("value")
                ? new OnValue(text(left.remove("value"), "value"), that, left)
                : new OnReading(text(left.remove("gear"), "gear"), text(left.remove("reading"), "reading"), that, left);
    }

    private static Comparison comparison(Map<String, Object> left) {
        Object is = left.remove("is");
        Object contains = left.remove("contains");
        Object pattern = left.remove("pattern");
        return new Comparison(is == null ? null : Value.fromJson(is), number(left.remove("above")), number(left.remove(
                "below")), contains == null ? null : text(contains, "contains"),
                pattern == null ? null : new TextPattern(text(pattern, "pattern")));
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
