/** Options and arguments that several commands share. */
@NullMarked
package rombix.app.cli.option;

import org.jspecify.annotations.NullMarked;
