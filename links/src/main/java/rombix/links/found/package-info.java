/** Finds gear that says by itself that it is here; nothing is tried that did not. */
@NullMarked
package rombix.links.found;

import org.jspecify.annotations.NullMarked;
