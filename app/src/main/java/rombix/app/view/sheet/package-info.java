/** What lies over the page for a while: the log, the triggers, the boards, the parts of a board. */
@NullMarked
package rombix.app.view.sheet;

import org.jspecify.annotations.NullMarked;
