package rombix.app.view.common;

import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import rombix.app.deck.DeckModel;
import rombix.app.edit.Workbench;
import rombix.core.board.Board;
import rombix.core.board.Control;
import rombix.core.board.StepWords;
import rombix.core.card.Scale;
import rombix.core.engine.Event;
import rombix.core.value.Value;

/** What every view works with: the board under the hand, the deck as it is, the way to the deck, and what lies over. */
public record Desk(Workbench bench, DeckModel model, Overlay overlay, Consumer<Event> post) {

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

    /** A reading's present value in words. */
    public String spoken(String gear, String reading) {
        Value value = model.reading(gear, reading);
        return value == null
                ? "—"
                : new StepWords(bench.rig(), g -> model.readings(g)).value(gear, reading, value);
    }

    /** A picture of the board by its id. */
    public Optional<Board.Picture> picture(String id) {
        return bench.board().picture(id);
    }

    /** How a level is shown and worked. */
    public Optional<Scale> scale(Control.Axis axis) {
        return bench.rig().twin(axis.gear()).flatMap(t -> Scale.of(t, axis.reading()));
    }

    public boolean building() {
        return bench.mode() == Workbench.Mode.BUILD;
    }
}
