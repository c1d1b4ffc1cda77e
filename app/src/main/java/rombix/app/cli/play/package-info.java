/** Commands that work a deck: press, turn, stop, show, status. */
@NullMarked
package rombix.app.cli.play;

import org.jspecify.annotations.NullMarked;
