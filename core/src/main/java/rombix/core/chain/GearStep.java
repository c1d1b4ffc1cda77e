package rombix.core.chain;

import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonProperty;
import com.fasterxml.jackson.annotation.JsonTypeName;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rombix.core.value.Extra;
import rombix.core.value.Value;

/** A step that commands gear. All times are in milliseconds. */
public sealed interface GearStep extends Step {
    /** The gear's id. */
    String gear();

    /** The id of one of its card's commands. */
    String command();

    /** An argument for each parameter; those left out take the card's usual value. */
    Map<String, Arg> args();

    /**
     * A gear's command with its arguments.
     *
     * @param args an argument for each parameter; those left out take the card's usual value
     * @param answer how long to wait for the gear to show what the command changes; when absent, it is sent and the
     *            chain goes on
     */
    @RecordBuilder
    @JsonTypeName("do")
    record Do(String gear, String command, @JsonProperty("with") Map<String, Arg> args, @Nullable Long answer,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = Step.PlainOptions.class) StepOptions how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements GearStep, GearStepDoBuilder.With {
        @Override
        public List<Arg> inputs() {
            return List.copyOf(args.values());
        }

        @Override
        public boolean takesTime() {
            return answer != null;
        }

        @Override
        public Do withHow(StepOptions other) {
            return GearStepDoBuilder.With.super.withHow(other);
        }

        public Do {
            Objects.requireNonNull(gear, "a do step needs a \"gear\"");
            Objects.requireNonNull(command, "a do step needs a \"command\"");
            args = Arg.ordered(args);
            how = StepOptions.orPlain(how);
            extra = Extra.kept(extra);
        }

        public Do(String gear, String command, Map<String, Value> with) {
            this(gear, command, constants(with), null, StepOptions.PLAIN, Map.of());
        }

        private static Map<String, Arg> constants(Map<String, Value> with) {
            Map<String, Arg> all = new LinkedHashMap<>();
            with.forEach((k, v) -> all.put(k, Arg.of(v)));
            return all;
        }

        /** This step with one argument changed. */
        public Do withArg(String param, Arg value) {
            Map<String, Arg> all = new LinkedHashMap<>(args);
            all.put(param, value);
            return withArgs(all);
        }
    }

    /**
     * A numeric command from a value to another over a time.
     *
     * @param param the parameter that fades
     * @param from where it starts; from the present reading when absent
     */
    @RecordBuilder
    @JsonTypeName("fade")
    record Fade(String gear, String command, @JsonProperty("with") Map<String, Arg> args, String param,
            @Nullable Arg from, Arg to, long ms,
            Curve curve,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = Step.PlainOptions.class) StepOptions how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements GearStep, GearStepFadeBuilder.With {
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

        @Override
        public List<Arg> inputs() {
            return Arg.all(args, from, to);
        }

        @Override
        public boolean takesTime() {
            return ms > 0;
        }

        @Override
        public Fade withHow(StepOptions other) {
            return GearStepFadeBuilder.With.super.withHow(other);
        }

        public Fade {
            Objects.requireNonNull(gear, "a fade step needs a \"gear\"");
            Objects.requireNonNull(command, "a fade step needs a \"command\"");
            Objects.requireNonNull(param, "a fade step needs a \"param\"");
            Objects.requireNonNull(to, "a fade step needs a \"to\"");
            args = Arg.ordered(args);
            curve = Objects.requireNonNullElse(curve, Curve.LINEAR);
            how = StepOptions.orPlain(how);
            extra = Extra.kept(extra);
            if (ms < 0) {
                throw new IllegalArgumentException("a fade takes 0 or more milliseconds");
            }
        }
    }

    /** A numeric command up or down from the present reading; it stops at the ends of the range, or wraps. */
    @RecordBuilder
    @JsonTypeName("nudge")
    record Nudge(String gear, String command, @JsonProperty("with") Map<String, Arg> args, String param, Arg by,
            @JsonInclude(JsonInclude.Include.NON_DEFAULT) boolean wrap,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = Step.PlainOptions.class) StepOptions how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements GearStep, GearStepNudgeBuilder.With {
        @Override
        public List<Arg> inputs() {
            return Arg.all(args, by);
        }

        @Override
        public Nudge withHow(StepOptions other) {
            return GearStepNudgeBuilder.With.super.withHow(other);
        }

        public Nudge {
            Objects.requireNonNull(gear, "a nudge step needs a \"gear\"");
            Objects.requireNonNull(command, "a nudge step needs a \"command\"");
            Objects.requireNonNull(param, "a nudge step needs a \"param\"");
            Objects.requireNonNull(by, "a nudge step needs a \"by\"");
            args = Arg.ordered(args);
            how = StepOptions.orPlain(how);
            extra = Extra.kept(extra);
        }
    }
}
