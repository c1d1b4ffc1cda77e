package rombix.core.engine;

import org.jspecify.annotations.Nullable;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;

/**
 * The end of a show, whatever ends it: what runs is stopped, but for what is a last word already; holds end; and when all
 * of that has gone out, or some time has gone by, whoever asked is told. Owned by the conductor's thread.
 */
@OwnedBy(Owner.CONDUCTOR)
final class Ending {
    /** How long the last words may take. */
    static final long PATIENCE_NANOS = 2_000_000_000L;

    private final Deck deck;
    private @Nullable Runnable asked;

    Ending(Deck deck) {
        this.deck = deck;
    }

    /** @param then done once, on the conductor's thread */
    void begin(Runnable then, long at) {
        Runnable before = asked;
        asked = before == null ? then : () -> {
            before.run();
            then.run();
        };
        deck.orders.stop();
        deck.runs.end();
        deck.letGo(at, "the end");
        deck.agenda.at(at + PATIENCE_NANOS, _ -> over());
    }

    /** Looks whether all has gone out. */
    void look() {
        if (asked != null && deck.idle()) {
            over();
        }
    }

    private void over() {
        Runnable then = asked;
        asked = null;
        if (then != null) {
            then.run();
        }
    }
}
