/** Chains that run: the interpreter of operations with its frames, orders that are out, and what is told of them. */
@NullMarked
package rombix.core.engine.run;

import org.jspecify.annotations.NullMarked;
