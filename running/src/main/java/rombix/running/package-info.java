/** A running deck: a board in play on its gear, independent of any interface toolkit. */
@NullMarked
package rombix.running;

import org.jspecify.annotations.NullMarked;
