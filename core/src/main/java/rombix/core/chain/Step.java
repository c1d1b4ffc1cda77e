package rombix.core.chain;

import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import com.fasterxml.jackson.annotation.JsonTypeName;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import rombix.core.value.Extra;
import rombix.core.value.Value;

/** One link of a chain. Some steps hold chains of their own. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "step")
@JsonSubTypes({@JsonSubTypes.Type(Step.Do.class), @JsonSubTypes.Type(Step.Wait.class),
        @JsonSubTypes.Type(Step.Together.class)})
public sealed interface Step {

    /**
     * A gear's command with its arguments, sent without waiting for an answer.
     *
     * @param gear the id of the board's gear
     * @param command the id of one of its card's commands
     * @param with an argument for each parameter; those left out take the card's usual value
     */
    @JsonTypeName("do")
    @JsonInclude(JsonInclude.Include.NON_EMPTY)
    record Do(String gear, String command, Map<String, Value> with,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Step {
        public Do {
            Objects.requireNonNull(gear, "a do step needs a \"gear\"");
            Objects.requireNonNull(command, "a do step needs a \"command\"");
            with = with == null ? Map.of() : java.util.Collections.unmodifiableMap(new LinkedHashMap<>(with));
            extra = Extra.kept(extra);
        }

        public Do(String gear, String command, Map<String, Value> with) {
            this(gear, command, with, Map.of());
        }

        /** This step with one argument changed. */
        public Do with(String param, Value value) {
            Map<String, Value> all = new LinkedHashMap<>(with);
            all.put(param, value);
            return new Do(gear, command, all, extra);
        }
    }

    /** A time, in milliseconds. */
    @JsonTypeName("wait")
    record Wait(long ms, @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Step {
        public Wait {
            if (ms < 0) {
                throw new IllegalArgumentException("\"ms\" is " + ms + "; a wait takes 0 or more milliseconds");
            }
            extra = Extra.kept(extra);
        }

        public Wait(long ms) {
            this(ms, Map.of());
        }
    }

    /** Several chains side by side; ends when the last of them has ended. */
    @JsonTypeName("together")
    record Together(List<Chain> chains, @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Step {
        public Together {
            chains = List.copyOf(Objects.requireNonNull(chains, "a together step needs its \"chains\""));
            extra = Extra.kept(extra);
        }

        public Together(List<Chain> chains) {
            this(chains, Map.of());
        }
    }
}
