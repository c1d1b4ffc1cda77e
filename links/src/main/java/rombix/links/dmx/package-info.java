/** DMX over IP: streaming ACN out. */
@NullMarked
package rombix.links.dmx;

import org.jspecify.annotations.NullMarked;
