/** What is to be seen: pictures, and where one is found in another. Pure. */
@NullMarked
package rombix.core.sight;

import org.jspecify.annotations.NullMarked;
