/** HTTP, with streams of events. */
@NullMarked
package rombix.links.http;

import org.jspecify.annotations.NullMarked;
