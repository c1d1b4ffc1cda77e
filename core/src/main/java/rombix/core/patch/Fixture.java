package rombix.core.patch;

import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonInclude;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.EnumSet;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Channel.Kind;
import rombix.core.card.value.Mapped.Curve;
import rombix.core.value.Extra;

/**
 * A fixture of a patch.
 *
 * @param personality the id of the card that says what its channels mean
 * @param universe as its protocol counts them
 * @param slot of its first channel, from 1
 * @param invert the kinds of channels that go the other way round
 * @param limit how far its dimmer goes up, in percent; all the way when absent
 * @param curve how its dimmer goes up; evenly when absent
 */
@RecordBuilder
@JsonInclude(JsonInclude.Include.NON_EMPTY)
public record Fixture(String id, String name, String personality, int universe, int slot, Set<Kind> invert,
        @Nullable Integer limit, @Nullable Curve curve,
        @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements FixtureBuilder.With {
    public Fixture {
        Objects.requireNonNull(id, "a fixture needs an \"id\"");
        name = Objects.requireNonNullElse(name, id);
        Objects.requireNonNull(personality, "a fixture needs a \"personality\"");
        invert = invert == null || invert.isEmpty() ? Set.of() : Set.copyOf(EnumSet.copyOf(invert));
        if (universe < 0 || slot < 1) {
            throw new IllegalArgumentException("universes count from 0 and slots from 1");
        }
        if (limit != null && (limit < 0 || limit > 100)) {
            throw new IllegalArgumentException("\"limit\" is a share from 0 to 100 percent");
        }
        extra = Extra.kept(extra);
    }

    public Fixture(String id, String name, String personality, int universe, int slot, Set<Kind> invert,
            @Nullable Integer limit, @Nullable Curve curve) {
        this(id, name, personality, universe, slot, invert, limit, curve, Map.of());
    }

    public Fixture(String id, String name, String personality, int universe, int slot) {
        this(id, name, personality, universe, slot, Set.of(), null, null);
    }
}
