/** Where Rombix starts. */
@NullMarked
package rombix.app;

import org.jspecify.annotations.NullMarked;
