package rombix.core.board;

import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonIgnore;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonProperty;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import rombix.core.chain.Chain;
import rombix.core.value.Extra;
import rombix.core.value.Value;
import rombix.core.value.Visible;

/**
 * The document: its gear and its pages.
 *
 * @param format the version of the file format
 * @param values what chains can set and formulas can read
 * @param chains chains with a name, for steps that use them
 * @param pictures pictures of the person's own, for faces
 * @param runDowns what shows go through, item by item
 * @param longPress how long a press must last to be a long one, in milliseconds; 500 when absent
 * @param doublePress how soon a second press makes a double one, in milliseconds; 300 when absent
 * @param afterCrash what is done about what was held or ran when Rombix was killed; asked when absent
 * @param oscPort where OSC messages are awaited that pull triggers; {@value #OSC_PORT} when absent
 */
@RecordBuilder
public record Board(@JsonProperty("rombix") int format, String name, List<Gear> gear, List<Page> pages,
        @JsonInclude(JsonInclude.Include.NON_EMPTY) List<BoardValue> values,
        @JsonInclude(JsonInclude.Include.NON_EMPTY) List<NamedChain> chains,
        @JsonInclude(JsonInclude.Include.NON_EMPTY) List<Picture> pictures,
        @JsonInclude(JsonInclude.Include.NON_EMPTY) List<RunDown> runDowns,
        @JsonInclude(JsonInclude.Include.NON_DEFAULT) long longPress,
        @JsonInclude(JsonInclude.Include.NON_DEFAULT) long doublePress,
        @JsonInclude(JsonInclude.Include.NON_DEFAULT) int oscPort,
        @JsonInclude(JsonInclude.Include.NON_NULL) @Nullable AfterCrash afterCrash,
        @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements BoardBuilder.With {
    /** Where OSC messages that pull triggers are awaited, where a board does not say. */
    public static final int OSC_PORT = 9110;

    /** What is done about what was held or ran when Rombix was killed. */
    public enum AfterCrash {
        @JsonProperty("ask")
        ASK, @JsonProperty("always")
        ALWAYS, @JsonProperty("never")
        NEVER
    }

    /** The file format that this version writes. */
    public static final int FORMAT = 1;

    public Board {
        name = Visible.text(Objects.requireNonNullElse(name, "Board"));
        gear = List.copyOf(Objects.requireNonNullElse(gear, List.of()));
        pages = List.copyOf(Objects.requireNonNull(pages, "a board needs its \"pages\""));
        values = List.copyOf(Objects.requireNonNullElse(values, List.of()));
        chains = List.copyOf(Objects.requireNonNullElse(chains, List.of()));
        pictures = List.copyOf(Objects.requireNonNullElse(pictures, List.of()));
        runDowns = List.copyOf(Objects.requireNonNullElse(runDowns, List.of()));
        extra = Extra.kept(extra);
    }

    public Board(int format, String name, List<Gear> gear, List<Page> pages, Map<String, Object> extra) {
        this(format, name, gear, pages, List.of(), List.of(), List.of(), List.of(), 0, 0, 0, null, extra);
    }

    /** A value of the board or of a button, with what it is at the start. */
    @RecordBuilder
    public record BoardValue(String id, String name, Value initial,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements BoardBoardValueBuilder.With {
        public BoardValue {
            Objects.requireNonNull(id, "a value needs an \"id\"");
            name = Objects.requireNonNullElse(name, id);
            Objects.requireNonNull(initial, "a value needs its \"initial\" value");
            extra = Extra.kept(extra);
        }

        public BoardValue(String id, String name, Value initial) {
            this(id, name, initial, Map.of());
        }

    }

    /** A chain with a name; {@code params} are the names that its formulas know its arguments by. */
    @RecordBuilder
    public record NamedChain(String id, String name, List<String> params, Chain chain,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements BoardNamedChainBuilder.With {
        public NamedChain {
            Objects.requireNonNull(id, "a chain needs an \"id\"");
            name = Objects.requireNonNullElse(name, id);
            params = List.copyOf(Objects.requireNonNullElse(params, List.of()));
            chain = Objects.requireNonNullElse(chain, Chain.EMPTY);
            extra = Extra.kept(extra);
        }

        public NamedChain(String id, String name, List<String> params, Chain chain) {
            this(id, name, params, chain, Map.of());
        }

    }

    /** A picture that travels with the board: PNG, JPEG, GIF, BMP or SVG, as base64. */
    public record Picture(String id, String name, String data,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) {
        public Picture {
            Objects.requireNonNull(id, "a picture needs an \"id\"");
            name = Objects.requireNonNullElse(name, id);
            Objects.requireNonNull(data, "a picture needs its \"data\"");
            extra = Extra.kept(extra);
        }

        public Picture(String id, String name, String data) {
            this(id, name, data, Map.of());
        }

    }

    /** The picture with this id. */
    public Optional<Picture> picture(String pictureId) {
        return pictures.stream().filter(p -> p.id().equals(pictureId)).findFirst();
    }

    /** How long a press must last to be a long one, in milliseconds. */
    @JsonIgnore
    public long longPressMillis() {
        return longPress == 0 ? 500 : longPress;
    }

    /** How soon a second press makes a double one, in milliseconds. */
    @JsonIgnore
    public long doublePressMillis() {
        return doublePress == 0 ? 300 : doublePress;
    }

    /** Where OSC messages that pull triggers are awaited. */
    @JsonIgnore
    public int listensAt() {
        return oscPort == 0 ? OSC_PORT : oscPort;
    }

    /** The chain with this id. */
    public Optional<NamedChain> chain(String chainId) {
        return chains.stream().filter(c -> c.id().equals(chainId)).findFirst();
    }

    /** The run-down with this id. */
    public Optional<RunDown> runDown(String runDownId) {
        return runDowns.stream().filter(r -> r.id().equals(runDownId)).findFirst();
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
