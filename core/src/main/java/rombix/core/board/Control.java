package rombix.core.board;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import com.fasterxml.jackson.annotation.JsonTypeName;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** What a button is beside something that is pushed: turned, pulled or dragged, it moves levels, and follows them. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "control")
@JsonSubTypes({@JsonSubTypes.Type(Control.Dial.class), @JsonSubTypes.Type(Control.Fader.class),
        @JsonSubTypes.Type(Control.Pad.class), @JsonSubTypes.Type(Control.Row.class)})
public sealed interface Control {

    /** The levels that it moves, the first of a pad being the one across. */
    List<Axis> axes();

    /** Whether a hand that goes down on it presses the button, before it is known what else it will do. */
    default boolean pressed() {
        return true;
    }

    /** A level: a numeric reading of a gear that its card has a command for. */
    record Axis(String gear, String reading) {
        public Axis {
            Objects.requireNonNull(gear, "a level needs its \"gear\"");
            Objects.requireNonNull(reading, "a level needs its \"reading\"");
        }
    }

    /**
     * Turned by detents. Where the button's state has a chain for the turn, that runs; else the level moves.
     *
     * @param level what it moves; null where only chains are run
     * @param coarse how far a detent moves it, in its unit; a fortieth of its range when 0
     * @param fine how far a fine detent moves it; a tenth of a coarse one when 0
     */
    @JsonTypeName("dial")
    @JsonInclude(JsonInclude.Include.NON_DEFAULT)
    record Dial(@Nullable Axis level, double coarse, double fine) implements Control {
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
    @JsonTypeName("fader")
    record Fader(Axis level) implements Control {
        public Fader {
            Objects.requireNonNull(level, "a fader needs its \"level\"");
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
    @JsonTypeName("pad")
    @JsonInclude(JsonInclude.Include.NON_DEFAULT)
    record Pad(Axis across, Axis up, boolean springs) implements Control {
        public Pad {
            Objects.requireNonNull(across, "a pad needs the level \"across\"");
            Objects.requireNonNull(up, "a pad needs the level \"up\"");
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
    record Row() implements Control {
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
