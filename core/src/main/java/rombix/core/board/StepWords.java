package rombix.core.board;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Card.Command;
import rombix.core.card.Card.Param;
import rombix.core.chain.Arg;
import rombix.core.chain.Comparison;
import rombix.core.chain.Condition;
import rombix.core.chain.DeckStep;
import rombix.core.chain.GearStep;
import rombix.core.chain.Step;
import rombix.core.computer.Place;
import rombix.core.twin.Figures;
import rombix.core.twin.Twin;
import rombix.core.twin.Twin.Readings;
import rombix.core.value.Value;
import rombix.core.value.ValueType;

/** Steps in a few words, by the names that people gave to what they touch. */
public final class StepWords {
    private final Rig rig;
    private final Function<String, Readings> readings;
    private final Map<String, Value> args;

    /** @param readings the present readings of a gear, which name what it lists */
    public StepWords(Rig rig, Function<String, Readings> readings) {
        this(rig, readings, Map.of());
    }

    private StepWords(Rig rig, Function<String, Readings> readings, Map<String, Value> args) {
        this.rig = rig;
        this.readings = readings;
        this.args = args;
    }

    /** The same, where names stand for arguments. */
    public StepWords with(Map<String, Value> named) {
        return named.isEmpty() ? this : new StepWords(rig, readings, named);
    }

    /** What a step does: {@code Mute Host}, {@code Wait 2 s}, {@code One of 3, shuffled}. */
    public String of(Step step) {
        return switch (step) {
            case GearStep.Do d -> command(d.gear(), d.command(), d.args());
            case Step.Wait w -> wait(w);
            case Step.Together t ->
                t.ends() == Step.Together.Ends.FIRST ? "Together, until the first ends" : "Together";
            case Step.Pick p -> "One of " + p.choices().size() + switch (p.way()) {
                case RANDOM -> "";
                case NO_REPEAT -> ", never twice in a row";
                case SHUFFLED -> ", shuffled";
                case IN_TURN -> ", in turn";
            };
            case Step.If i -> "If " + of(i.condition());
            case Step.Repeat r -> "Repeat" + (r.times() == null ? "" : " " + number(r.times()) + " times")
                    + (r.condition() == null ? "" : " while " + of(r.condition()))
                    + (r.every() == null && !computed(r, "every")
                            ? ""
                            : " every " + span(r, "every", r.every() == null ? 0 : r.every()))
                    + (r.times() == null && r.condition() == null ? " until stopped" : "");
            case GearStep.Fade f -> moving(f.gear(), f.command(), f.args(), f.param(), f.to(),
                    f.from()) + " in " + span(f, "ms", f.ms());
            case Step.ForAWhile f -> "For " + span(f, "ms", f.ms());
            case GearStep.Nudge n -> nudge(n);
            case DeckStep.Ask a -> "Ask “" + a.question() + "”";
            case DeckStep.Use u -> "Use " + (u.chain() != null
                    ? "“" + rig.board().chain(u.chain()).map(Board.NamedChain::name).orElse(u.chain()) + "”"
                    : "“" + buttonName(u.button()) + "”"
                            + (u.gesture() == rombix.core.chain.Gesture.PRESS ? "" : ", " + u.gesture().words()));
            case DeckStep.Set s -> "Set " + valueName(s.value()) + " to " + shown(s.to());
            case DeckStep.Go g ->
                "Go to “" + shown(g.to()) + "” in " + rig.board().runDown(g.list()).map(RunDown::name).orElse(g.list());
            case DeckStep.Show s when s.way().alone() -> switch (s.way()) {
                case NEXT -> "Show the next page";
                case PREVIOUS -> "Show the previous page";
                default -> "Go back a page";
            };
            case DeckStep.Show s -> s.page() != null
                    ? (s.way() == DeckStep.Show.Way.POP_UP ? "Pop up page " : "Show page ") + "“"
                            + rig.page(s.page()).map(Page::name).orElse(s.page()) + "”"
                            + (s.way() == DeckStep.Show.Way.WHILE_HELD ? " while held" : "")
                    : "Show “" + buttonName(s.button()) + "” as " + s.state();
            case DeckStep.Written w -> w.verb().word() + " “" + w.text() + "”";
            case DeckStep.Stop s -> switch (s.what()) {
                case THIS -> "Stop this chain";
                case BUTTON -> "Stop “" + buttonName(s.button()) + "”";
                case TAG -> "Stop all “" + s.tag() + "”";
                case ALL -> "Stop all";
            };
        };
    }

    /** What a test asks: {@code Stream is ON AIR}, {@code level above −10 dB and it is before 22:00}, or its formula. */
    public String of(Condition test) {
        return switch (test) {
            case Condition.Computed c -> formula(c.formula());
            case Condition.OnReading c -> reading(c);
            case Condition.OnValue v -> valueName(v.value()) + compared(v.that(), Value::toString, null);
            case Condition.Daytime d -> d.from() == null
                    ? "it is before " + d.until()
                    : d.until() == null
                            ? "it is " + d.from() + " or later"
                            : "it is from %s to %s".formatted(d.from(),
                                    d.until());
            case Condition.All a -> joined(a.parts(), " and ");
            case Condition.Any a -> joined(a.parts(), " or ");
            case Condition.Not n -> "not (" + of(n.part()) + ")";
            case Condition.Otherwise _ -> "otherwise";
        };
    }

    private String joined(List<Condition> parts, String by) {
        return parts.stream().map(p -> p.within().size() > 1 ? "(" + of(p) + ")" : of(p))
                .collect(Collectors.joining(by));
    }

    private String reading(Condition.OnReading c) {
        Twin twin = rig.twins().get(c.gear());
        Twin.Reading known = twin == null ? null : twin.reading(c.reading(), readings.apply(c.gear())).orElse(null);
        if (twin == null || known == null) {
            return c.reading();
        }
        return known.title() + compared(c.that(), v -> twin.spoken(known, v, readings.apply(c.gear())), known.spec()
                .unit());
    }

    private static String compared(Comparison that, Function<Value, String> spoken, @Nullable String unit) {
        StringBuilder words = new StringBuilder();
        Value is = that.is();
        if (is != null || that.equals(Comparison.YES)) {
            words.append(" is ").append(spoken.apply(is == null ? Value.of(true) : is));
        }
        if (that.above() != null) {
            words.append(" is above ").append(Figures.withUnit(that.above(), unit));
        }
        if (that.below() != null) {
            words.append(that.above() == null ? " is below " : " and below ").append(Figures.withUnit(that.below(),
                    unit));
        }
        if (that.contains() != null) {
            words.append(" contains “").append(that.contains()).append('”');
        }
        if (that.pattern() != null) {
            words.append(" matches “").append(that.pattern()).append('”');
        }
        return words.toString();
    }

    /** A reading by its full name in formulas, {@code gear:reading}, as people know it. */
    public String reading(String name) {
        int colon = name.indexOf(':');
        Twin twin = colon < 0 ? null : rig.twins().get(name.substring(0, colon));
        if (twin == null) {
            return valueName(name);
        }
        return twin.reading(name.substring(colon + 1), readings.apply(twin.gear()))
                .map(k -> twin.title() + " " + k.title()).orElse(name);
    }

    /** A reading's value as people read it. */
    public String value(String gear, String reading, Value value) {
        Twin twin = rig.twins().get(gear);
        Twin.Reading known = twin == null ? null : twin.reading(reading, readings.apply(gear)).orElse(null);
        return twin == null || known == null ? value.toString() : twin.spoken(known, value, readings.apply(gear));
    }

    private static boolean computed(Step step, String time) {
        return step.how().times().containsKey(time);
    }

    /** How long, or the formula that says so. */
    private String span(Step step, String time, long millis) {
        String formula = step.how().times().get(time);
        return formula == null ? Figures.span(millis) : formula(formula) + " s";
    }

    private String formula(String formula) {
        return java.util.regex.Pattern.compile("\\{([^{}]+)}").matcher(formula)
                .replaceAll(m -> java.util.regex.Matcher.quoteReplacement(reading(m.group(1))));
    }

    private String wait(Step.Wait w) {
        Condition condition = w.condition();
        if (w.clock() != null) {
            String clock = w.how().times().get("clock");
            return "Wait until " + (clock == null ? w.clock() : formula(clock));
        }
        if (condition != null) {
            return "Wait until " + of(condition)
                    + (w.timeout() == null && !computed(w, "timeout")
                            ? ""
                            : ", at most " + span(w, "timeout", w.timeout() == null ? 0 : w.timeout()));
        }
        return "Wait " + span(w, "ms", w.ms()) + (w.max() == null ? "" : " to " + span(w, "most", w.max()));
    }

    private String nudge(GearStep.Nudge n) {
        Command command = commandOf(n.gear(), n.command());
        Param param = command == null ? null : command.param(n.param()).orElse(null);
        Value by = n.by() instanceof Arg.Constant c ? c.value() : null;
        String amount = by == null
                ? "by " + shown(n.by())
                : (by.asNumber() < 0 ? "down " : "up ")
                        + Figures.withUnit(Math.abs(by.asNumber()), param == null ? null : param.unit());
        return moving(n.gear(), n.command(), n.args(), n.param(), null, null).strip() + " " + amount
                + (n.wrap() ? ", wrapping around" : "");
    }

    /** A command without the parameter that moves, and where that one goes. */
    private String moving(String gear, String id, Map<String, Arg> with, String param, @Nullable Arg to,
            @Nullable Arg from) {
        Command command = commandOf(gear, id);
        Twin twin = rig.twins().get(gear);
        if (command == null || twin == null) {
            return id;
        }
        Param p = command.param(param).orElse(null);
        Map<String, Value> args = args(command, with);
        args.put(param, Value.of(to == null ? "" : (from == null ? "" : spoken(p, from) + " → ") + spoken(p, to)));
        String words = twin.spokenTitle(command, args, readings.apply(gear)).strip();
        return to == null ? words.replaceAll("\\s+to$|\\s+(%|K)$", "") : words;
    }

    private static String spoken(@Nullable Param p, Arg arg) {
        return arg instanceof Arg.Constant c && c.value() instanceof Value.Num n
                ? Figures.withUnit(n.number(), p == null ? null : p.unit(), p == null ? null : p.step())
                : arg.shown().toString();
    }

    private String command(String gear, String id, Map<String, Arg> with) {
        Command command = commandOf(gear, id);
        Twin twin = rig.twins().get(gear);
        return command == null || twin == null
                ? id
                : twin.spokenTitle(command, args(command, with), readings.apply(gear));
    }

    private Map<String, Value> args(Command command, Map<String, Arg> with) {
        Map<String, Value> all = new LinkedHashMap<>();
        command.params().forEach(p -> {
            if (p.preset() != null) {
                all.put(p.id(), p.preset());
            }
        });
        with.forEach((k, v) -> all.put(k, v instanceof Arg.Computed c
                ? argument(c.formula())
                : command.param(k).map(p -> named(p, v.shown())).orElse(v.shown())));
        return all;
    }

    private Value argument(String formula) {
        Value sole = formula.matches("\\{[^{}]+}") ? args.get(formula.substring(1, formula.length() - 1)) : null;
        return sole == null ? Value.of(formula(formula)) : sole;
    }

    private @Nullable Command commandOf(String gear, String id) {
        Twin twin = rig.twins().get(gear);
        return twin == null ? null : twin.card().command(id).orElse(null);
    }

    /** A place where a picture is found has the picture's name in it. */
    private Value named(Param p, Value v) {
        return p.type() == ValueType.PLACE && Place.parse(v.toString()).orElse(null) instanceof Place.OnPicture on
                ? rig.board().picture(on.picture()).map(b -> Value.of(on.words().replace("a picture", "“" + b.name()
                        + "”"))).orElse(v)
                : v;
    }

    private String shown(Arg arg) {
        return arg instanceof Arg.Computed c ? formula(c.formula()) : arg.shown().toString();
    }

    private String number(Arg arg) {
        return arg instanceof Arg.Constant c && c.value() instanceof Value.Num n
                ? Figures.withUnit(n.number(), null)
                : shown(arg);
    }

    private String buttonName(@Nullable String id) {
        return id == null ? "" : rig.button(id).map(Button::name).orElse(id);
    }

    /** A name that is no value of the board stands for an argument: what it is, or its braces where that is not known. */
    private String valueName(String id) {
        Value arg = args.get(id);
        return arg != null
                ? arg.toString()
                : rig.board().values().stream().filter(v -> v.id().equals(id)).map(Board.BoardValue::name).findFirst()
                        .orElse("{" + id + "}");
    }
}
