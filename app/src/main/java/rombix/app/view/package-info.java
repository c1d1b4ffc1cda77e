/** The window and its views. */
@NullMarked
package rombix.app.view;

import org.jspecify.annotations.NullMarked;
