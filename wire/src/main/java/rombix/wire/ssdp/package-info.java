/** How gear says over UDP that it is here (SSDP, of the UPnP Device Architecture). */
@NullMarked
package rombix.wire.ssdp;

import org.jspecify.annotations.NullMarked;
