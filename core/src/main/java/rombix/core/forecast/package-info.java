/** What would happen: chains run on twins in simulated time, turned round, or made from what the gear is or does. */
@NullMarked
package rombix.core.forecast;

import org.jspecify.annotations.NullMarked;
