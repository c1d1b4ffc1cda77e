/** Boards and cards on disk: reading with errors that name a place, saving that survives a crash. */
@NullMarked
package rombix.core.store;

import org.jspecify.annotations.NullMarked;
