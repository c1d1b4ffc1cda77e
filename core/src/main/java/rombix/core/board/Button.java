package rombix.core.board;

import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonIgnore;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonProperty;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.Collections;
import java.util.EnumSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Board.BoardValue;
import rombix.core.chain.Chain;
import rombix.core.chain.Condition;
import rombix.core.value.Extra;
import rombix.core.value.Ids;
import rombix.core.value.Visible;

/**
 * Takes one cell or a block of cells; has one to sixteen states.
 *
 * @param column the leftmost cell, counted from 0; {@code row} the topmost
 * @param values values of the button's own, which its chains can set and formulas can read
 * @param guard against presses by accident
 * @param tag a name under which several buttons can be stopped at once
 * @param triggers what presses it beside the hand
 * @param repeat how often the held chain runs, in milliseconds; 200 when absent
 * @param pressAlso whether a long press runs the press chain too
 * @param springsBack whether a press that is held for as long as a long press is taken back at the release, by the press
 *            chain of the state that it went to: a tap toggles, a hold lasts as long as the hand
 * @param control what it is where it is more than a push button
 * @param proposed what of its looks follows its first step, until a person chooses otherwise
 * @param onStart what puts the gear into its first state when the board goes live
 * @param width how many cells it takes, 1 when absent; likewise {@code height}
 */
@RecordBuilder
@JsonInclude(JsonInclude.Include.NON_DEFAULT)
public record Button(String id, String name, @JsonInclude(JsonInclude.Include.ALWAYS) int column,
        @JsonInclude(JsonInclude.Include.ALWAYS) int row, int width, int height, Busy busy,
        @JsonInclude(JsonInclude.Include.NON_EMPTY) List<BoardValue> values, @Nullable Guard guard,
        @Nullable String tag, @JsonInclude(JsonInclude.Include.NON_EMPTY) List<Trigger> triggers, long repeat,
        boolean pressAlso, boolean springsBack, @Nullable Control control,
        @JsonInclude(JsonInclude.Include.NON_EMPTY) Set<Proposed> proposed,
        @JsonInclude(JsonInclude.Include.NON_EMPTY) Chain onStart, List<State> states,
        @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements ButtonBuilder.With {
    public static final int MAX_STATES = 16;

    /** What a second press does while the chain of the first still runs. */
    public enum Busy {
        /** The running chain is stopped and the new one starts. */
        @JsonProperty("restart")
        RESTART,
        /** The press does nothing. */
        @JsonProperty("ignore")
        IGNORE,
        /** The new chain starts when the running one has ended. */
        @JsonProperty("queue")
        QUEUE,
        /** Both run. */
        @JsonProperty("overlap")
        OVERLAP,
        /** The running chain is stopped, and that is all. */
        @JsonProperty("stop")
        STOP
    }

    /** What a button's first step can propose: its name, and the icons and tints of its states. */
    public enum Proposed {
        @JsonProperty("name")
        NAME, @JsonProperty("icon")
        ICON, @JsonProperty("fill")
        FILL
    }

    /** What keeps a press from happening by accident: it must be held for a time, or pressed twice. */
    @RecordBuilder
    @JsonInclude(JsonInclude.Include.NON_DEFAULT)
    public record Guard(Kind kind, long ms,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements ButtonGuardBuilder.With {
        /** How it guards. */
        public enum Kind {
            @JsonProperty("hold")
            HOLD, @JsonProperty("twice")
            TWICE
        }

        public Guard {
            Objects.requireNonNull(kind, "a guard needs a \"kind\"");
            ms = ms == 0 ? kind == Kind.HOLD ? 800 : 2000 : ms;
            extra = Extra.kept(extra);
        }

        public Guard(Kind kind, long ms) {
            this(kind, ms, Map.of());
        }

    }

    /** A button with nothing out of the ordinary. */
    public Button(String id, String name, int column, int row, int width, int height, Busy busy, List<State> states,
            Map<String, Object> extra) {
        this(id, name, column, row, width, height, busy, List.of(), null, null, List.of(), 0, false, false, null,
                Set.of(),
                Chain.EMPTY, states, extra);
    }

    /** How often the held chain runs, in milliseconds. */
    @JsonIgnore
    public long repeatMillis() {
        return repeat == 0 ? 200 : repeat;
    }

    public Button {
        id = Ids.checked(Objects.requireNonNull(id, "a button needs an \"id\""));
        name = Visible.text(Objects.requireNonNullElse(name, id));
        if (column < 0 || row < 0) {
            throw new IllegalArgumentException("\"column\" and \"row\" count from 0");
        }
        width = Math.max(1, width);
        height = Math.max(1, height);
        busy = Objects.requireNonNullElse(busy, Busy.RESTART);
        values = List.copyOf(Objects.requireNonNullElse(values, List.of()));
        triggers = List.copyOf(Objects.requireNonNullElse(triggers, List.of()));
        proposed = proposed == null || proposed.isEmpty()
                ? Set.of()
                : Collections.unmodifiableSet(EnumSet.copyOf(proposed));
        onStart = Objects.requireNonNullElse(onStart, Chain.EMPTY);
        states = List.copyOf(Objects.requireNonNullElse(states, List.of()));
        if (states.isEmpty()) {
            states = List.of(State.named("on"));
        }
        if (states.size() > MAX_STATES) {
            throw new IllegalArgumentException("a button has at most " + MAX_STATES + " states");
        }
        extra = Extra.kept(extra);
    }

    public boolean covers(int c, int r) {
        return c >= column && c < column + width && r >= row && r < row + height;
    }

    /** The ids of the gear that its chains command and its states follow. */
    public Set<String> gear() {
        Set<String> all = new LinkedHashSet<>();
        for (State s : states) {
            Condition.readings(s.when()).forEach(r -> all.add(r.gear()));
            s.on().values().forEach(c -> c.gear(all));
        }
        onStart.gear(all);
        if (control != null) {
            control.axes().forEach(a -> all.add(a.gear()));
        }
        return all;
    }

    /** Whether one of its faces has a picture. */
    public boolean shows(String picture) {
        return states.stream().map(s -> s.face().image()).anyMatch(i -> i != null && i.picture().equals(picture));
    }

    /** Whether the state shown follows what the gear says. */
    public boolean follows() {
        return states.stream().anyMatch(s -> s.when() != null);
    }
}
