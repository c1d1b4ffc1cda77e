/** The patch: which fixture stands at which universe and slot, and what its card makes of that. Pure. */
@NullMarked
package rombix.core.patch;

import org.jspecify.annotations.NullMarked;
