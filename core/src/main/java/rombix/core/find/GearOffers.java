package rombix.core.find;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import rombix.core.card.Card.Change;
import rombix.core.card.Card.Command;
import rombix.core.card.Card.Item;
import rombix.core.card.Card.Param;
import rombix.core.card.value.WireValue;
import rombix.core.chain.Arg;
import rombix.core.chain.Condition;
import rombix.core.chain.GearStep;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.twin.Twin;
import rombix.core.twin.Twin.Readings;
import rombix.core.value.Value;
import rombix.core.value.ValueType;

/** What a gear can be made to do: its commands with each choice, levels that fade or are nudged, and waits for it. */
final class GearOffers {
    /** The reading of a gear that lists what it cannot be told, by the first words of its messages. */
    private static final String UNABLE = "unable";
    private static final int MAX_SPREAD = 400;
    private static final long FADE_MILLIS = 2000;

    private final Twin twin;
    private final Readings now;
    private final List<Offer> offers = new ArrayList<>();

    private GearOffers(Twin twin, Readings now) {
        this.twin = twin;
        this.now = now;
    }

    static List<Offer> of(Twin twin, Readings now) {
        GearOffers all = new GearOffers(twin, now);
        twin.card().commands().stream().filter(all::able).forEach(all::command);
        twin.readings(now).forEach(all::reading);
        return all.offers;
    }

    /** Whether the gear does not say that it cannot be told this here. */
    private boolean able(Command command) {
        return !(now.apply(UNABLE) instanceof Value.Choices unable) || command.send().getOrDefault(twin.protocol(), List
                .of()).stream().map(p -> p.to().toString()).noneMatch(to -> unable.choices().stream().anyMatch(
                        c -> to.equals(c.id()) || to.startsWith(c.id() + " ")));
    }

    private void command(Command command) {
        List<Map<String, Value>> spread = new ArrayList<>();
        spread.add(new LinkedHashMap<>());
        for (Param p : command.params()) {
            spread = spreadOver(p, spread);
        }
        for (Map<String, Value> args : spread) {
            Map<String, Value> named = new LinkedHashMap<>(args);
            command.params().stream().filter(p -> p.type() == ValueType.NUMBER || p.type() == ValueType.COLOUR).forEach(
                    p -> named.remove(p.id()));
            List<String> words = new ArrayList<>(Offer.words(twin.spokenTitle(command, named, now)));
            words.addAll(Offer.words(twin.title()));
            command.words().forEach(w -> words.addAll(Offer.words(w)));
            offers.add(new Offer(twin.title(), words, figures -> filled(command, args, figures), 0.02, true, values(
                    command)));
            moving(command).forEach(p -> moves(command, p, args, words));
        }
    }

    /** What the numbers of a command are, in words; empty where it takes none. */
    private static String values(Command command) {
        return command.params().stream().filter(p -> p.type() == ValueType.NUMBER).map(Param::title).findFirst().orElse(
                "");
    }

    private Step filled(Command command, Map<String, Value> args, List<TypedNumber> figures) {
        Map<String, Value> with = new LinkedHashMap<>(args);
        for (Param p : command.params()) {
            TypedNumber given = p.type() == ValueType.NUMBER ? TypedNumber.take(figures, p.unit()) : null;
            if (given != null) {
                with.put(p.id(), Value.of(given.value()));
            }
            String colour = p.type() == ValueType.COLOUR ? TypedNumber.takeColour(figures) : null;
            if (colour != null) {
                with.put(p.id(), Value.of(colour));
            }
        }
        return new GearStep.Do(twin.gear(), command.id(), with);
    }

    /** The numeric parameters that a reading follows. */
    private static List<Param> moving(Command command) {
        return command.params().stream().filter(p -> p.type() == ValueType.NUMBER).filter(p -> {
            for (Change c : command.changes()) {
                if (c.to() instanceof WireValue.Filled f && f.template().places().contains(p.id())) {
                    return true;
                }
            }
            return false;
        }).toList();
    }

    private void moves(Command command, Param p, Map<String, Value> args, List<String> words) {
        Map<String, Arg> rest = new LinkedHashMap<>();
        args.forEach((k, v) -> {
            if (!k.equals(p.id())) {
                rest.put(k, Arg.of(v));
            }
        });
        List<String> fade = new ArrayList<>(List.of("fade"));
        fade.addAll(words);
        fade.addAll(List.of("ramp", "over", "in", "silence"));
        offers.add(new Offer(twin.title(), fade, figures -> {
            long ms = TypedNumber.takeMillis(figures, false, FADE_MILLIS);
            TypedNumber to = TypedNumber.take(figures, p.unit());
            double min = p.min() == null ? 0 : p.min();
            return new GearStep.Fade(twin.gear(), command.id(), rest, p.id(), null,
                    Arg.of(to == null ? min : to.value()),
                    ms, GearStep.Fade.Curve.LINEAR, StepOptions.PLAIN, Map.of());
        }, -0.15, false));
        double range = p.min() == null || p.max() == null ? 10 : p.max() - p.min();
        nudge(command, p, rest, words, List.of("nudge", "up", "brighter", "louder", "more", "raise"), range / 20);
        nudge(command, p, rest, words, List.of("nudge", "down", "darker", "dimmer", "softer", "less", "lower"),
                -range / 20);
    }

    private void nudge(Command command, Param p, Map<String, Arg> rest, List<String> words, List<String> by,
            double amount) {
        List<String> all = new ArrayList<>(by);
        all.addAll(words);
        double rounded = Math.abs(amount) >= 1 ? Math.rint(amount) : amount;
        offers.add(new Offer(twin.title(), all, figures -> {
            TypedNumber given = TypedNumber.take(figures, p.unit());
            double step = given == null ? rounded : Math.copySign(given.value(), amount);
            return new GearStep.Nudge(twin.gear(), command.id(), rest, p.id(), Arg.of(step), false, StepOptions.PLAIN,
                    Map.of());
        }, -0.2, false));
    }

    /** Steps that ask a yes/no reading. */
    private void reading(Twin.Reading known) {
        if (known.spec().type() != ValueType.FLAG) {
            return;
        }
        for (boolean on : new boolean[]{true, false}) {
            Value value = Value.of(on);
            Condition.OnReading condition = Condition.OnReading.is(twin.gear(), known.id(), value);
            List<String> words = new ArrayList<>(Offer.words(known.title()));
            words.add("is");
            words.addAll(Offer.words(twin.spoken(known, value, now)));
            words.addAll(Offer.words(twin.title()));
            tested(words, "wait", "until", figures -> new Step.Wait(0, null, null, condition,
                    figures.isEmpty() ? null : (Long) TypedNumber.takeMillis(figures, true, 0), StepOptions.PLAIN,
                    Map.of()));
            tested(words, "if", "when", _ -> new Step.If(condition, rombix.core.chain.Chain.EMPTY,
                    rombix.core.chain.Chain.EMPTY, StepOptions.PLAIN, Map.of()));
            tested(words, "repeat", "while", _ -> new Step.Repeat(null, condition, 1000L, "count",
                    rombix.core.chain.Chain.EMPTY, StepOptions.PLAIN, Map.of()));
        }
    }

    private void tested(List<String> words, String first, String second,
            java.util.function.Function<List<TypedNumber>, Step> step) {
        List<String> all = new ArrayList<>(List.of(first, second));
        all.addAll(words);
        offers.add(new Offer(twin.title(), all, step, -0.25, false));
    }

    private List<Map<String, Value>> spreadOver(Param p, List<Map<String, Value>> before) {
        boolean spread = p.type() == ValueType.CHOICE && (p.preset() == null || !p.preset().toString().isEmpty());
        List<Value> values = spread
                ? twin.items(p.list(), now).stream().map(Item::id).map(Value::of).toList()
                : List.of(p.preset() != null ? p.preset() : start(p));
        List<Map<String, Value>> after = new ArrayList<>();
        for (Map<String, Value> args : before) {
            for (Value v : values) {
                if (after.size() < MAX_SPREAD) {
                    Map<String, Value> more = new LinkedHashMap<>(args);
                    more.put(p.id(), v);
                    after.add(more);
                }
            }
        }
        return after;
    }

    /** What a parameter is where nothing is said of it. */
    static Value start(Param p) {
        return switch (p.type()) {
            case NUMBER -> Value.of(p.min() == null ? 0 : p.min());
            case FLAG -> Value.of(true);
            case COLOUR -> Value.of("#FFFFFF");
            case PLACE -> Value.of("pointer");
            case KEYS -> Value.of("Enter");
            case TEXT, CHOICE, PATH, SECRET, LIST -> Value.of("");
        };
    }
}
