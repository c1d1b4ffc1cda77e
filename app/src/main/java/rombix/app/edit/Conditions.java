package rombix.app.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import rombix.core.board.Rig;
import rombix.core.board.StepWords;
import rombix.core.chain.Condition;
import rombix.core.twin.Twin.Readings;
import rombix.core.twin.Twin;
import rombix.core.value.Value;
import rombix.core.value.ValueType;

/** What can be asked of the gear's readings: each yes or no, each choice, and numbers above and below. */
public final class Conditions {
    private Conditions() {
    }

    /** A test that can be had, in words. */
    public record Offered(String words, Condition test) {
    }

    /** All of them, gear by gear. */
    public static List<Offered> all(Rig rig, Function<String, Readings> readings) {
        List<Offered> all = new ArrayList<>();
        for (Twin twin : rig.twins().values()) {
            Readings now = readings.apply(twin.gear());
            for (Twin.Reading known : twin.readings(now)) {
                String start = twin.title() + ": " + known.title();
                switch (known.spec().type()) {
                    case FLAG -> {
                        for (boolean on : new boolean[]{true, false}) {
                            Value v = Value.of(on);
                            all.add(new Offered(start + " " + twin.spoken(known, v, now),
                                    Condition.OnReading.is(twin.gear(), known.id(), v)));
                        }
                    }
                    case CHOICE -> {
                        String list = known.spec().choices() == null ? known.id() : known.spec().choices();
                        twin.items(list, now).forEach(item -> all.add(new Offered(start + " is " + item.name(),
                                Condition.OnReading.is(twin.gear(), known.id(), Value.of(item.id())))));
                    }
                    case NUMBER -> {
                        double middle = known.spec().min() == null || known.spec().max() == null
                                ? 0
                                : Math.rint((known.spec().min() + known.spec().max()) / 2);
                        all.add(new Offered(start + " is above…",
                                new Condition.OnReading(twin.gear(), known.id(), null, middle, null, Map.of())));
                        all.add(new Offered(start + " is below…",
                                new Condition.OnReading(twin.gear(), known.id(), null, null, middle, Map.of())));
                    }
                    case TEXT, COLOUR, KEYS, PLACE, PATH, SECRET, LIST -> {
                    }
                }
            }
        }
        return all;
    }

    /** The offer that a test is, whatever its number; else one that says it in its own words. */
    public static Offered of(Condition test, List<Offered> all, StepWords words) {
        return all.stream().filter(o -> same(o.test(), test)).findFirst()
                .orElseGet(() -> new Offered(words.of(test), test));
    }

    private static boolean same(Condition offered, Condition test) {
        return offered.equals(test) || offered instanceof Condition.OnReading a && test instanceof Condition.OnReading b
                && a.gear().equals(b.gear()) && a.reading().equals(b.reading()) && a.is() == null && b.is() == null
                && (a.above() == null) == (b.above() == null) && (a.below() == null) == (b.below() == null)
                && (b.above() != null || b.below() != null);
    }

    /** The names that formulas can use, {@code gear:reading} and values, with what people call them. */
    public static List<Name> names(Rig rig, Function<String, Readings> readings, List<String> more) {
        List<Name> all = new ArrayList<>();
        more.forEach(n -> all.add(new Name(n, n)));
        rig.board().values().forEach(v -> all.add(new Name(v.id(), "Value: " + v.name())));
        for (Twin twin : rig.twins().values()) {
            for (Twin.Reading known : twin.readings(readings.apply(twin.gear()))) {
                if (known.spec().type() != ValueType.LIST) {
                    all.add(new Name(twin.gear() + ":" + known.id(), twin.title() + ": " + known.title()));
                }
            }
        }
        return all;
    }

    /** A name in formulas, and what people call it. */
    public record Name(String name, String words) {
    }
}
