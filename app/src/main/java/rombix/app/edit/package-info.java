/** What editing decides, without a window: the board under the hand, its history, the selection, the score as data. */
@NullMarked
package rombix.app.edit;

import org.jspecify.annotations.NullMarked;
