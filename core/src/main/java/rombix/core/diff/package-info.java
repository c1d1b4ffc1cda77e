/** What is otherwise in one board than in another, in words, and two that were made of one put together. */
@NullMarked
package rombix.core.diff;

import org.jspecify.annotations.NullMarked;
