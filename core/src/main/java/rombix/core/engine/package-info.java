/** What a press means: the deck is a step function over events and time, with hands that press; the conductor is its thread. */
@NullMarked
package rombix.core.engine;

import org.jspecify.annotations.NullMarked;
