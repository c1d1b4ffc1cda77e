/** Boards on paper: pages with what their buttons do, run sheets, the patch, the gear; as PDF, and of that as pictures. */
@NullMarked
package rombix.app.paper;

import org.jspecify.annotations.NullMarked;
