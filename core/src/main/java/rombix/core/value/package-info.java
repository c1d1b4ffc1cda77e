/** Values that travel: what readings report, arguments carry and boards hold. */
@NullMarked
package rombix.core.value;

import org.jspecify.annotations.NullMarked;
