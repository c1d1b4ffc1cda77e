/** The patch of lamps: which fixture stands at which universe and slot, as a list and as a picture, and what its channels mean. */
@NullMarked
package rombix.app.view.patch;

import org.jspecify.annotations.NullMarked;
