/** Lines of IRC, as RFC 1459 and RFC 2812 have them. */
@NullMarked
package rombix.wire.irc;

import org.jspecify.annotations.NullMarked;
