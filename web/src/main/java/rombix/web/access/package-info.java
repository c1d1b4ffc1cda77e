/** Who was let in and may do what: devices, programs, codes, tokens, and this computer's certificate. */
@NullMarked
package rombix.web.access;

import org.jspecify.annotations.NullMarked;
