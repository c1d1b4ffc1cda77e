package rombix.links;

import java.time.ZonedDateTime;
import rombix.core.time.Clock;

/** The machine's own clock. */
public final class MachineClock implements Clock {
    @Override
    public long nanos() {
        return System.nanoTime();
    }

    @Override
    public ZonedDateTime wall() {
        return ZonedDateTime.now();
    }
}
