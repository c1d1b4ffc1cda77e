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
 * @param fill the tint of the tile, where {@code tint} gives none
 * @param tint the tile's own colour, {@code #RRGGBB}; and {@code ink} that of its label, {@code accent} of its icon
 * @param tally lamps that follow readings: the first whose condition holds is shown
 */
@RecordBuilder
@JsonInclude(JsonInclude.Include.NON_EMPTY)
public record Face(@Nullable String label, @Nullable String icon, Fill fill, @Nullable String tint,
        @Nullable String ink, @Nullable String accent, List<Tally> tally,
        @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements FaceBuilder.With {
    /** A face with nothing chosen. */
    public static final Face PLAIN = new Face(null, null, Fill.MOSS, null, null, null, List.of(), Map.of());

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
        for (String colour : new String[]{tint, ink, accent}) {
            if (colour != null && !colour.matches("#[0-9A-Fa-f]{6}")) {
                throw new IllegalArgumentException("expected a colour such as #D0342C, not " + colour);
            }
        }
        fill = Objects.requireNonNullElse(fill, Fill.MOSS);
        tally = List.copyOf(Objects.requireNonNullElse(tally, List.of()));
        extra = Extra.kept(extra);
    }
}
