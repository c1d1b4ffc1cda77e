/** How values are written on a wire and read from it: types, places in JSON, mapped and computed ones. */
@NullMarked
package rombix.core.card.value;

import org.jspecify.annotations.NullMarked;
