/** The window, put together from the other rooms: masthead, modes, commands and keyboard. */
@NullMarked
package rombix.app.view.window;

import org.jspecify.annotations.NullMarked;
