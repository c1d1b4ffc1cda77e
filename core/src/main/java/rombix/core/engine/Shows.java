package rombix.core.engine;

import rombix.core.chain.DeckStep;
import rombix.core.chain.DeckStep.Show.Way;
import rombix.core.engine.run.Run;
import rombix.core.event.Happening;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.value.FormulaFault;

/** Steps that show a page, or another state of a button. Owned by the conductor's thread. */
@OwnedBy(Owner.CONDUCTOR)
final class Shows {
    private final Deck deck;

    Shows(Deck deck) {
        this.deck = deck;
    }

    void show(Run run, DeckStep.Show step) throws FormulaFault {
        if (step.way() == Way.WHILE_HELD) {
            if (run.button == null || !run.button.held()) {
                throw new FormulaFault(0, "the page shows while the button is held, but the button isn't held");
            }
            run.button.showsPage = step.page();
        }
        if (step.page() != null || step.way().alone()) {
            deck.telling.tell(new Happening.PageShown(step.page(), step.way(), run.source));
        } else if (step.button() != null) {
            deck.on(step.button(), b -> {
                deck.hands.show(b, b.state(step.state()));
                deck.telling.shows(b);
            });
        }
    }
}
