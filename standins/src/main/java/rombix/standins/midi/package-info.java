/** MIDI gear, as devices of the JDK's MIDI system. */
@NullMarked
package rombix.standins.midi;

import org.jspecify.annotations.NullMarked;
