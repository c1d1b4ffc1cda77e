/** The gear of the board: added, named, connected and tested, with its items, its card and its traffic. */
@NullMarked
package rombix.app.view.gear;

import org.jspecify.annotations.NullMarked;
