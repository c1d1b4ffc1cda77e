package rombix.core.card;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonProperty;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import rombix.core.value.Template;
import rombix.core.value.Value;

/** How a value travels in a packet. The same description serves both ways: out as an argument, in as a reading. */
public sealed interface WireValue {

    /** What goes on the wire, given what fills the places; null when something is missing. */
    @Nullable
    Value out(Function<String, @Nullable Value> values);

    /** What a value from the wire means; empty when it is not what the card says. */
    Optional<Value> in(Value wire);

    /** Always the same value. */
    record Fixed(@JsonValue Value value) implements WireValue {
        @Override
        public Value out(Function<String, @Nullable Value> values) {
            return value;
        }

        @Override
        public Optional<Value> in(Value wire) {
            return value.matches(wire) ? Optional.of(wire) : Optional.empty();
        }
    }

    /** A text with places; a sole place carries its value as it is. */
    record Filled(@JsonValue Template template) implements WireValue {
        @Override
        public @Nullable Value out(Function<String, @Nullable Value> values) {
            Optional<String> sole = template.solePlace();
            return sole.isPresent() ? values.apply(sole.get()) : Value.of(template.fill(values));
        }

        @Override
        public Optional<Value> in(Value wire) {
            return Optional.of(wire);
        }
    }

    /** How a number is written on the wire where its own form does not tell. */
    enum As {
        /** A whole number. */
        @JsonProperty("int")
        INT,
        /** A number with a fraction (the default). */
        @JsonProperty("float")
        FLOAT,
        /** A text. */
        @JsonProperty("text")
        TEXT,
        /** {@code #RRGGBB} as three whole numbers. */
        @JsonProperty("rgb")
        RGB
    }

    /**
     * A value of the card mapped onto the wire: a range onto a range, or yes and no onto two wire values.
     *
     * @param of the place that the value comes from; a reading's own value when absent
     * @param from the value's range, two numbers
     * @param to the wire's range, two numbers
     * @param yes the wire value for yes
     * @param no the wire value for no
     */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    record Mapped(@Nullable String of, @Nullable List<Double> from, @Nullable List<Double> to, @Nullable Value yes,
            @Nullable Value no, @Nullable As as) implements WireValue {
        public Mapped {
            if ((from == null) != (to == null)) {
                throw new IllegalArgumentException("\"from\" and \"to\" go together, two numbers each");
            }
            if (from != null && to != null && (from.size() != 2 || to.size() != 2 || from.get(0).equals(from.get(1))
                    || to.get(0).equals(to.get(1)))) {
                throw new IllegalArgumentException("\"from\" and \"to\" take two different numbers each");
            }
        }

        @Override
        public @Nullable Value out(Function<String, @Nullable Value> values) {
            Value v = values.apply(of == null ? "value" : of);
            if (v == null) {
                return null;
            }
            if (yes != null && no != null) {
                return v.asFlag() ? yes : no;
            }
            if (from != null && to != null) {
                v = Value.of(scale(v.asNumber(), from, to));
            }
            if (as == As.INT) {
                v = Value.of(Math.rint(v.asNumber()));
            } else if (as == As.TEXT) {
                v = Value.of(v.toString());
            }
            return v;
        }

        @Override
        public Optional<Value> in(Value wire) {
            if (yes != null && no != null) {
                if (same(yes, wire)) {
                    return Optional.of(Value.of(true));
                }
                return same(no, wire) ? Optional.of(Value.of(false)) : between(wire.asNumber());
            }
            if (from != null && to != null) {
                double n = wire.asNumber();
                return Double.isNaN(n) ? Optional.empty() : Optional.of(Value.of(scale(n, to, from)));
            }
            return Optional.of(wire);
        }

        /** A number between those for yes and for no means the nearer one: not all that is pushed sends the same. */
        private Optional<Value> between(double wire) {
            double on = yes == null ? Double.NaN : yes.asNumber();
            double off = no == null ? Double.NaN : no.asNumber();
            return wire > Math.min(on, off) && wire < Math.max(on, off)
                    ? Optional.of(Value.of(Math.abs(wire - on) <= Math.abs(wire - off)))
                    : Optional.empty();
        }

        private static boolean same(Value said, Value wire) {
            double a = said.asNumber();
            double b = wire.asNumber();
            return said.matches(wire) || !Double.isNaN(a) && a == b;
        }

        private static double scale(double x, List<Double> from, List<Double> to) {
            double y = to.get(0) + (x - from.get(0)) / (from.get(1) - from.get(0)) * (to.get(1) - to.get(0));
            double low = Math.min(to.get(0), to.get(1));
            double high = Math.max(to.get(0), to.get(1));
            return Math.clamp(y, low, high);
        }
    }

    /** Reads the short forms: a scalar, or a text with places. Objects are read as {@link Mapped}. */
    @JsonCreator(mode = JsonCreator.Mode.DELEGATING)
    static WireValue fromJson(tools.jackson.databind.JsonNode node) {
        if (node.isString()) {
            Template template = new Template(node.stringValue());
            return template.places().isEmpty() ? new Fixed(Value.of(node.stringValue())) : new Filled(template);
        }
        if (node.isNumber()) {
            return new Fixed(Value.of(node.doubleValue()));
        }
        if (node.isBoolean()) {
            return new Fixed(Value.of(node.booleanValue()));
        }
        if (!node.isObject()) {
            throw new IllegalArgumentException("expected a number, a text, true or false, or an object");
        }
        return WireValueJson.read(node);
    }
}
