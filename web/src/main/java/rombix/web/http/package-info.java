/** Requests from outside: what is checked before anything else, the page's files, and the channel that a device keeps open. */
@NullMarked
package rombix.web.http;

import org.jspecify.annotations.NullMarked;
