/** What is wrong with a board, found without pressing anything. */
@NullMarked
package rombix.core.check;

import org.jspecify.annotations.NullMarked;
