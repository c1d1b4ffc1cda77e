package rombix.core.time;

import java.time.ZoneOffset;
import java.time.ZonedDateTime;

/** Time that moves only when it is told to. Not safe for use by several threads. */
public final class SimulatedClock implements Clock {
    private ZonedDateTime start;
    private long now;

    /** Begins at midnight, the first of January 2026, in UTC. */
    public SimulatedClock() {
        this(ZonedDateTime.of(2026, 1, 1, 0, 0, 0, 0, ZoneOffset.UTC));
    }

    public SimulatedClock(ZonedDateTime start) {
        this.start = start;
    }

    @Override
    public long nanos() {
        return now;
    }

    @Override
    public ZonedDateTime wall() {
        return start.plusNanos(now);
    }

    /** Sets the time of day, as a person or the network may; negative to set it back. */
    public void set(java.time.Duration by) {
        start = start.plus(by);
    }

    /** Moves time on. */
    public void advance(long nanos) {
        now += nanos;
    }
}
