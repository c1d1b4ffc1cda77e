package rombix.core.engine;

import rombix.core.card.Order;

/** The way out to the gear. */
@FunctionalInterface
public interface Gears {
    /** The ticket of an order whose answer nobody waits for: one of the many that make a fade. */
    long NO_ANSWER = 0;

    /**
     * Hands an order over. Called on the conductor's thread; must not block. Whoever takes it answers with
     * {@link Event.Answered} for the ticket, once, from any thread; for {@link #NO_ANSWER} only when it failed.
     */
    void send(long ticket, Order order);
}
