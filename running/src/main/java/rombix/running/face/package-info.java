/** What a face of the product shows of a deck, whoever shows it: a tile of the window, a page in a browser. */
@NullMarked
package rombix.running.face;

import org.jspecify.annotations.NullMarked;
