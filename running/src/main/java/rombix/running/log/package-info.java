/** The as-run log: what was pressed, what it did and what went wrong, kept on disk across runs. */
@NullMarked
package rombix.running.log;

import org.jspecify.annotations.NullMarked;
