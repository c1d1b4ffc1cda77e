/** This computer as gear: the names of its keys, places on its screens, and what wants its owner's leave. */
@NullMarked
package rombix.core.computer;

import org.jspecify.annotations.NullMarked;
