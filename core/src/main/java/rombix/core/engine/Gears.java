package rombix.core.engine;

import rombix.core.card.Order;

/** The way out to the gear. */
@FunctionalInterface
public interface Gears {
    /**
     * Hands an order over. Called on the conductor's thread; must not block. Whoever takes it answers with
     * {@link Event.Answered} for the ticket, once, from any thread.
     */
    void send(long ticket, Order order);
}
