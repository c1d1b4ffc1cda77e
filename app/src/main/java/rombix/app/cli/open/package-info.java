/** Commands that open a board, its window, the demo or the stand-ins. */
@NullMarked
package rombix.app.cli.open;

import org.jspecify.annotations.NullMarked;
