/** What the window, and every other face of the product, knows of the deck: its state as one stream of happenings
 * brings it, what plays it, what touches it. No toolkit. */
@NullMarked
package rombix.running.face;

import org.jspecify.annotations.NullMarked;
