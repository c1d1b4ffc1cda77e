/** The document: gear, pages, buttons, states and faces, as an immutable tree, and its edits. */
@NullMarked
package rombix.core.board;

import org.jspecify.annotations.NullMarked;
