package rombix.core.board;

import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonInclude;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import rombix.core.card.Card.Item;
import rombix.core.card.Protocol;
import rombix.core.value.Extra;

/**
 * Something outside that can be commanded.
 *
 * @param card the id of its card
 * @param link how it is reached
 * @param lists its own lists of channels, lamps and the like, in place of its card's
 */
@RecordBuilder
@JsonInclude(JsonInclude.Include.NON_EMPTY)
public record Gear(String id, String name, String card, Link link, Map<String, List<Item>> lists,
        @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements GearBuilder.With {

    /**
     * How a gear is reached.
     *
     * @param address HOST:PORT; for MIDI the name of the port
     */
    public record Link(Protocol protocol, String address,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) {
        public Link {
            Objects.requireNonNull(protocol, "a link needs a \"protocol\"");
            Objects.requireNonNull(address, "a link needs an \"address\"");
            extra = Extra.kept(extra);
        }
    }

    public Gear {
        Objects.requireNonNull(id, "a gear needs an \"id\"");
        name = Objects.requireNonNullElse(name, id);
        Objects.requireNonNull(card, "a gear needs a \"card\"");
        Objects.requireNonNull(link, "a gear needs a \"link\"");
        lists = Map.copyOf(Objects.requireNonNullElse(lists, Map.of()));
        extra = Extra.kept(extra);
    }
}
