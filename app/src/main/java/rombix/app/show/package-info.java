/** A board in play: the conductor, the links and, where wanted, the stand-ins, put together. */
@NullMarked
package rombix.app.show;

import org.jspecify.annotations.NullMarked;
