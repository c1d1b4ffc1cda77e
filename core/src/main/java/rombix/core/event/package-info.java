/** What goes into the engine and what it tells: events, happenings, statuses, faults. */
@NullMarked
package rombix.core.event;

import org.jspecify.annotations.NullMarked;
