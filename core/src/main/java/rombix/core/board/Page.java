package rombix.core.board;

import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonInclude;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import rombix.core.chain.Condition;
import rombix.core.value.Extra;
import rombix.core.value.Ids;
import rombix.core.value.Visible;

/**
 * A grid of cells with buttons in it.
 *
 * @param follows while this is so, the page is shown in Live and in Rehearse, and then the one before again
 * @param hidden whether it is left out of the tabs in Live and in Rehearse: steps show it, as a folder or a pop-up
 * @param fill the tint of its ground, which tells it from other pages; that of the theme when absent
 */
@RecordBuilder
public record Page(String id, String name, int columns, int rows, List<Button> buttons,
        @JsonInclude(JsonInclude.Include.NON_NULL) @Nullable Condition follows,
        @JsonInclude(JsonInclude.Include.NON_DEFAULT) boolean hidden,
        @JsonInclude(JsonInclude.Include.NON_NULL) Face.@Nullable Fill fill,
        @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements PageBuilder.With {
    /** The largest grid. */
    public static final int MAX_COLUMNS = 32;
    public static final int MAX_ROWS = 16;

    public Page {
        id = Ids.checked(Objects.requireNonNull(id, "a page needs an \"id\""));
        name = Visible.text(Objects.requireNonNullElse(name, id));
        columns = columns == 0 ? 6 : columns;
        rows = rows == 0 ? 4 : rows;
        if (columns < 1 || columns > MAX_COLUMNS || rows < 1 || rows > MAX_ROWS) {
            throw new IllegalArgumentException(
                    "a page is 1×1 to %d×%d cells, not %d×%d".formatted(MAX_COLUMNS, MAX_ROWS, columns, rows));
        }
        buttons = List.copyOf(Objects.requireNonNullElse(buttons, List.of()));
        extra = Extra.kept(extra);
    }

    public Page(String id, String name, int columns, int rows, List<Button> buttons, Map<String, Object> extra) {
        this(id, name, columns, rows, buttons, null, false, null, extra);
    }

    public Page(String id, String name, int columns, int rows, List<Button> buttons, @Nullable Condition follows,
            Map<String, Object> extra) {
        this(id, name, columns, rows, buttons, follows, false, null, extra);
    }

    public static Page empty(String id, String name) {
        return new Page(id, name, 6, 4, List.of(), Map.of());
    }

    /** The button that covers a cell. */
    public Optional<Button> at(int column, int row) {
        return buttons.stream().filter(b -> b.covers(column, row)).findFirst();
    }
}
