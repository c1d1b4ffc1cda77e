/** A step under the hand: its popover, and a form for each kind of step. */
@NullMarked
package rombix.app.view.step;

import org.jspecify.annotations.NullMarked;
