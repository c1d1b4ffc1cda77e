package rombix.core.board;

import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonIgnore;
import com.fasterxml.jackson.annotation.JsonProperty;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Stream;
import rombix.core.value.Extra;

/**
 * The document: its gear and its pages.
 *
 * @param format the version of the file format
 */
@RecordBuilder
public record Board(@JsonProperty("rombix") int format, String name, List<Gear> gear, List<Page> pages,
        @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements BoardBuilder.With {
    /** The file format that this version writes. */
    public static final int FORMAT = 1;

    public Board {
        name = Objects.requireNonNullElse(name, "Board");
        gear = List.copyOf(Objects.requireNonNullElse(gear, List.of()));
        pages = List.copyOf(Objects.requireNonNull(pages, "a board needs its \"pages\""));
        extra = Extra.kept(extra);
    }

    /** A board with one empty page. */
    public static Board empty(String name) {
        return new Board(FORMAT, name, List.of(), List.of(Page.empty("main", "Main")), Map.of());
    }

    @JsonIgnore
    public Stream<Button> buttons() {
        return pages.stream().flatMap(p -> p.buttons().stream());
    }

    public Optional<Button> button(String id) {
        return buttons().filter(b -> b.id().equals(id)).findFirst();
    }

    public Optional<Page> page(String id) {
        return pages.stream().filter(p -> p.id().equals(id)).findFirst();
    }

    /** The page that a button stands on. */
    public Optional<Page> pageOf(String buttonId) {
        return pages.stream().filter(p -> p.buttons().stream().anyMatch(b -> b.id().equals(buttonId))).findFirst();
    }

    public Optional<Gear> gear(String id) {
        return gear.stream().filter(g -> g.id().equals(id)).findFirst();
    }
}
