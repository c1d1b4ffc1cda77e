/** The rack: all gear, live, and the popover that adds and reaches it. */
@NullMarked
package rombix.app.view.rack;

import org.jspecify.annotations.NullMarked;
