/** Buttons compiled for running: operations, the scope they run in, and all that is known while they do. */
@NullMarked
package rombix.core.engine.op;

import org.jspecify.annotations.NullMarked;
