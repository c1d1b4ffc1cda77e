/** What a link is, how it reports, and the shell that the links of all protocols share. */
@NullMarked
package rombix.links.link;

import org.jspecify.annotations.NullMarked;
