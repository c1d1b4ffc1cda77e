/** What a device is shown of the deck, and what its hand does there. */
@NullMarked
package rombix.web.deck;

import org.jspecify.annotations.NullMarked;
