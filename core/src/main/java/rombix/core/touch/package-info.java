/** What touches from outside: keys, controllers and OSC messages, and the buttons that they press. */
@NullMarked
package rombix.core.touch;

import org.jspecify.annotations.NullMarked;
