/** The command line. */
@NullMarked
package rombix.app.cli;

import org.jspecify.annotations.NullMarked;
