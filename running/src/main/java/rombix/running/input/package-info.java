/** What presses from outside: keys, controllers, gamepads, OSC. */
@NullMarked
package rombix.running.input;

import org.jspecify.annotations.NullMarked;
