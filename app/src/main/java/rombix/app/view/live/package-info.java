/** The strips of Live, the band of a rehearsal, and the questions a chain asks. */
@NullMarked
package rombix.app.view.live;

import org.jspecify.annotations.NullMarked;
