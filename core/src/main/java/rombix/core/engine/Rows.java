package rombix.core.engine;

import rombix.core.board.Button;
import rombix.core.chain.Gesture;
import rombix.core.engine.op.Op;
import rombix.core.engine.op.Scope;
import rombix.core.engine.run.ButtonPlay;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;

/** Buttons whose states lie side by side, of which one is chosen. Owned by the conductor's thread. */
@OwnedBy(Owner.CONDUCTOR)
final class Rows {
    private final Deck deck;

    Rows(Deck deck) {
        this.deck = deck;
    }

    /** A state of a row is chosen: its press chain runs, and it is shown, or awaited where the button follows the gear. */
    void choose(ButtonPlay b, int state, long at, String source) {
        if (state < 0 || state >= b.button.states().size()) {
            return;
        }
        if (!b.running.isEmpty() && b.button.busy() == Button.Busy.IGNORE) {
            return;
        }
        deck.telling.clearFault(b);
        deck.hands.letGo(b, at, source);
        if (b.button.busy() != Button.Busy.OVERLAP) {
            deck.runs.stopAll(b);
        }
        if (!b.button.follows()) {
            deck.hands.show(b, state);
        } else if (state != b.shown) {
            b.onItsWay = state;
        }
        Op.Seq chain = b.chain(state, Gesture.PRESS);
        deck.follows.await(b,
                deck.runs.start(b, Gesture.PRESS.id(), chain == null ? Op.Seq.NOTHING : chain, Scope.of(b.button
                        .id()), at, source),
                at);
        deck.telling.shows(b);
    }

    /** A row is turned: so many states further, and no further than the last one. */
    void turn(ButtonPlay b, int detents, long at, String source) {
        int from = b.onItsWay < 0 ? b.shown : b.onItsWay;
        int to = Math.clamp(from + (long) detents, 0, b.button.states().size() - 1);
        if (to != from) {
            choose(b, to, at, source);
        }
    }
}
