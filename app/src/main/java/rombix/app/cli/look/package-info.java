/** Commands that look ahead or look for a cause, and change nothing. */
@NullMarked
package rombix.app.cli.look;

import org.jspecify.annotations.NullMarked;
