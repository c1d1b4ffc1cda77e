package rombix.web.deck;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonTypeName;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Control;
import rombix.core.board.Page;
import rombix.web.access.Access;
import rombix.web.access.Right;

/** A board's pages as one device sees them, and what stands where on one of them, in JSON. */
final class LayoutJson {
    /** @param you as the log names the device */
    record BoardMessage(String name, String you, String device, boolean press, boolean stop, List<Tab> pages) {
        /** A page; a hidden one has no tab. */
        record Tab(String id, String name, boolean hidden) {
        }
    }

    @JsonInclude(JsonInclude.Include.NON_NULL)
    record PageMessage(String id, String name, int columns, int rows, @Nullable String fill, List<Place> buttons) {
    }

    /**
     * A button: where it stands, and what a hand does with it.
     *
     * @param control what it is beside a push button, such as {@code fader}
     * @param both whether a wheel strip goes across as well
     * @param holds whether a pointer field is pressed for as long as the hand slides
     * @param eight whether a key pad has eight ways
     */
    @JsonInclude(JsonInclude.Include.NON_DEFAULT)
    record Place(String id, @JsonInclude int column, @JsonInclude int row, int width, int height,
            @Nullable String control, boolean both, boolean holds, boolean eight, double pace) {
    }

    private LayoutJson() {
    }

    static BoardMessage board(Board board, Access access, String source) {
        return new BoardMessage(board.name(), source, access.name(), access.may(Right.PRESS), access.may(
                Right.STOP_ALL),
                board.pages().stream().filter(p -> access.sees(p.id())).map(
                        p -> new BoardMessage.Tab(p.id(), p.name(), p.hidden())).toList());
    }

    static PageMessage page(Page page) {
        return new PageMessage(page.id(), page.name(), page.columns(), page.rows(), page.fill() == null
                ? null
                : page.fill().name().toLowerCase(Locale.ROOT), page.buttons().stream().map(LayoutJson::place).toList());
    }

    private static Place place(Button b) {
        Control control = b.control();
        return new Place(b.id(), b.column(), b.row(), b.width(), b.height(), control == null
                ? null
                : control.getClass().getAnnotation(JsonTypeName.class).value(),
                control instanceof Control.WheelStrip s && s.both(),
                control instanceof Control.PointerField f && f.holds(),
                control instanceof Control.KeyPad k && k.eight(),
                control instanceof Control.PointerField p ? p.pace() : 0);
    }
}
