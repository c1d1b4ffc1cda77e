/** Boards that go to another computer: one file with all that they need, and their gear matched with other gear. */
@NullMarked
package rombix.core.bundle;

import org.jspecify.annotations.NullMarked;
