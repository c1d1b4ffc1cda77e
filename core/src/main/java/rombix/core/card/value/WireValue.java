package rombix.core.card.value;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rombix.core.value.Template;
import rombix.core.value.Value;

/** How a value travels in a packet. The same description serves both ways: out as an argument, in as a reading. */
public sealed interface WireValue permits WireValue.Fixed, WireValue.Filled, WireValue.Group, Mapped, Computed {

    /** What goes on the wire, given what fills the places; null when something is missing. */
    @Nullable
    Value out(Function<String, @Nullable Value> values);

    /** What a value from the wire means; empty when it is not what the card says. */
    Optional<Value> in(Value wire);

    /** The places that what goes out takes its value from. */
    Set<String> places();

    /** In what form it stands on the wire. */
    default As form() {
        return As.PLAIN;
    }

    private static Set<String> all(List<WireValue> carries) {
        return carries.stream().flatMap(c -> c.places().stream()).collect(Collectors.toSet());
    }

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

        @Override
        public Set<String> places() {
            return Set.of();
        }
    }

    /** A text with places; a sole place carries its value as it is. */
    record Filled(@JsonValue Template template) implements WireValue {
        @Override
        public @Nullable Value out(Function<String, @Nullable Value> values) {
            Optional<String> sole = template.solePlace();
            return sole.isPresent()
                    ? values.apply(sole.get())
                    : Value.of(template.fill(JsonTree.quoting(template, values)));
        }

        @Override
        public Optional<Value> in(Value wire) {
            return Optional.of(wire);
        }

        @Override
        public Set<String> places() {
            return Set.copyOf(template.places());
        }
    }

    /** Several values that go together: where the wire knows arrays, an array. */
    record Group(@JsonValue List<WireValue> items) implements WireValue {
        public Group {
            items = List.copyOf(items);
        }

        @Override
        public @Nullable Value out(Function<String, @Nullable Value> values) {
            throw new IllegalArgumentException("a list of values is only allowed among the arguments of a packet");
        }

        @Override
        public Optional<Value> in(Value wire) {
            return Optional.empty();
        }

        @Override
        public Set<String> places() {
            return all(items);
        }
    }

    /** Reads the short forms: a scalar, or a text with places. Objects are read as {@link Mapped} or {@link Computed}. */
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
        if (node.isArray()) {
            return new Group(node.valueStream().map(WireValue::fromJson).toList());
        }
        if (!node.isObject()) {
            throw new IllegalArgumentException("expected a number, a text, true or false, a list or an object");
        }
        return WireValueJson.read(node);
    }
}
