package rombix.app.view.common;

import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.Workbench;
import rombix.app.view.common.DeckModel;
import rombix.core.board.Board;
import rombix.core.engine.Event;
import rombix.core.engine.Mode;
import rombix.core.sight.Pixels;
import rombix.core.value.Value;
import rombix.running.face.FaceWords;

/** What every view works with: the board under the hand, the deck as it is, the way to the deck, what lies over, and what screens show. */
public record Desk(Workbench bench, DeckModel model, Overlay overlay, Consumer<Event> post,
        Function<String, @Nullable Pixels> look) {

    /** A hand begins to press a button, with the mouse or a key. */
    public void press(String button, String source) {
        post.accept(new Event.Pressed(button, source));
    }

    /** A hand, or something else, ends the press. */
    public void release(String button, String source) {
        post.accept(new Event.Released(button, source));
    }

    /** A gear is told something by hand. */
    public void tell(String gear, String command, Map<String, Value> args) {
        post.accept(new Event.Told(gear, command, args));
    }

    /** Readings and levels in words. */
    public FaceWords words() {
        return new FaceWords(bench::rig, model::state);
    }

    /** A reading's present value in words. */
    public String spoken(String gear, String reading) {
        return words().spoken(gear, reading);
    }

    /** A picture of the board by its id. */
    public Optional<Board.Picture> picture(String id) {
        return bench.board().picture(id);
    }

    public boolean building() {
        return bench.mode() == Mode.BUILD;
    }
}
