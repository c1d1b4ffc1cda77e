/** Which thread owns what has a state that changes, written down and asserted. */
@NullMarked
package rombix.core.thread;

import org.jspecify.annotations.NullMarked;
