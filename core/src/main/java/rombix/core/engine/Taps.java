package rombix.core.engine;

import rombix.core.engine.run.ButtonPlay;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.thread.OwnedBy;

/** Holds that no hand will end: each is released after its time. Owned by the conductor's thread. */
@OwnedBy(Owner.CONDUCTOR)
final class Taps {
    private static final long LEAST_MILLIS = 100;

    private final Deck deck;

    Taps(Deck deck) {
        this.deck = deck;
    }

    /** Releases a button that was pressed at a moment; another press, or anything else that ends the hold, does so before. */
    void releaseAfter(ButtonPlay b, long at, long millis, String source) {
        b.tapTimer = deck.agenda.at(at + Math.max(millis, LEAST_MILLIS) * 1_000_000L, due -> {
            b.tapTimer = null;
            deck.hands.release(b, due, source);
        });
        deck.telling.shows(b);
    }

    /** Whether any hold waits for its time. */
    boolean any() {
        for (ButtonPlay b : deck.buttons.all()) {
            if (b.tapTimer != null) {
                return true;
            }
        }
        return false;
    }
}
