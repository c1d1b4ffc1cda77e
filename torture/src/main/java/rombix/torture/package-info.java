/** Trials of what Rombix promises: killed, ended, cut off, fed with rubbish, and kept running. Not shipped. */
@NullMarked
package rombix.torture;

import org.jspecify.annotations.NullMarked;
