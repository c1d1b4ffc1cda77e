package rombix.core.time;

import java.time.ZonedDateTime;

/** Time, handed in. Values are compared by difference; they may wrap. Safe to read from any thread. */
public interface Clock {
    /** Nanoseconds since some fixed moment. */
    long nanos();

    /** The time of day, where the operator is. */
    ZonedDateTime wall();

    /** How much of the machine's own time a span of this clock takes, in nanoseconds. */
    default long real(long nanos) {
        return nanos;
    }
}
