/** What a press means: the engine is a step function over events and time; the conductor is its thread. */
@NullMarked
package rombix.core.engine;

import org.jspecify.annotations.NullMarked;
