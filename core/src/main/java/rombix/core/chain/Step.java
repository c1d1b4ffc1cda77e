package rombix.core.chain;

import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonProperty;
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
@JsonInclude(JsonInclude.Include.NON_EMPTY)
public sealed interface Step permits GearStep, DeckStep, Step.Wait, Step.Together, Step.Pick, Step.If, Step.Repeat,
        Step.ForAWhile {
    /** How it is run, whatever it does. */
    StepOptions how();

    /** Fields that this version does not know. */
    Map<String, Object> extra();

    /** This step run in another manner. */
    Step withHow(StepOptions how);

    /** The chains within it, in order. */
    default List<Chain> inner() {
        return List.of();
    }

    /** This step with other chains within it, as many as it had. */
    default Step withInner(List<Chain> chains) {
        return this;
    }

    /** What it asks of the gear, of values or of the clock before it goes on; null where it asks nothing. */
    default @Nullable Condition condition() {
        return null;
    }

    /** Its own arguments, each a value or computed; not those of steps within it. */
    default List<Arg> inputs() {
        return List.of();
    }

    /** What people are shown or what is written, with readings and values in braces; empty where there is nothing. */
    default String text() {
        return "";
    }

    /** Why nothing puts back what it did, where its opposite is sought and there is none. */
    default String stays() {
        return "its effect can't be reversed";
    }

    /** Whether it takes time by itself, whatever there is within it. */
    default boolean takesTime() {
        return false;
    }

    /**
     * Waits for a time, a random time from {@code ms} to {@code max}, until a clock time, or until a condition holds.
     *
     * @param clock the next time that the clock shows this, {@code HH:mm} or {@code HH:mm:ss}
     * @param timeout how long at most to wait for the condition; then the step fails
     */
    @RecordBuilder
    @JsonTypeName("wait")
    @JsonInclude(JsonInclude.Include.NON_DEFAULT)
    record Wait(long ms, @JsonProperty("most") @Nullable Long max, @Nullable String clock,
            @Nullable Condition condition, @Nullable Long timeout,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = PlainOptions.class) StepOptions how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Step, StepWaitBuilder.With {
        /** What a time of day looks like. */
        public static final String CLOCK_FORM = "([01]?\\d|2[0-3]):[0-5]\\d(:[0-5]\\d)?";

        @Override
        public boolean takesTime() {
            return ms > 0 || clock != null || condition != null || max != null && max > 0;
        }

        @Override
        public Wait withHow(StepOptions other) {
            return StepWaitBuilder.With.super.withHow(other);
        }

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
    @RecordBuilder
    @JsonTypeName("together")
    record Together(@JsonInclude(JsonInclude.Include.ALWAYS) List<Chain> chains, Ends ends,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = PlainOptions.class) StepOptions how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Step, StepTogetherBuilder.With {
        /** When it ends. */
        public enum Ends {
            @JsonProperty("last")
            LAST, @JsonProperty("first")
            FIRST
        }

        @Override
        public List<Chain> inner() {
            return chains;
        }

        @Override
        public Step withInner(List<Chain> others) {
            return withChains(others);
        }

        @Override
        public Together withHow(StepOptions other) {
            return StepTogetherBuilder.With.super.withHow(other);
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
                throw new IllegalArgumentException("a \"weight\" is greater than 0");
            }
            chain = Objects.requireNonNullElse(chain, Chain.EMPTY);
            extra = Extra.kept(extra);
        }

        public Choice(@Nullable String name, double weight, Chain chain) {
            this(name, weight, chain, Map.of());
        }

        static List<Choice> with(List<Choice> choices, List<Chain> chains) {
            return java.util.stream.IntStream.range(0, choices.size())
                    .mapToObj(i -> choices.get(i).withChain(chains.get(i))).toList();
        }

        /** What people see, given where it stands. */
        public String label(int index) {
            return name == null ? "choice " + (index + 1) : name;
        }
    }

    /** One of several chains. */
    @RecordBuilder
    @JsonTypeName("pick")
    record Pick(Way way, @JsonInclude(JsonInclude.Include.ALWAYS) List<Choice> choices,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = PlainOptions.class) StepOptions how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Step, StepPickBuilder.With {
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

        @Override
        public List<Chain> inner() {
            return choices.stream().map(Choice::chain).toList();
        }

        @Override
        public Step withInner(List<Chain> chains) {
            return withChoices(Choice.with(choices, chains));
        }

        @Override
        public Pick withHow(StepOptions other) {
            return StepPickBuilder.With.super.withHow(other);
        }

        @Override
        public String stays() {
            return "it isn't known which chain ran";
        }

        public Pick {
            way = Objects.requireNonNullElse(way, Way.RANDOM);
            choices = List.copyOf(Objects.requireNonNull(choices, "a pick step needs its \"choices\""));
            how = StepOptions.orPlain(how);
            extra = Extra.kept(extra);
        }
    }

    @RecordBuilder
    @JsonTypeName("if")
    record If(Condition condition, Chain then, @JsonProperty("else") Chain otherwise,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = PlainOptions.class) StepOptions how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Step, StepIfBuilder.With {
        @Override
        public List<Chain> inner() {
            return List.of(then, otherwise);
        }

        @Override
        public Step withInner(List<Chain> chains) {
            return withThen(chains.get(0)).withOtherwise(chains.get(1));
        }

        @Override
        public If withHow(StepOptions other) {
            return StepIfBuilder.With.super.withHow(other);
        }

        @Override
        public String stays() {
            return "it isn't known which chain ran";
        }

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
    @RecordBuilder
    @JsonTypeName("repeat")
    record Repeat(@Nullable Arg times, @JsonProperty("while") @Nullable Condition condition, @Nullable Long every,
            String count, Chain chain,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = PlainOptions.class) StepOptions how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Step, StepRepeatBuilder.With {
        @Override
        public List<Chain> inner() {
            return List.of(chain);
        }

        @Override
        public Step withInner(List<Chain> chains) {
            return withChain(chains.getFirst());
        }

        @Override
        public List<Arg> inputs() {
            return times == null ? List.of() : List.of(times);
        }

        @Override
        public boolean takesTime() {
            return every != null && every > 0;
        }

        @Override
        public Repeat withHow(StepOptions other) {
            return StepRepeatBuilder.With.super.withHow(other);
        }

        public Repeat {
            count = Objects.requireNonNullElse(count, "count");
            chain = Objects.requireNonNullElse(chain, Chain.EMPTY);
            how = StepOptions.orPlain(how);
            extra = Extra.kept(extra);
        }
    }

    /** Does something, and after a time puts back what the readings were before. A second press renews the time. */
    @RecordBuilder
    @JsonTypeName("for-a-while")
    record ForAWhile(Chain chain, long ms,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = PlainOptions.class) StepOptions how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Step, StepForAWhileBuilder.With {
        @Override
        public List<Chain> inner() {
            return List.of(chain);
        }

        @Override
        public Step withInner(List<Chain> chains) {
            return withChain(chains.getFirst());
        }

        @Override
        public boolean takesTime() {
            return ms > 0;
        }

        @Override
        public ForAWhile withHow(StepOptions other) {
            return StepForAWhileBuilder.With.super.withHow(other);
        }

        @Override
        public String stays() {
            return "it already restores its own changes";
        }

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
