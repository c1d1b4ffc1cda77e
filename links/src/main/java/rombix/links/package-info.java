/** All links of a board, and the machine's clock. */
@NullMarked
package rombix.links;

import org.jspecify.annotations.NullMarked;
