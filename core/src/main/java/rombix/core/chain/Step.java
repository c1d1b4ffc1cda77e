package rombix.core.chain;

import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonProperty;
import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import com.fasterxml.jackson.annotation.JsonTypeName;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rombix.core.value.Extra;

/** One link of a chain. Some steps hold chains of their own. All times are in milliseconds. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "step")
@JsonSubTypes({@JsonSubTypes.Type(GearStep.Do.class), @JsonSubTypes.Type(Step.Wait.class),
        @JsonSubTypes.Type(Step.Together.class), @JsonSubTypes.Type(Step.Pick.class),
        @JsonSubTypes.Type(Step.If.class), @JsonSubTypes.Type(Step.Repeat.class),
        @JsonSubTypes.Type(GearStep.Fade.class),
        @JsonSubTypes.Type(Step.ForAWhile.class), @JsonSubTypes.Type(GearStep.Nudge.class),
        @JsonSubTypes.Type(DeckStep.Ask.class), @JsonSubTypes.Type(DeckStep.Use.class),
        @JsonSubTypes.Type(DeckStep.Set.class),
        @JsonSubTypes.Type(DeckStep.Show.class), @JsonSubTypes.Type(DeckStep.Say.class),
        @JsonSubTypes.Type(DeckStep.Stop.class)})
@JsonInclude(JsonInclude.Include.NON_EMPTY)
public sealed interface Step permits GearStep, DeckStep, Step.Wait, Step.Together, Step.Pick, Step.If, Step.Repeat,
        Step.ForAWhile {
    /** How it is run, whatever it does. */
    StepOptions how();

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
            case DeckStep.Ask a -> a.choices().stream().map(Choice::chain).toList();
            case GearStep _,DeckStep _,Wait _ -> List.of();
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
            case DeckStep.Ask a ->
                new DeckStep.Ask(a.question(), a.kind(), Choice.with(a.choices(), chains), a.into(), a.preset(),
                        a.timeout(), a.how(), a.extra());
            case GearStep _,DeckStep _,Wait _ -> this;
        };
    }

    /** This step run in another manner. */
    default Step in(StepOptions how) {
        return switch (this) {
            case GearStep.Do s -> new GearStep.Do(s.gear(), s.command(), s.with(), s.answer(), how, s.extra());
            case Wait s -> new Wait(s.ms(), s.max(), s.clock(), s.condition(), s.timeout(), how, s.extra());
            case Together s -> new Together(s.chains(), s.ends(), how, s.extra());
            case Pick s -> new Pick(s.way(), s.choices(), how, s.extra());
            case If s -> new If(s.condition(), s.then(), s.otherwise(), how, s.extra());
            case Repeat s ->
                new Repeat(s.times(), s.condition(), s.every(), s.count(), s.chain(), how, s.extra());
            case GearStep.Fade s ->
                new GearStep.Fade(s.gear(), s.command(), s.with(), s.param(), s.from(), s.to(), s.ms(), s.curve(),
                        how, s.extra());
            case ForAWhile s -> new ForAWhile(s.chain(), s.ms(), how, s.extra());
            case GearStep.Nudge s ->
                new GearStep.Nudge(s.gear(), s.command(), s.with(), s.param(), s.by(), s.wrap(), how, s.extra());
            case DeckStep.Ask s ->
                new DeckStep.Ask(s.question(), s.kind(), s.choices(), s.into(), s.preset(), s.timeout(), how,
                        s.extra());
            case DeckStep.Use s ->
                new DeckStep.Use(s.button(), s.state(), s.gesture(), s.chain(), s.with(), how, s.extra());
            case DeckStep.Set s -> new DeckStep.Set(s.value(), s.to(), how, s.extra());
            case DeckStep.Show s -> new DeckStep.Show(s.page(), s.way(), s.button(), s.state(), how, s.extra());
            case DeckStep.Say s -> new DeckStep.Say(s.text(), how, s.extra());
            case DeckStep.Stop s -> new DeckStep.Stop(s.what(), s.button(), s.tag(), how, s.extra());
        };
    }

    /**
     * Waits for a time, a random time from {@code ms} to {@code max}, until a clock time, or until a condition holds.
     *
     * @param clock the next time that the clock shows this, {@code HH:mm} or {@code HH:mm:ss}
     * @param timeout how long at most to wait for the condition; then the step fails
     */
    @JsonTypeName("wait")
    @JsonInclude(JsonInclude.Include.NON_DEFAULT)
    record Wait(long ms, @JsonProperty("most") @Nullable Long max, @Nullable String clock,
            @Nullable Condition condition, @Nullable Long timeout,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = PlainOptions.class) StepOptions how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Step {
        /** What a time of day looks like. */
        public static final String CLOCK_FORM = "([01]?\\d|2[0-3]):[0-5]\\d(:[0-5]\\d)?";

        public Wait {
            if (ms < 0) {
                throw new IllegalArgumentException("\"ms\" is " + ms + "; a wait takes 0 or more milliseconds");
            }
            if (max != null && max < ms) {
                throw new IllegalArgumentException("\"most\" is less than \"ms\"");
            }
            if (clock != null && !clock.matches(CLOCK_FORM)) {
                throw new IllegalArgumentException("\"clock\" is a time such as 21:30 or 21:30:15, not " + clock);
            }
            how = StepOptions.orPlain(how);
            extra = Extra.kept(extra);
        }

        public Wait(long ms) {
            this(ms, null, null, null, null, StepOptions.PLAIN, Map.of());
        }
    }

    /** Several chains side by side; ends with the last of them, or with the first, when the rest are stopped. */
    @JsonTypeName("together")
    record Together(@JsonInclude(JsonInclude.Include.ALWAYS) List<Chain> chains, Ends ends,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = PlainOptions.class) StepOptions how,
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
            how = StepOptions.orPlain(how);
            extra = Extra.kept(extra);
        }

        public Together(List<Chain> chains) {
            this(chains, Ends.LAST, StepOptions.PLAIN, Map.of());
        }
    }

    /** One of several: a name, a chain, and for a pick a weight. */
    @RecordBuilder
    @JsonInclude(JsonInclude.Include.NON_DEFAULT)
    record Choice(@Nullable String name, double weight, Chain chain,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements StepChoiceBuilder.With {
        public Choice {
            weight = weight == 0 ? 1 : weight;
            if (weight < 0) {
                throw new IllegalArgumentException("a \"weight\" is more than 0");
            }
            chain = Objects.requireNonNullElse(chain, Chain.EMPTY);
            extra = Extra.kept(extra);
        }

        public Choice(@Nullable String name, double weight, Chain chain) {
            this(name, weight, chain, Map.of());
        }

        private static List<Choice> with(List<Choice> choices, List<Chain> chains) {
            return java.util.stream.IntStream.range(0, choices.size())
                    .mapToObj(i -> choices.get(i).withChain(chains.get(i))).toList();
        }

        /** What people see, given where it stands. */
        public String label(int index) {
            return name == null ? "choice " + (index + 1) : name;
        }
    }

    /** One of several chains. */
    @JsonTypeName("pick")
    record Pick(Way way, @JsonInclude(JsonInclude.Include.ALWAYS) List<Choice> choices,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = PlainOptions.class) StepOptions how,
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
            how = StepOptions.orPlain(how);
            extra = Extra.kept(extra);
        }
    }

    @JsonTypeName("if")
    record If(Condition condition, Chain then, @JsonProperty("else") Chain otherwise,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = PlainOptions.class) StepOptions how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Step {
        public If {
            Objects.requireNonNull(condition, "an if step needs its \"condition\"");
            then = Objects.requireNonNullElse(then, Chain.EMPTY);
            otherwise = Objects.requireNonNullElse(otherwise, Chain.EMPTY);
            how = StepOptions.orPlain(how);
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
    record Repeat(@Nullable Arg times, @JsonProperty("while") @Nullable Condition condition, @Nullable Long every,
            String count, Chain chain,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = PlainOptions.class) StepOptions how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Step {
        public Repeat {
            count = Objects.requireNonNullElse(count, "count");
            chain = Objects.requireNonNullElse(chain, Chain.EMPTY);
            how = StepOptions.orPlain(how);
            extra = Extra.kept(extra);
        }
    }

    /** Does something, and after a time puts back what the readings were before. A second press renews the time. */
    @JsonTypeName("for-a-while")
    record ForAWhile(Chain chain, long ms,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = PlainOptions.class) StepOptions how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Step {
        public ForAWhile {
            chain = Objects.requireNonNullElse(chain, Chain.EMPTY);
            how = StepOptions.orPlain(how);
            extra = Extra.kept(extra);
        }
    }

    /** Keeps a plain manner out of files. */
    final class PlainOptions {
        @Override
        public boolean equals(@Nullable Object other) {
            return other == null || StepOptions.PLAIN.equals(other);
        }

        @Override
        public int hashCode() {
            return 0;
        }
    }
}
