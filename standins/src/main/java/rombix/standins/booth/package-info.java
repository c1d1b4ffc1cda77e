/** The booth computer: windows, pointer and keys that are not this computer's. */
@NullMarked
package rombix.standins.booth;

import org.jspecify.annotations.NullMarked;
