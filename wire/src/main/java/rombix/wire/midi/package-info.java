/** MIDI 1.0 channel messages and a splitter for byte streams. */
@NullMarked
package rombix.wire.midi;

import org.jspecify.annotations.NullMarked;
