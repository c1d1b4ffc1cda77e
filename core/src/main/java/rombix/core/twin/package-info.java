/** A twin: a piece of gear as its card and the board describe it, without a connection. It makes orders and reads what arrives. */
@NullMarked
package rombix.core.twin;

import org.jspecify.annotations.NullMarked;
