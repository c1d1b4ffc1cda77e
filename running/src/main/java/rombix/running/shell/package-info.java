/** The door through which a command in a shell reaches the Rombix that has its board open. Knows no toolkit. */
@NullMarked
package rombix.running.shell;

import org.jspecify.annotations.NullMarked;
