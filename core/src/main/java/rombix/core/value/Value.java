package rombix.core.value;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.List;
import java.util.Map;

/** A number, a text, a yes/no, or a list of things to choose from. In JSON: the plain scalar. */
public sealed interface Value {

    /** A number; as text it is as {@link NumberText} says. */
    record Num(double number) implements Value {
        @JsonValue
        Object json() {
            return number == Math.rint(number) && Math.abs(number) < 1e15 ? (Object) (long) number : (Object) number;
        }

        @Override
        public String toString() {
            return NumberText.of(number, null);
        }
    }

    /** A text; colours are texts of the form {@code #RRGGBB}. */
    record Text(@JsonValue String text) implements Value {
        @Override
        public String toString() {
            return text;
        }
    }

    /** Yes or no. */
    record Flag(@JsonValue boolean on) implements Value {
        @Override
        public String toString() {
            return on ? "yes" : "no";
        }
    }

    /** What can be chosen now, as a gear reports it; never an argument. */
    record Choices(List<Choice> choices) implements Value {
        public Choices {
            choices = List.copyOf(choices);
        }

        @Override
        public String toString() {
            return choices.size() + " choices";
        }
    }

    /** One thing to choose: the id that the gear knows it by, the name that people see, and what else it told of it. */
    record Choice(String id, String name, Map<String, Value> fields) {
        public Choice {
            fields = Map.copyOf(fields);
        }

        public Choice(String id, String name) {
            this(id, name, Map.of());
        }
    }

    static Value of(double number) {
        return new Num(number);
    }

    static Value of(String text) {
        return new Text(text);
    }

    static Value of(boolean on) {
        return new Flag(on);
    }

    /** Reads a JSON scalar. Throws IllegalArgumentException for anything else. */
    @JsonCreator(mode = JsonCreator.Mode.DELEGATING)
    static Value fromJson(Object scalar) {
        return switch (scalar) {
            case Number n -> new Num(n.doubleValue());
            case String s -> new Text(s);
            case Boolean b -> new Flag(b);
            default -> throw new IllegalArgumentException("expected a number, a text, or true or false");
        };
    }

    /** This value as a number: yes is 1, no is 0, a text that is no number gives NaN. */
    default double asNumber() {
        return switch (this) {
            case Num n -> n.number();
            case Flag f -> f.on() ? 1 : 0;
            case Text t -> parse(t.text());
            case Choices _ -> Double.NaN;
        };
    }

    /** This value as yes or no: numbers are yes from a half up, texts when they say so. */
    default boolean asFlag() {
        return switch (this) {
            case Num n -> n.number() >= 0.5;
            case Flag f -> f.on();
            case Text t -> t.text().equalsIgnoreCase("true") || t.text().equalsIgnoreCase("yes")
                    || t.text().equalsIgnoreCase("on") || t.text().equals("1");
            case Choices _ -> false;
        };
    }

    /** Same for a person: numbers within a hair of each other, everything else exactly. */
    default boolean matches(Value other) {
        if (this instanceof Num a && other instanceof Num b) {
            return Math.abs(a.number() - b.number()) <= 1e-6 * Math.max(1, Math.abs(b.number()));
        }
        return equals(other);
    }

    private static double parse(String text) {
        try {
            return Double.parseDouble(text.strip());
        } catch (NumberFormatException e) {
            return Double.NaN;
        }
    }
}
