package rombix.core.find;

import org.jspecify.annotations.Nullable;
import rombix.core.card.Card;
import rombix.core.chain.Step;

/**
 * A step that could be meant.
 *
 * @param title what it does, in words
 * @param where whose it is
 * @param adds the card of gear that is added with it, as the board has none yet; null where it needs none
 */
public record Found(String title, String where, Step step, double score, @Nullable Card adds) {
    /** One that needs no gear added. */
    public Found(String title, String where, Step step, double score) {
        this(title, where, step, score, null);
    }

}
