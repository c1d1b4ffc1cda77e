package rombix.core.engine;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import rombix.core.event.Event;
import rombix.core.event.Gears;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.time.Clock;
import rombix.core.twin.Order;

/**
 * Twins in place of links: every command is heard, changes what its card says it changes, when it says, and goes on for
 * as long as it says, or until another command changes what it would change at its end.
 */
@OwnedBy(Owner.CONDUCTOR)
public final class TwinGears implements Gears {
    private final Clock clock;
    private final Consumer<Event> deck;
    /** What goes on, by its ticket. */
    private final Map<Long, Order> going = new HashMap<>();

    /** @param deck the way to the deck that sends */
    public TwinGears(Clock clock, Consumer<Event> deck) {
        this.clock = clock;
        this.deck = deck;
    }

    @Override
    public void send(long ticket, Order order) {
        overtaken(order);
        Order.Going goes = order.going();
        if (ticket != NO_ANSWER && (goes == null || !order.waits())) {
            deck.accept(new Event.OrderDone(ticket, clock.nanos(), null));
        }
        Long takes = order.command().takes();
        order.changes().forEach((reading, value) -> {
            Event came = new Event.Came(order.gear(), reading, value);
            deck.accept(takes == null || takes <= 0 ? came : new Event.Later(takes * 1_000_000L, came));
        });
        if (goes != null && ticket != NO_ANSWER) {
            going.put(ticket, order);
            if (goes.millis() > 0) {
                deck.accept(new Event.Later(Math.round(goes.millis() * 1e6), new Event.Run(() -> over(ticket))));
            }
        }
    }

    /** What goes on ends where another order changes what would change at its end. */
    private void overtaken(Order by) {
        List<Long> ended = new ArrayList<>();
        going.forEach((ticket, order) -> {
            Order.Going goes = order.going();
            if (goes != null && order.gear().equals(by.gear())
                    && goes.after().keySet().stream().anyMatch(by.changes()::containsKey)) {
                ended.add(ticket);
            }
        });
        ended.forEach(this::over);
    }

    private void over(long ticket) {
        Order order = going.remove(ticket);
        Order.Going goes = order == null ? null : order.going();
        if (order == null || goes == null) {
            return; // It was over before.
        }
        goes.after().forEach((reading, value) -> deck.accept(new Event.Came(order.gear(), reading, value)));
        if (order.waits()) {
            deck.accept(new Event.OrderDone(ticket, clock.nanos(), null));
        }
    }

    @Override
    public void cancel(long ticket, Order order) {
        over(ticket);
    }

    @Override
    public void stop() {
        List.copyOf(going.keySet()).forEach(this::over);
    }
}
