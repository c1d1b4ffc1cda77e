package rombix.core.time;

import java.time.ZonedDateTime;

/** Another clock, going faster or slower; its pace can be changed as it goes. Safe to use from any thread. */
public final class FastClock implements Clock {
    private final Clock base;
    private volatile Pace pace;

    /** From a moment of the base on: where this clock was then, and how fast it goes. */
    private record Pace(long baseNanos, long nanos, ZonedDateTime wall, double factor) {
    }

    public FastClock(Clock base) {
        this.base = base;
        this.pace = new Pace(base.nanos(), base.nanos(), base.wall(), 1);
    }

    /** Goes so many times as fast as the base from now on. */
    public synchronized void factor(double factor) {
        if (!(factor > 0)) {
            throw new IllegalArgumentException("a clock goes forward");
        }
        long now = base.nanos();
        Pace before = pace;
        long gone = Math.round((now - before.baseNanos()) * before.factor());
        pace = new Pace(now, before.nanos() + gone, before.wall().plusNanos(gone), factor);
    }

    @Override
    public long nanos() {
        Pace p = pace;
        return p.nanos() + Math.round((base.nanos() - p.baseNanos()) * p.factor());
    }

    @Override
    public ZonedDateTime wall() {
        Pace p = pace;
        return p.wall().plusNanos(Math.round((base.nanos() - p.baseNanos()) * p.factor()));
    }

    @Override
    public long real(long nanos) {
        return base.real(Math.round(nanos / pace.factor()));
    }
}
