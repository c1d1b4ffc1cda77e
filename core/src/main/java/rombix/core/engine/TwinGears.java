package rombix.core.engine;

import java.util.function.Consumer;
import rombix.core.card.Order;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;

/** Twins in place of links: every command is heard, and changes what its card says it changes, when it says. */
@OwnedBy(Owner.CONDUCTOR)
public final class TwinGears implements Gears {
    private final Clock clock;
    private final Consumer<Event> deck;

    /** @param deck the way to the deck that sends */
    public TwinGears(Clock clock, Consumer<Event> deck) {
        this.clock = clock;
        this.deck = deck;
    }

    @Override
    public void send(long ticket, Order order) {
        if (ticket != NO_ANSWER) {
            deck.accept(new Event.OrderDone(ticket, clock.nanos(), null));
        }
        Long takes = order.command().takes();
        order.changes().forEach((reading, value) -> {
            Event came = new Event.Came(order.gear(), reading, value);
            deck.accept(takes == null || takes <= 0 ? came : new Event.Later(takes * 1_000_000L, came));
        });
    }
}
