/** Gamepads and joysticks, as something that presses. */
@NullMarked
package rombix.links.gamepad;

import org.jspecify.annotations.NullMarked;
