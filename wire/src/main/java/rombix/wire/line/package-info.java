/** What stands behind bytes so that the other end sees whether they came whole. */
@NullMarked
package rombix.wire.line;

import org.jspecify.annotations.NullMarked;
