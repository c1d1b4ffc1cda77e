/** Cards: a gear described as data, and the twin made from one. */
@NullMarked
package rombix.core.card;

import org.jspecify.annotations.NullMarked;
