/** Loudspeakers that keep what they are given, as outputs of the JDK's sound system. */
@NullMarked
package rombix.standins.sound;

import org.jspecify.annotations.NullMarked;
