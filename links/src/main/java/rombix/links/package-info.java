/** All links of a board, and what the links of each protocol share. */
@NullMarked
package rombix.links;

import org.jspecify.annotations.NullMarked;
