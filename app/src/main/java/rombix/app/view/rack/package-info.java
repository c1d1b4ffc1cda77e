/** The rack: all gear, live, operated by hand. */
@NullMarked
package rombix.app.view.rack;

import org.jspecify.annotations.NullMarked;
