/** What a button's face shows, for tiles of the window and any other display. */
@NullMarked
package rombix.running.face;

import org.jspecify.annotations.NullMarked;
