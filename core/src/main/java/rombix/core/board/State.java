package rombix.core.board;

import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonInclude;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.Collections;
import java.util.EnumMap;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rombix.core.chain.Chain;
import rombix.core.chain.Condition;
import rombix.core.chain.Gesture;
import rombix.core.value.Extra;
import rombix.core.value.Ids;
import rombix.core.value.Visible;

/**
 * One position of a button: a face, and the chain for each gesture.
 *
 * @param then the state that follows a press: {@code next}, {@code stay}, {@code random}, or a state's id
 * @param fallBack the state to go back to after a time
 * @param when the condition under which a following button shows this state
 * @param on the chain for each gesture that this state answers
 */
@RecordBuilder
@JsonInclude(JsonInclude.Include.NON_EMPTY)
public record State(String id, String name, Face face, String then, @Nullable FallBack fallBack,
        @Nullable Condition when, Map<Gesture, Chain> on,
        @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements StateBuilder.With {
    public static final String NEXT = "next";
    public static final String STAY = "stay";
    public static final String RANDOM = "random";

    /** A state, and the time in milliseconds after which a button goes back to it. */
    @RecordBuilder
    public record FallBack(String to, long ms,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements StateFallBackBuilder.With {
        public FallBack {
            Objects.requireNonNull(to, "a fall-back needs a \"to\"");
            extra = Extra.kept(extra);
        }

        public FallBack(String to, long ms) {
            this(to, ms, Map.of());
        }

    }

    public State(String id, String name, Face face, String then, @Nullable Condition when,
            Map<Gesture, Chain> on,
            Map<String, Object> extra) {
        this(id, name, face, then, null, when, on, extra);
    }

    public State {
        id = Ids.checked(Objects.requireNonNull(id, "a state needs an \"id\""));
        name = Visible.text(Objects.requireNonNullElse(name, id));
        face = Objects.requireNonNullElse(face, Face.PLAIN);
        then = Objects.requireNonNullElse(then, NEXT);
        Map<Gesture, Chain> chains = new EnumMap<>(Gesture.class);
        if (on != null) {
            chains.putAll(on);
        }
        chains.values().removeIf(Chain::isEmpty);
        on = Collections.unmodifiableMap(chains);
        extra = Extra.kept(extra);
    }

    public static State named(String id) {
        return new State(id, id, Face.PLAIN, NEXT, null, Map.of(), Map.of());
    }

    /** The chain for a gesture; empty where it has none. */
    public Chain chain(Gesture gesture) {
        return on.getOrDefault(gesture, Chain.EMPTY);
    }

    public State withChain(Gesture gesture, Chain chain) {
        Map<Gesture, Chain> all = new EnumMap<>(Gesture.class);
        all.putAll(on);
        all.put(gesture, chain);
        return withOn(all);
    }
}
