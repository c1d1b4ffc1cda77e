/** Simulated gear of a small observatory: real servers and devices of their protocols, with no knowledge of the deck. */
@NullMarked
package rombix.standins;

import org.jspecify.annotations.NullMarked;
