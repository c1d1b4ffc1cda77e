/** This computer as a machine: its windows, keys, pointer and screen, in the ways that a system offers. */
@NullMarked
package rombix.links.desktop.machine;

import org.jspecify.annotations.NullMarked;
