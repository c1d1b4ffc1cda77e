/** Cards: a gear described as data. */
@NullMarked
package rombix.core.card;

import org.jspecify.annotations.NullMarked;
