/** Pages in a browser: the server that shows a running deck to devices and lets them work it. */
@NullMarked
package rombix.web;

import org.jspecify.annotations.NullMarked;
