package rombix.core.engine;

import java.util.Map;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import rombix.core.board.Button;
import rombix.core.board.Control;
import rombix.core.board.RunDown;
import rombix.core.chain.Gesture;
import rombix.core.engine.op.Op;
import rombix.core.engine.op.Scope;
import rombix.core.engine.run.ButtonPlay;
import rombix.core.event.Event;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.value.Formula;
import rombix.core.value.FormulaFault;
import rombix.core.value.Value;

/** Buttons whose states lie side by side, of which one is chosen. Owned by the conductor's thread. */
@OwnedBy(Owner.CONDUCTOR)
final class Rows {
    private static final Logger LOG = LoggerFactory.getLogger(Rows.class);

    private final Deck deck;

    Rows(Deck deck) {
        this.deck = deck;
    }

    /** A state of a row is chosen: its press chain runs, and it is shown, or awaited where the button follows the gear. */
    void choose(ButtonPlay b, int state, long at, String source) {
        if (b.button.control() instanceof Control.Items items) {
            item(b, items, state + 1, at, source);
            return;
        }
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

    /** An item of a run-down is chosen, counted from 1: it is on, and then the press chain runs. */
    private void item(ButtonPlay b, Control.Items items, int number, long at, String source) {
        deck.telling.clearFault(b);
        try {
            RunDown list = deck.board().runDown(items.list()).orElseThrow(() -> new IllegalArgumentException(
                    "there is no run-down “" + items.list() + "” on this board"));
            go(list, Value.of(number));
            deck.hands.perform(b, new Event.Perform(b.button.id(), Gesture.PRESS, source), at);
        } catch (IllegalArgumentException | FormulaFault e) {
            deck.troubled(b.button.id(), String.valueOf(e.getMessage()));
        }
    }

    /** A value, or where a run-down is, is given by hand. What doesn't fit has been told to that hand. */
    void given(Event.Given g) {
        try {
            RunDown list = g.button().isEmpty() ? deck.board().runDown(g.value()).orElse(null) : null;
            if (list != null) {
                go(list, g.to());
            } else {
                deck.set(Scope.of(g.button()), g.value(), g.to());
            }
        } catch (IllegalArgumentException | FormulaFault e) {
            LOG.info("{} was not set: {}", g.value(), e.getMessage());
        }
    }

    /** Goes to an item of a run-down. Throws IllegalArgumentException in plain words, where there is none. */
    void go(RunDown list, Value to) throws FormulaFault {
        int before = at(list);
        int number = list.number(to, before);
        double now = Formula.clock(deck.clock.wall()).asNumber();
        if (number != before) {
            for (Map.Entry<String, Value> value : list.values(number, now).entrySet()) {
                deck.set(Scope.of(""), value.getKey(), value.getValue());
            }
        }
    }

    private int at(RunDown list) {
        Value at = deck.situation.named(list.id(), Scope.of(""));
        return at == null ? 0 : (int) at.asNumber();
    }

    /** A row is turned: so many states further, and no further than the last one. */
    void turn(ButtonPlay b, int detents, long at, String source) {
        if (b.button.control() instanceof Control.Items items) {
            deck.board().runDown(items.list()).ifPresent(list -> item(b, items, Math.clamp(at(list) + (long) detents, 0,
                    list.items().size()), at, source));
            return;
        }
        int from = b.onItsWay < 0 ? b.shown : b.onItsWay;
        int to = Math.clamp(from + (long) detents, 0, b.button.states().size() - 1);
        if (to != from) {
            choose(b, to, at, source);
        }
    }
}
