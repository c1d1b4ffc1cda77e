/** Edits that make a board of a board: buttons, pages, gear, copies, and what is proposed for a new button. */
@NullMarked
package rombix.core.edit;

import org.jspecify.annotations.NullMarked;
