/** A button under the hand: its face, its rules, its control, its triggers, its menu. */
@NullMarked
package rombix.app.view.button;

import org.jspecify.annotations.NullMarked;
