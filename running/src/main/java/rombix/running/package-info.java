/** A deck that runs: a board in play on its gear, whoever looks at it or works it. Knows no toolkit. */
@NullMarked
package rombix.running;

import org.jspecify.annotations.NullMarked;
