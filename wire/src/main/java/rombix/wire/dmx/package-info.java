/** DMX levels over IP: streaming ACN (ANSI E1.31). */
@NullMarked
package rombix.wire.dmx;

import org.jspecify.annotations.NullMarked;
