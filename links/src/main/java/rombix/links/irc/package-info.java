/** Chat over IRC. */
@NullMarked
package rombix.links.irc;

import org.jspecify.annotations.NullMarked;
