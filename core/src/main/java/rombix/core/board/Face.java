package rombix.core.board;

import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonProperty;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Card.Tone;
import rombix.core.chain.Condition;
import rombix.core.value.Extra;

/**
 * How a state looks.
 *
 * @param label its words; the button's name when absent
 * @param icon the icon's literal; none when absent
 * @param second a smaller line under the label
 * @param image a picture of the person's own in the icon's place
 * @param mark a shape that tells this state from the others
 * @param fill the tint of the tile, where {@code tint} gives none
 * @param tint the tile's own colour, {@code #RRGGBB}; and {@code ink} that of its label, {@code accent} of its icon
 * @param tally lamps that follow readings: the first whose condition holds is shown
 */
@RecordBuilder
@JsonInclude(JsonInclude.Include.NON_EMPTY)
public record Face(@Nullable String label, @Nullable String second, @Nullable String icon, @Nullable Image image,
        @Nullable Mark mark, Fill fill, @Nullable String tint, @Nullable String ink, @Nullable String accent,
        List<Tally> tally,
        @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements FaceBuilder.With {
    /** A face with nothing chosen. */
    public static final Face PLAIN = new Face(null, null, null, null, null, Fill.MOSS, null, null, null,
            List.of(), Map.of());

    /** Quiet tints by which a person groups buttons. */
    public enum Fill {
        @JsonProperty("moss")
        MOSS, @JsonProperty("umber")
        UMBER, @JsonProperty("slate")
        SLATE, @JsonProperty("wine")
        WINE, @JsonProperty("plum")
        PLUM, @JsonProperty("stone")
        STONE
    }

    /** A shape in the tile's corner. */
    public enum Mark {
        @JsonProperty("ring")
        RING, @JsonProperty("cross")
        CROSS, @JsonProperty("tick")
        TICK, @JsonProperty("bar")
        BAR, @JsonProperty("up")
        UP, @JsonProperty("down")
        DOWN
    }

    /**
     * A picture of the board on a face.
     *
     * @param picture the id of the picture
     * @param padding how much of the tile's shorter side stays free around it, in percent, 0 to 40
     * @param tint the colour that it is drawn in, {@code #RRGGBB}; as it is when absent
     */
    @RecordBuilder
    @JsonInclude(JsonInclude.Include.NON_DEFAULT)
    public record Image(String picture, Fit fit, int padding, @Nullable String tint,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements FaceImageBuilder.With {
        public static final int MAX_PADDING = 40;

        /** How it takes its room. */
        public enum Fit {
            /** Small, where the icon stands. */
            @JsonProperty("icon")
            ICON,
            /** Whole, over the tile. */
            @JsonProperty("whole")
            WHOLE,
            /** Over the whole tile; what does not fit is cut off. */
            @JsonProperty("cover")
            COVER
        }

        public Image {
            Objects.requireNonNull(picture, "an image needs a \"picture\"");
            fit = Objects.requireNonNullElse(fit, Fit.ICON);
            if (padding < 0 || padding > MAX_PADDING) {
                throw new IllegalArgumentException("\"padding\" is 0 to " + MAX_PADDING + " percent, not " + padding);
            }
            colour(tint);
            extra = Extra.kept(extra);
        }

        public Image(String picture, Fit fit, int padding, @Nullable String tint) {
            this(picture, fit, padding, tint, Map.of());
        }

    }

    private static void colour(@Nullable String colour) {
        if (colour != null && !colour.matches("#[0-9A-Fa-f]{6}")) {
            throw new IllegalArgumentException("expected a colour such as #D0342C, not " + colour);
        }
    }

    /** A word and a frame while a condition holds. */
    @JsonInclude(JsonInclude.Include.NON_EMPTY)
    public record Tally(Condition when, String word, Tone tone,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) {
        public Tally {
            Objects.requireNonNull(when, "a tally needs a \"when\"");
            Objects.requireNonNull(word, "a tally needs a \"word\"");
            tone = Objects.requireNonNullElse(tone, Tone.QUIET);
            extra = Extra.kept(extra);
        }
    }

    public Face {
        colour(tint);
        colour(ink);
        colour(accent);
        fill = Objects.requireNonNullElse(fill, Fill.MOSS);
        tally = List.copyOf(Objects.requireNonNullElse(tally, List.of()));
        extra = Extra.kept(extra);
    }
}
