package rombix.core.board;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import rombix.core.card.Card;
import rombix.core.card.Twin;

/** A board with a twin for each of its gear. */
public record Rig(Board board, Map<String, Card> cards, Map<String, Twin> twins) {

    /** Makes the twins; gear whose card is not among {@code cards} gets none. */
    public static Rig of(Board board, Map<String, Card> cards) {
        Map<String, Twin> twins = new LinkedHashMap<>();
        for (Gear g : board.gear()) {
            Card card = cards.get(g.card());
            if (card != null) {
                twins.put(g.id(), new Twin(g.id(), g.name(), card, g.link().protocol(), g.lists()));
            }
        }
        return new Rig(board, cards, java.util.Collections.unmodifiableMap(twins));
    }

    /** The same cards with another board. Twins of unchanged gear are kept. */
    public Rig with(Board next) {
        return next.gear().equals(board.gear()) ? new Rig(next, cards, twins) : of(next, cards);
    }

    public Optional<Twin> twin(String gear) {
        return Optional.ofNullable(twins.get(gear));
    }
}
