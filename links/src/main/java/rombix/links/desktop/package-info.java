/** The desktop of this machine: keys seen whatever is in front, and what is in front. */
@NullMarked
package rombix.links.desktop;

import org.jspecify.annotations.NullMarked;
