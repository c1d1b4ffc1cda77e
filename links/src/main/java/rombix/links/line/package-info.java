/** Text lines and bytes, over TCP, UDP or a serial port. */
@NullMarked
package rombix.links.line;

import org.jspecify.annotations.NullMarked;
