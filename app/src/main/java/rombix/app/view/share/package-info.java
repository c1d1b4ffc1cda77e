/** Boards that are handed over or come from elsewhere. */
@NullMarked
package rombix.app.view.share;

import org.jspecify.annotations.NullMarked;
