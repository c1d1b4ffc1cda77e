/** Gear that said by itself that it is here, and which cards may describe it. Pure. */
@NullMarked
package rombix.core.found;

import org.jspecify.annotations.NullMarked;
