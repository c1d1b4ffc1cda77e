/** MIDI through the platform's ports. */
@NullMarked
package rombix.links.midi;

import org.jspecify.annotations.NullMarked;
