package rombix.core.event;

import rombix.core.twin.Order;

/** The way out to the gear. */
@FunctionalInterface
public interface Gears {
    /** The ticket of an order whose answer nobody waits for: one of the many that make a fade. */
    long NO_ANSWER = 0;

    /**
     * Hands an order over. Called on the conductor's thread; must not block. Whoever takes it answers with
     * {@link Event.OrderDone} for the ticket, once, from any thread; for {@link #NO_ANSWER} only when it failed.
     */
    void send(long ticket, Order order);

    /**
     * Hands a level over that is to move by itself from now on, at the gear's own rate, until an order for the same
     * level comes or it is held. Called on the conductor's thread; must not block.
     *
     * @return false where the gear's link cannot do that: then each step of the way is sent as an order
     */
    default boolean glide(Glide glide) {
        return false;
    }

    /**
     * The chain that waited for an order was stopped: what that began and still goes on is to end, and it is answered.
     * Does not block.
     */
    default void cancel(long ticket, Order order) {
        // Nothing goes on by itself here.
    }

    /** All that still goes on in the gear's own time is to end, and what it holds is let go. Does not block. */
    default void stop() {
        // Nothing goes on by itself here.
    }

    /** An order is not handed over, as its gear is off: said for whoever looks at what goes out. */
    default void refused(Order order, String why) {
        // Nobody looks.
    }

    /** A level that moves by itself stays where it is. Called on the conductor's thread; must not block. */
    default void halt(Glide glide) {
        // Nothing moves by itself here.
    }
}
