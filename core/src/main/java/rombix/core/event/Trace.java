package rombix.core.event;

import rombix.core.engine.run.Watches;
import rombix.core.twin.Order;

/** Watches each step of a deck more closely than happenings tell, as a forecast does. Told on the deck's thread. */
public interface Trace {
    /** A step begins. */
    void began(long run, String step, long dueNanos);

    /** A step has ended; {@code failed} when it could not be done. */
    void ended(long run, String step, long dueNanos, boolean failed);

    /** An order goes out for a step. */
    void sent(long run, String step, Order order, long dueNanos);

    /** What was on for a while is over, and nobody knows what a reading was before that: it is unknown again. */
    default void unknownAgain(String gear, String reading) {
        // Nobody watches.
    }

    /** Watches nothing. */
    Trace NONE = new Trace() {
        @Override
        public void began(long run, String step, long dueNanos) {
            // Nobody watches.
        }

        @Override
        public void ended(long run, String step, long dueNanos, boolean failed) {
            // Nobody watches.
        }

        @Override
        public void sent(long run, String step, Order order, long dueNanos) {
            // Nobody watches.
        }
    };
}
