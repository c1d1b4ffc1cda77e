/** Clocks, and what is due when. */
@NullMarked
package rombix.core.time;

import org.jspecify.annotations.NullMarked;
