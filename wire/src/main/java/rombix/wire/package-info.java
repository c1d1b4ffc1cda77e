/** What the codecs share: the error that says why a packet is malformed. */
@NullMarked
package rombix.wire;

import org.jspecify.annotations.NullMarked;
