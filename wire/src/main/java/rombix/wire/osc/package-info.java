/** OSC 1.0 messages and bundles. */
@NullMarked
package rombix.wire.osc;

import org.jspecify.annotations.NullMarked;
