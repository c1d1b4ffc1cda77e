/** What goes out to gear and comes in from it, kept so that it can be looked at. */
@NullMarked
package rombix.core.traffic;

import org.jspecify.annotations.NullMarked;
