/** Cards made from what a gear was heard to say, and from what was said to it by hand. Pure. */
@NullMarked
package rombix.core.listen;

import org.jspecify.annotations.NullMarked;
