package rombix.core.found;

import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Gear;
import rombix.core.card.Card;
import rombix.core.card.Card.Item;

/**
 * What may be added to a board of what was found.
 *
 * @param name what it would be called
 * @param cards those that it may be described by, the likeliest first
 * @param fits the one that what it says of itself speaks for; null where nothing speaks for any
 * @param lists the items of its lists, as far as its topics tell them; by the lists' names
 * @param topics those that belong to it, for people
 */
public record Proposal(FoundGear found, String name, List<Card> cards, @Nullable Card fits,
        Map<String, List<Item>> lists, List<String> topics) {
    public Proposal {
        cards = List.copyOf(cards);
        lists = Map.copyOf(lists);
        topics = List.copyOf(topics);
    }

    /** The gear of a board that it is already; empty where it is none. */
    public Optional<Gear> among(Collection<Gear> gear) {
        return gear.stream().filter(g -> found.at(g.link().protocol(), g.link().address()) && (topics.isEmpty()
                || fits != null && g.card().equals(fits.id()))).findFirst();
    }

    /** What is the same each time that the same gear says that it is here. */
    public String key() {
        return found.key() + (topics.isEmpty() ? "" : " " + name);
    }
}
