/** A button on the page as it is drawn: the tile, what it shows of levels, and the hand on them. */
@NullMarked
package rombix.app.view.tile;

import org.jspecify.annotations.NullMarked;
