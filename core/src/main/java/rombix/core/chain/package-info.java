/** Chains and their steps, as immutable data. */
@NullMarked
package rombix.core.chain;

import org.jspecify.annotations.NullMarked;
