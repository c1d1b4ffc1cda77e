package rombix.core.chain;

import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonProperty;
import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import com.fasterxml.jackson.annotation.JsonTypeName;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rombix.core.value.Extra;
import rombix.core.value.Value;

/** One link of a chain. Some steps hold chains of their own. All times are in milliseconds. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "step")
@JsonSubTypes({@JsonSubTypes.Type(Step.Do.class), @JsonSubTypes.Type(Step.Wait.class),
        @JsonSubTypes.Type(Step.Together.class), @JsonSubTypes.Type(Step.Pick.class),
        @JsonSubTypes.Type(Step.If.class), @JsonSubTypes.Type(Step.Repeat.class), @JsonSubTypes.Type(Step.Fade.class),
        @JsonSubTypes.Type(Step.ForAWhile.class), @JsonSubTypes.Type(Step.Nudge.class),
        @JsonSubTypes.Type(Step.Ask.class), @JsonSubTypes.Type(Step.Use.class), @JsonSubTypes.Type(Step.Set.class),
        @JsonSubTypes.Type(Step.Show.class), @JsonSubTypes.Type(Step.Say.class), @JsonSubTypes.Type(Step.Stop.class)})
@JsonInclude(JsonInclude.Include.NON_EMPTY)
public sealed interface Step {
    /** The names of all kinds of steps, as files write them. */
    List<String> KINDS = List.of("do", "wait", "together", "pick", "if", "repeat", "fade", "for-a-while", "nudge",
            "ask", "use", "set", "show", "say", "stop");

    /** How it is run, whatever it does. */
    Manner how();

    /** Fields that this version does not know. */
    Map<String, Object> extra();

    /** The chains within it, in order. */
    default List<Chain> inner() {
        return switch (this) {
            case Together t -> t.chains();
            case Pick p -> p.choices().stream().map(Choice::chain).toList();
            case If i -> List.of(i.then(), i.otherwise());
            case Repeat r -> List.of(r.chain());
            case ForAWhile f -> List.of(f.chain());
            case Ask a -> a.choices().stream().map(Choice::chain).toList();
            case Do _,Wait _,Fade _,Nudge _,Use _,Set _,Show _,Say _,Stop _ -> List.of();
        };
    }

    /** This step with other chains within it, as many as it had. */
    default Step withInner(List<Chain> chains) {
        return switch (this) {
            case Together t -> new Together(chains, t.ends(), t.how(), t.extra());
            case Pick p -> new Pick(p.way(), Choice.with(p.choices(), chains), p.how(), p.extra());
            case If i -> new If(i.condition(), chains.get(0), chains.get(1), i.how(), i.extra());
            case Repeat r ->
                new Repeat(r.times(), r.condition(), r.every(), r.count(), chains.getFirst(), r.how(), r.extra());
            case ForAWhile f -> new ForAWhile(chains.getFirst(), f.ms(), f.how(), f.extra());
            case Ask a -> new Ask(a.question(), a.kind(), Choice.with(a.choices(), chains), a.into(), a.usual(),
                    a.timeout(), a.how(), a.extra());
            case Do _,Wait _,Fade _,Nudge _,Use _,Set _,Show _,Say _,Stop _ -> this;
        };
    }

    /** This step run in another manner. */
    default Step in(Manner how) {
        return switch (this) {
            case Do s -> new Do(s.gear(), s.command(), s.with(), s.answer(), how, s.extra());
            case Wait s -> new Wait(s.ms(), s.most(), s.clock(), s.condition(), s.timeout(), how, s.extra());
            case Together s -> new Together(s.chains(), s.ends(), how, s.extra());
            case Pick s -> new Pick(s.way(), s.choices(), how, s.extra());
            case If s -> new If(s.condition(), s.then(), s.otherwise(), how, s.extra());
            case Repeat s ->
                new Repeat(s.times(), s.condition(), s.every(), s.count(), s.chain(), how, s.extra());
            case Fade s -> new Fade(s.gear(), s.command(), s.with(), s.param(), s.from(), s.to(), s.ms(), s.curve(),
                    how, s.extra());
            case ForAWhile s -> new ForAWhile(s.chain(), s.ms(), how, s.extra());
            case Nudge s -> new Nudge(s.gear(), s.command(), s.with(), s.param(), s.by(), s.wrap(), how, s.extra());
            case Ask s -> new Ask(s.question(), s.kind(), s.choices(), s.into(), s.usual(), s.timeout(), how,
                    s.extra());
            case Use s -> new Use(s.button(), s.state(), s.gesture(), s.chain(), s.with(), how, s.extra());
            case Set s -> new Set(s.value(), s.to(), how, s.extra());
            case Show s -> new Show(s.page(), s.way(), s.button(), s.state(), how, s.extra());
            case Say s -> new Say(s.text(), how, s.extra());
            case Stop s -> new Stop(s.what(), s.button(), s.tag(), how, s.extra());
        };
    }

    private static <K, V> Map<K, V> ordered(@Nullable Map<K, V> map) {
        return map == null ? Map.of() : Collections.unmodifiableMap(new LinkedHashMap<>(map));
    }

    private static Manner plain(@Nullable Manner how) {
        return Objects.requireNonNullElse(how, Manner.PLAIN);
    }

    /**
     * A gear's command with its arguments.
     *
     * @param with an argument for each parameter; those left out take the card's usual value
     * @param answer how long to wait for the gear to show what the command changes; when absent, it is sent and the
     *            chain goes on
     */
    @JsonTypeName("do")
    record Do(String gear, String command, Map<String, Arg> with, @Nullable Long answer,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = PlainManner.class) Manner how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Step {
        public Do {
            Objects.requireNonNull(gear, "a do step needs a \"gear\"");
            Objects.requireNonNull(command, "a do step needs a \"command\"");
            with = ordered(with);
            how = plain(how);
            extra = Extra.kept(extra);
        }

        public Do(String gear, String command, Map<String, Value> with) {
            this(gear, command, args(with), null, Manner.PLAIN, Map.of());
        }

        private static Map<String, Arg> args(Map<String, Value> with) {
            Map<String, Arg> all = new LinkedHashMap<>();
            with.forEach((k, v) -> all.put(k, Arg.of(v)));
            return all;
        }

        /** This step with one argument changed. */
        public Do with(String param, Arg value) {
            Map<String, Arg> all = new LinkedHashMap<>(with);
            all.put(param, value);
            return new Do(gear, command, all, answer, how, extra);
        }
    }

    /**
     * Waits for a time, a random time from {@code ms} to {@code most}, until a clock time, or until a condition holds.
     *
     * @param clock the next time that the clock shows this, {@code HH:mm} or {@code HH:mm:ss}
     * @param timeout how long at most to wait for the condition; then the step fails
     */
    @JsonTypeName("wait")
    @JsonInclude(JsonInclude.Include.NON_DEFAULT)
    record Wait(long ms, @Nullable Long most, @Nullable String clock, @Nullable Test condition, @Nullable Long timeout,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = PlainManner.class) Manner how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Step {
        /** What a time of day looks like. */
        public static final String CLOCK_FORM = "([01]?\\d|2[0-3]):[0-5]\\d(:[0-5]\\d)?";

        public Wait {
            if (ms < 0) {
                throw new IllegalArgumentException("\"ms\" is " + ms + "; a wait takes 0 or more milliseconds");
            }
            if (most != null && most < ms) {
                throw new IllegalArgumentException("\"most\" is less than \"ms\"");
            }
            if (clock != null && !clock.matches(CLOCK_FORM)) {
                throw new IllegalArgumentException("\"clock\" is a time such as 21:30 or 21:30:15, not " + clock);
            }
            how = plain(how);
            extra = Extra.kept(extra);
        }

        public Wait(long ms) {
            this(ms, null, null, null, null, Manner.PLAIN, Map.of());
        }
    }

    /** Several chains side by side; ends with the last of them, or with the first, when the rest are stopped. */
    @JsonTypeName("together")
    record Together(@JsonInclude(JsonInclude.Include.ALWAYS) List<Chain> chains, Ends ends,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = PlainManner.class) Manner how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Step {
        /** When it ends. */
        public enum Ends {
            @JsonProperty("last")
            LAST, @JsonProperty("first")
            FIRST
        }

        public Together {
            chains = List.copyOf(Objects.requireNonNull(chains, "a together step needs its \"chains\""));
            ends = Objects.requireNonNullElse(ends, Ends.LAST);
            how = plain(how);
            extra = Extra.kept(extra);
        }

        public Together(List<Chain> chains) {
            this(chains, Ends.LAST, Manner.PLAIN, Map.of());
        }
    }

    /** One of several: a name, a chain, and for a pick a weight. */
    @JsonInclude(JsonInclude.Include.NON_DEFAULT)
    record Choice(@Nullable String name, double weight, Chain chain) {
        public Choice {
            weight = weight == 0 ? 1 : weight;
            if (weight < 0) {
                throw new IllegalArgumentException("a \"weight\" is more than 0");
            }
            chain = Objects.requireNonNullElse(chain, Chain.EMPTY);
        }

        private static List<Choice> with(List<Choice> choices, List<Chain> chains) {
            return java.util.stream.IntStream.range(0, choices.size())
                    .mapToObj(i -> new Choice(choices.get(i).name(), choices.get(i).weight(), chains.get(i))).toList();
        }

        /** What people see, given where it stands. */
        public String label(int index) {
            return name == null ? "choice " + (index + 1) : name;
        }
    }

    /** One of several chains. */
    @JsonTypeName("pick")
    record Pick(Way way, @JsonInclude(JsonInclude.Include.ALWAYS) List<Choice> choices,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = PlainManner.class) Manner how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Step {
        /** How one is picked. */
        public enum Way {
            /** At random, by weight. */
            @JsonProperty("random")
            RANDOM,
            /** At random, by weight, but never the same twice running. */
            @JsonProperty("no-repeat")
            NO_REPEAT,
            /** All before any comes again, also across the seam. */
            @JsonProperty("shuffled")
            SHUFFLED,
            /** One after another. */
            @JsonProperty("in-turn")
            IN_TURN
        }

        public Pick {
            way = Objects.requireNonNullElse(way, Way.RANDOM);
            choices = List.copyOf(Objects.requireNonNull(choices, "a pick step needs its \"choices\""));
            how = plain(how);
            extra = Extra.kept(extra);
        }
    }

    @JsonTypeName("if")
    record If(Test condition, Chain then, @JsonProperty("else") Chain otherwise,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = PlainManner.class) Manner how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Step {
        public If {
            Objects.requireNonNull(condition, "an if step needs its \"condition\"");
            then = Objects.requireNonNullElse(then, Chain.EMPTY);
            otherwise = Objects.requireNonNullElse(otherwise, Chain.EMPTY);
            how = plain(how);
            extra = Extra.kept(extra);
        }
    }

    /**
     * Runs a chain again and again: so many times, while a condition holds, or both; without either, for ever.
     *
     * @param every the time from one start to the next; one after another when absent
     * @param count the name under which formulas inside know how many times it ran before, from 0
     */
    @JsonTypeName("repeat")
    record Repeat(@Nullable Arg times, @JsonProperty("while") @Nullable Test condition, @Nullable Long every,
            String count, Chain chain,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = PlainManner.class) Manner how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Step {
        public Repeat {
            count = Objects.requireNonNullElse(count, "count");
            chain = Objects.requireNonNullElse(chain, Chain.EMPTY);
            how = plain(how);
            extra = Extra.kept(extra);
        }
    }

    /**
     * A numeric command from a value to another over a time.
     *
     * @param param the parameter that fades
     * @param from where it starts; from the present reading when absent
     */
    @JsonTypeName("fade")
    record Fade(String gear, String command, Map<String, Arg> with, String param, @Nullable Arg from, Arg to, long ms,
            Curve curve, @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = PlainManner.class) Manner how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Step {
        /** How it gets there. */
        public enum Curve {
            @JsonProperty("linear")
            LINEAR,
            /** Slow at both ends. */
            @JsonProperty("s-curve")
            S_CURVE,
            /** A quarter of a sine: two that cross keep the sum of their powers. */
            @JsonProperty("equal-power")
            EQUAL_POWER,
            /** Even in decibels: for levels that are given as amplitudes. */
            @JsonProperty("decibel")
            DECIBEL
        }

        public Fade {
            Objects.requireNonNull(gear, "a fade step needs a \"gear\"");
            Objects.requireNonNull(command, "a fade step needs a \"command\"");
            Objects.requireNonNull(param, "a fade step needs a \"param\"");
            Objects.requireNonNull(to, "a fade step needs a \"to\"");
            with = ordered(with);
            curve = Objects.requireNonNullElse(curve, Curve.LINEAR);
            how = plain(how);
            extra = Extra.kept(extra);
            if (ms < 0) {
                throw new IllegalArgumentException("a fade takes 0 or more milliseconds");
            }
        }
    }

    /** Does something, and after a time puts back what the readings were before. A second press renews the time. */
    @JsonTypeName("for-a-while")
    record ForAWhile(Chain chain, long ms,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = PlainManner.class) Manner how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Step {
        public ForAWhile {
            chain = Objects.requireNonNullElse(chain, Chain.EMPTY);
            how = plain(how);
            extra = Extra.kept(extra);
        }
    }

    /** A numeric command up or down from the present reading; it stops at the ends of the range, or wraps. */
    @JsonTypeName("nudge")
    record Nudge(String gear, String command, Map<String, Arg> with, String param, Arg by,
            @JsonInclude(JsonInclude.Include.NON_DEFAULT) boolean wrap,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = PlainManner.class) Manner how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Step {
        public Nudge {
            Objects.requireNonNull(gear, "a nudge step needs a \"gear\"");
            Objects.requireNonNull(command, "a nudge step needs a \"command\"");
            Objects.requireNonNull(param, "a nudge step needs a \"param\"");
            Objects.requireNonNull(by, "a nudge step needs a \"by\"");
            with = ordered(with);
            how = plain(how);
            extra = Extra.kept(extra);
        }
    }

    /**
     * Asks on the deck.
     *
     * @param choices each with the chain that it runs, for a question with choices
     * @param into the board value that takes the answer, where wanted
     * @param usual the answer that a time-out takes: a choice's place from 0, a number or a text
     * @param timeout how long to wait for an answer; for ever when absent
     */
    @JsonTypeName("ask")
    record Ask(String question, Kind kind, List<Choice> choices, @Nullable String into,
            @JsonProperty("default") @Nullable Value usual, @Nullable Long timeout,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = PlainManner.class) Manner how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Step {
        /** What kind of answer is wanted. */
        public enum Kind {
            @JsonProperty("choice")
            CHOICE, @JsonProperty("number")
            NUMBER, @JsonProperty("text")
            TEXT
        }

        public Ask {
            Objects.requireNonNull(question, "an ask step needs a \"question\"");
            kind = Objects.requireNonNullElse(kind, Kind.CHOICE);
            choices = List.copyOf(Objects.requireNonNullElse(choices, List.of()));
            how = plain(how);
            extra = Extra.kept(extra);
        }
    }

    /** Runs another button's chain, or a named chain of the board, with arguments that its formulas know by name. */
    @JsonTypeName("use")
    record Use(@Nullable String button, @Nullable String state, Gesture gesture, @Nullable String chain,
            Map<String, Arg> with,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = PlainManner.class) Manner how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Step {
        public Use {
            if ((button == null) == (chain == null)) {
                throw new IllegalArgumentException("a use step needs a \"button\" or a \"chain\"");
            }
            gesture = Objects.requireNonNullElse(gesture, Gesture.PRESS);
            with = ordered(with);
            how = plain(how);
            extra = Extra.kept(extra);
        }
    }

    /** Sets a value of the board. */
    @JsonTypeName("set")
    record Set(String value, Arg to,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = PlainManner.class) Manner how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Step {
        public Set {
            Objects.requireNonNull(value, "a set step needs a \"value\"");
            Objects.requireNonNull(to, "a set step needs a \"to\"");
            how = plain(how);
            extra = Extra.kept(extra);
        }
    }

    /** Shows a page, goes back to the one before, or shows another state of a button. */
    @JsonTypeName("show")
    record Show(@Nullable String page,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = Turned.class) Way way,
            @Nullable String button, @Nullable String state,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = PlainManner.class) Manner how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Step {
        /** How a page is shown. */
        public enum Way {
            @JsonProperty("turn")
            TURN,
            /** At the pointer, for one press. */
            @JsonProperty("pop-up")
            POP_UP,
            /** While the button is held. */
            @JsonProperty("while-held")
            WHILE_HELD,
            /** The one that was shown before. */
            @JsonProperty("back")
            BACK
        }

        /** A page, shown some way. */
        public static Show page(String page, Way way) {
            return new Show(page, way, null, null, Manner.PLAIN, Map.of());
        }

        /** The page that was shown before. */
        public static Show back() {
            return new Show(null, Way.BACK, null, null, Manner.PLAIN, Map.of());
        }

        /** Another state of a button. */
        public static Show state(String button, String state) {
            return new Show(null, Way.TURN, button, state, Manner.PLAIN, Map.of());
        }

        public Show {
            // A page that pops up was written so at first.
            if (extra != null && Boolean.TRUE.equals(extra.get("popUp"))) {
                way = Way.POP_UP;
                extra = new java.util.LinkedHashMap<>(extra);
                extra.remove("popUp");
            }
            way = Objects.requireNonNullElse(way, Way.TURN);
            if (way == Way.BACK
                    ? page != null || button != null
                    : (page == null) == (button == null || state == null)) {
                throw new IllegalArgumentException("a show step needs a \"page\", a \"way\" that is back, or a"
                        + " \"button\" and a \"state\"");
            }
            how = plain(how);
            extra = Extra.kept(extra);
        }
    }

    /** A message on the deck, with readings in it: {@code It is {house:temperature} outside}. */
    @JsonTypeName("say")
    record Say(String text,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = PlainManner.class) Manner how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Step {
        public Say {
            Objects.requireNonNull(text, "a say step needs a \"text\"");
            how = plain(how);
            extra = Extra.kept(extra);
        }
    }

    /** Stops this chain, those of a button or of all buttons with a tag, or everything. */
    @JsonTypeName("stop")
    record Stop(What what, @Nullable String button, @Nullable String tag,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = PlainManner.class) Manner how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Step {
        /** What is stopped. */
        public enum What {
            @JsonProperty("this")
            THIS, @JsonProperty("button")
            BUTTON, @JsonProperty("tag")
            TAG, @JsonProperty("all")
            ALL
        }

        public Stop {
            what = Objects.requireNonNullElse(what, What.THIS);
            how = plain(how);
            extra = Extra.kept(extra);
        }
    }

    /** Keeps the usual way to show a page out of files. */
    final class Turned {
        @Override
        public boolean equals(@Nullable Object other) {
            return other == null || other == Show.Way.TURN;
        }

        @Override
        public int hashCode() {
            return 0;
        }
    }

    /** Keeps a plain manner out of files. */
    final class PlainManner {
        @Override
        public boolean equals(@Nullable Object other) {
            return other == null || Manner.PLAIN.equals(other);
        }

        @Override
        public int hashCode() {
            return 0;
        }
    }
}
