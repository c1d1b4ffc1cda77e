package rombix.app.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.function.BiConsumer;
import java.util.function.Function;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Button;
import rombix.core.board.Rig;
import rombix.core.board.StepWords;
import rombix.core.chain.Comparison;
import rombix.core.chain.Condition;
import rombix.core.twin.Twin;
import rombix.core.twin.Twin.Readings;
import rombix.core.value.Value;
import rombix.core.value.ValueType;

/** The conditions that are offered: for readings and values each yes or no, each choice, numbers and texts; the time of day; a formula. */
public final class Conditions {
    /** What isn't chosen from a list but written. */
    public static final Offered FORMULA = new Offered("a formula…", new Condition.Computed("true"));
    private static final Offered DAYTIME = new Offered("the time of day is…", new Condition.Daytime("20:00", "22:00"));
    private static final Offered GROUP = new Offered("a group of conditions…", new Condition.All(List.of()));

    private Conditions() {
    }

    /** A test that can be had, in words. */
    public record Offered(String words, Condition test) {
    }

    /** All of them: a formula, the time, values, and then gear by gear. */
    public static List<Offered> all(Rig rig, @Nullable Button of, Function<String, Readings> readings) {
        List<Offered> all = new ArrayList<>(List.of(FORMULA, DAYTIME, GROUP));
        Stream.concat(rig.board().values().stream(), of == null ? Stream.empty() : of.values().stream()).forEach(
                v -> compared("Value: " + v.name(), kind(v.initial()), (words, that) -> all.add(new Offered(words,
                        new Condition.OnValue(v.id(), that)))));
        for (Twin twin : rig.twins().values()) {
            of(twin, readings.apply(twin.gear()), all);
        }
        return all;
    }

    /** One to begin with: the first that asks a reading, or a formula where there are no readings. */
    public static Condition first(Rig rig, Function<String, Readings> readings) {
        return all(rig, null, readings).stream().map(Offered::test).filter(Condition.OnReading.class::isInstance)
                .findFirst().orElse(FORMULA.test());
    }

    private static ValueType kind(Value value) {
        return switch (value) {
            case Value.Flag _ -> ValueType.FLAG;
            case Value.Num _ -> ValueType.NUMBER;
            default -> ValueType.TEXT;
        };
    }

    private static void of(Twin twin, Readings now, List<Offered> all) {
        for (Twin.Reading known : twin.readings(now)) {
            String start = twin.title() + ": " + known.title();
            BiConsumer<String, Comparison> add = (words, that) -> all
                    .add(new Offered(words, new Condition.OnReading(twin
                            .gear(), known.id(), that)));
            switch (known.spec().type()) {
                case FLAG -> {
                    for (boolean on : new boolean[]{true, false}) {
                        add.accept(start + " " + twin.spoken(known, Value.of(on), now), Comparison.is(Value.of(on)));
                    }
                }
                case CHOICE -> {
                    String list = known.spec().choices() == null ? known.id() : known.spec().choices();
                    twin.items(list, now)
                            .forEach(item -> add.accept(start + " is " + item.name(), Comparison.is(Value.of(
                                    item.id()))));
                }
                case NUMBER -> {
                    double middle = known.spec().min() == null || known.spec().max() == null
                            ? 0
                            : Math.rint((known.spec().min() + known.spec().max()) / 2);
                    numbers(start, middle, add);
                }
                case TEXT -> compared(start, ValueType.TEXT, add);
                case COLOUR, KEYS, PLACE, PATH, SECRET, LIST -> {
                }
            }
        }
    }

    private static void compared(String start, ValueType kind, BiConsumer<String, Comparison> add) {
        switch (kind) {
            case FLAG -> {
                add.accept(start + " is yes", Comparison.is(Value.of(true)));
                add.accept(start + " is no", Comparison.is(Value.of(false)));
            }
            case NUMBER -> numbers(start, 0, add);
            default -> {
                add.accept(start + " contains…", Comparison.contains(""));
                add.accept(start + " is exactly…", Comparison.is(Value.of("")));
                add.accept(start + " matches a pattern…", Comparison.pattern("^(\\w+)$"));
            }
        }
    }

    private static void numbers(String start, double middle, BiConsumer<String, Comparison> add) {
        add.accept(start + " is above…", Comparison.above(middle));
        add.accept(start + " is below…", Comparison.below(middle));
        add.accept(start + " is exactly…", Comparison.is(Value.of(middle)));
    }

    /** The offer that a test is, whatever its number or text; else one that says it in its own words. */
    public static Offered of(Condition test, List<Offered> all, StepWords words) {
        return all.stream().filter(o -> shape(o.test()).equals(shape(test))).findFirst()
                .orElseGet(() -> new Offered(words.of(test), test));
    }

    /** What a test asks, without the number or the text that it is compared with. */
    private static String shape(Condition test) {
        return switch (test) {
            case Condition.OnReading r -> r.name() + " " + shape(r.that());
            case Condition.OnValue v -> v.value() + " " + shape(v.that());
            case Condition.Computed _ -> "formula";
            case Condition.Daytime _ -> "time";
            case Condition.All _,Condition.Any _ -> "group";
            case Condition.Not n -> "not " + shape(n.part());
            case Condition.Otherwise _ -> "otherwise";
        };
    }

    private static String shape(Comparison that) {
        Value is = that.is();
        return "%s %s %s %s %s".formatted(that.above() != null, that.below() != null, that.contains() != null, that
                .pattern() != null, is instanceof Value.Num ? "number" : is);
    }

    /** The names that formulas can use, {@code gear:reading} and values, with what people call them. */
    public static List<Name> names(Rig rig, Function<String, Readings> readings, List<String> more) {
        List<Name> all = new ArrayList<>();
        more.forEach(n -> all.add(new Name(n, n)));
        rig.board().values().forEach(v -> all.add(new Name(v.id(), "Value: " + v.name())));
        rig.board().runDowns()
                .forEach(r -> r.names().forEach(n -> all.add(new Name(n, "Run-down: " + r.name() + " " + part(
                        n.substring(r.id().length()))))));
        for (Twin twin : rig.twins().values()) {
            for (Twin.Reading known : twin.readings(readings.apply(twin.gear()))) {
                if (known.spec().type() != ValueType.LIST) {
                    all.add(new Name(twin.gear() + ":" + known.id(), twin.title() + ": " + known.title()));
                }
            }
        }
        return all;
    }

    private static String part(String of) {
        return switch (of) {
            case ".item" -> "current item";
            case ".text" -> "text of the current item";
            case ".next" -> "next item";
            case ".count" -> "number of items";
            case ".ends" -> "end time of the current item, for TIME_TO";
            default -> "number of the current item";
        };
    }

    /** A name in formulas, and what people call it. */
    public record Name(String name, String words) {
    }
}
