/** OSC over UDP. */
@NullMarked
package rombix.links.osc;

import org.jspecify.annotations.NullMarked;
