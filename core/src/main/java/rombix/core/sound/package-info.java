/** Sound in memory: clips, their outlines, and the mixing of those that play, without a device. */
@NullMarked
package rombix.core.sound;

import org.jspecify.annotations.NullMarked;
