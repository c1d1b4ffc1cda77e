/** A player: sound clips through the outputs of this machine. */
@NullMarked
package rombix.links.sound;

import org.jspecify.annotations.NullMarked;
