/** What a deck looks like at a moment, folded once from what happens, and the ways to follow it. */
@NullMarked
package rombix.running.state;

import org.jspecify.annotations.NullMarked;
