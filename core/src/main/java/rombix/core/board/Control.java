package rombix.core.board;

import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import com.fasterxml.jackson.annotation.JsonTypeName;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rombix.core.value.Extra;

/** What a button is beside something that is pushed: turned, pulled or dragged, it moves levels, and follows them. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "control")
public sealed interface Control {

    /** The levels that it moves, the first of a pad being the one across. */
    List<Axis> axes();

    /** Whether a hand that goes down on it presses the button, before it is known what else it will do. */
    default boolean pressed() {
        return true;
    }

    /** A level: a numeric reading of a gear that its card has a command for. */
    record Axis(String gear, String reading, @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) {
        public Axis {
            Objects.requireNonNull(gear, "a level needs its \"gear\"");
            Objects.requireNonNull(reading, "a level needs its \"reading\"");
            extra = Extra.kept(extra);
        }

        public Axis(String gear, String reading) {
            this(gear, reading, Map.of());
        }

        /** An axis is the level that it names, whatever else a file says of it. */
        @Override
        public boolean equals(@Nullable Object other) {
            return other instanceof Axis a && a.gear.equals(gear) && a.reading.equals(reading);
        }

        @Override
        public int hashCode() {
            return Objects.hash(gear, reading);
        }

    }

    /**
     * Turned by detents. Where the button's state has a chain for the turn, that runs; else the level moves.
     *
     * @param level what it moves; null where only chains are run
     * @param coarse how far a detent moves it, in its unit; a fortieth of its range when 0
     * @param fine how far a fine detent moves it; a tenth of a coarse one when 0
     */
    @RecordBuilder
    @JsonTypeName("dial")
    @JsonInclude(JsonInclude.Include.NON_DEFAULT)
    record Dial(@Nullable Axis level, double coarse, double fine,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Control, ControlDialBuilder.With {
        public Dial {
            extra = Extra.kept(extra);
        }

        public Dial(@Nullable Axis level, double coarse, double fine) {
            this(level, coarse, fine, Map.of());
        }

        @Override
        public boolean pressed() {
            return false;
        }

        @Override
        public List<Axis> axes() {
            return level == null ? List.of() : List.of(level);
        }
    }

    /** A level pulled up and down, or along where its button is wider than tall. */
    @RecordBuilder
    @JsonTypeName("fader")
    record Fader(Axis level,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Control, ControlFaderBuilder.With {
        public Fader {
            Objects.requireNonNull(level, "a fader needs its \"level\"");
            extra = Extra.kept(extra);
        }

        public Fader(Axis level) {
            this(level, Map.of());
        }

        @Override
        public List<Axis> axes() {
            return List.of(level);
        }
    }

    /**
     * Two levels at once, such as pan and tilt.
     *
     * @param springs whether both go back to the middle when it is let go
     */
    @RecordBuilder
    @JsonTypeName("pad")
    @JsonInclude(JsonInclude.Include.NON_DEFAULT)
    record Pad(Axis across, Axis up, boolean springs,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Control, ControlPadBuilder.With {
        public Pad {
            Objects.requireNonNull(across, "a pad needs the level \"across\"");
            Objects.requireNonNull(up, "a pad needs the level \"up\"");
            extra = Extra.kept(extra);
        }

        public Pad(Axis across, Axis up, boolean springs) {
            this(across, up, springs, Map.of());
        }

        @Override
        public List<Axis> axes() {
            return List.of(across, up);
        }
    }

    /**
     * The button's states side by side: the hand slides along to the one that is wanted and lets go there, which runs that
     * state's press chain and shows it.
     */
    @JsonTypeName("row")
    record Row(@JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Control {
        public Row {
            extra = Extra.kept(extra);
        }

        public Row() {
            this(Map.of());
        }

        @Override
        public List<Axis> axes() {
            return List.of();
        }

        @Override
        public boolean pressed() {
            return false;
        }
    }

    /**
     * A surface that a hand slides over: the turn chain runs with how far it came {@code across} and {@code up}, in
     * pixels times the pace. A tap presses and releases it.
     *
     * @param pace how many pixels the pointer goes for one of the hand
     * @param holds whether it is pressed for as long as the hand slides, and a tap does nothing else
     */
    @RecordBuilder
    @JsonTypeName("pointer-field")
    @JsonInclude(JsonInclude.Include.NON_DEFAULT)
    record PointerField(double pace, boolean holds,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra)
            implements
                Control,
                ControlPointerFieldBuilder.With {
        public PointerField {
            pace = pace <= 0 ? USUAL_PACE : pace;
            extra = Extra.kept(extra);
        }

        public PointerField(double pace, boolean holds) {
            this(pace, holds, Map.of());
        }

        private static final double USUAL_PACE = 1.5;

        @Override
        public List<Axis> axes() {
            return List.of();
        }

        @Override
        public boolean pressed() {
            return false;
        }
    }

    /**
     * A wheel to be slid along: the turn chain runs with how many notches the hand came, in {@code turn}.
     *
     * @param both whether it goes across as well as up, with {@code across} and {@code up}
     */
    @RecordBuilder
    @JsonTypeName("wheel-strip")
    @JsonInclude(JsonInclude.Include.NON_DEFAULT)
    record WheelStrip(boolean both,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Control, ControlWheelStripBuilder.With {
        public WheelStrip {
            extra = Extra.kept(extra);
        }

        public WheelStrip(boolean both) {
            this(both, Map.of());
        }

        @Override
        public List<Axis> axes() {
            return List.of();
        }

        @Override
        public boolean pressed() {
            return false;
        }
    }

    /**
     * Ways from the middle, of which each is a state of the button with a press and a release chain: up, right, down and
     * left, where a diagonal holds both beside it; or those with the diagonals between them, clockwise from up.
     *
     * @param eight whether there are eight ways
     */
    @RecordBuilder
    @JsonTypeName("key-pad")
    @JsonInclude(JsonInclude.Include.NON_DEFAULT)
    record KeyPad(boolean eight,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Control, ControlKeyPadBuilder.With {
        public KeyPad {
            extra = Extra.kept(extra);
        }

        public KeyPad(boolean eight) {
            this(eight, Map.of());
        }

        /** The names of the ways, in the order of the states. */
        public List<String> ways() {
            return eight
                    ? List.of("up", "up right", "right", "down right", "down", "down left", "left", "up left")
                    : List.of("up", "right", "down", "left");
        }

        /** The ways that are held when the hand is to the right (1) or the left (-1), and above (1) or below (-1). */
        public Set<Integer> toward(int x, int y) {
            if (x == 0 && y == 0) {
                return Set.of();
            }
            if (eight) {
                int eighth = (int) Math.rint(Math.atan2(x, y) / (Math.PI / 4));
                return Set.of((eighth + 8) % 8);
            }
            Set<Integer> ways = new HashSet<>();
            if (y != 0) {
                ways.add(y > 0 ? 0 : 2);
            }
            if (x != 0) {
                ways.add(x > 0 ? 1 : 3);
            }
            return ways;
        }

        @Override
        public List<Axis> axes() {
            return List.of();
        }

        @Override
        public boolean pressed() {
            return false;
        }
    }

    /** The items of a run-down, one below the other: they scroll, and the one that is chosen is on. */
    @RecordBuilder
    @JsonTypeName("list")
    record Items(String list,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Control, ControlItemsBuilder.With {
        public Items {
            Objects.requireNonNull(list, "a list needs its \"list\", a run-down's id");
            extra = Extra.kept(extra);
        }

        public Items(String list) {
            this(list, Map.of());
        }

        @Override
        public List<Axis> axes() {
            return List.of();
        }

        @Override
        public boolean pressed() {
            return false;
        }
    }
}
