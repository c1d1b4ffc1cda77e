/** What a board from elsewhere brings that wants its owner's leave. */
@NullMarked
package rombix.core.trust;

import org.jspecify.annotations.NullMarked;
