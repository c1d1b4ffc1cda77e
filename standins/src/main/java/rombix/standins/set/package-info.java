/** All stand-ins of the demo as one set, with their panels and announcements. */
@NullMarked
package rombix.standins.set;

import org.jspecify.annotations.NullMarked;
