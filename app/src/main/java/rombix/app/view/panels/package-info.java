/** The windows of the stand-ins: panels to work them by hand, and the booth. */
@NullMarked
package rombix.app.view.panels;

import org.jspecify.annotations.NullMarked;
