package rombix.app.view.common;

import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import javafx.scene.Node;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.Workbench;
import rombix.core.board.Board;
import rombix.core.event.Event;
import rombix.core.event.Mode;
import rombix.core.sight.Pixels;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.touch.DeckPort;
import rombix.core.value.Value;
import rombix.running.Player;
import rombix.running.face.FaceWords;

/** Shared by all views: the board being edited, the deck, and the popover. */
@OwnedBy(Owner.INTERFACE)
public final class Desk {
    /** Who works the deck where it is neither a key nor a finger: the hand with the mouse. */
    public static final String MOUSE = "mouse";

    private final Workbench bench;
    private final DeckModel model;
    private final Overlay overlay;
    private final Player player;
    private final Map<String, DeckPort> ports = new HashMap<>();

    public Desk(Workbench bench, DeckModel model, Overlay overlay, Player player) {
        this.bench = bench;
        this.model = model;
        this.overlay = overlay;
        this.player = player;
    }

    public Workbench bench() {
        return bench;
    }

    public DeckModel model() {
        return model;
    }

    public Overlay overlay() {
        return overlay;
    }

    /** The way to the deck of a hand, with the mouse or a key, by how the log names it. */
    public DeckPort port(String source) {
        return ports.computeIfAbsent(source, player::port);
    }

    /** That of the hand with the mouse. */
    public DeckPort port() {
        return port(MOUSE);
    }

    /** A gear is told something by hand. */
    public void tell(String gear, String command, Map<String, Value> args) {
        player.tell(gear, command, args);
    }

    /** Runs a chain, or a part of one, to try it. */
    public void run(Event.Try chain) {
        player.run(chain);
    }

    /** What the screens of a gear show now; null where there is nothing to be seen. It may block. */
    public @Nullable Pixels look(String gear) {
        return player.look(gear);
    }

    /** Readings and levels in words. */
    public FaceWords words() {
        return new FaceWords(bench::rig, model::state, player::wall, model::now);
    }

    /** Has something shown anew with each change of the deck, for as long as a node is to be seen. */
    public void whileShown(Node node, Runnable show) {
        boolean[] seen = new boolean[1]; // The content of a scroll pane stands in the scene only once that was styled.
        model.watchWhile(_ -> show.run(), () -> {
            seen[0] |= node.getScene() != null;
            return !seen[0] || node.getScene() != null;
        });
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
