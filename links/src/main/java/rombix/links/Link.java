package rombix.links;

import rombix.core.card.Order;

/** The transport to one gear. It looks after itself: it connects, reports, and comes back when the gear does. */
public interface Link extends AutoCloseable {
    /** Sends an order and answers for the ticket, once. Called on the conductor's thread; does not block. */
    void send(long ticket, Order order);

    /** Lets go of everything. Orders not answered yet are answered with a fault. */
    @Override
    void close();
}
