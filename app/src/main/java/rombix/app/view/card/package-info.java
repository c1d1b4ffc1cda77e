/** The card sheet: gear that an operator brings in, described by listening to it and by trying. */
@NullMarked
package rombix.app.view.card;

import org.jspecify.annotations.NullMarked;
