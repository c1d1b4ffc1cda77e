package rombix.core.engine;

/** Time that moves only when it is told to. Not safe for use by several threads. */
public final class SimulatedClock implements Clock {
    private long now;

    @Override
    public long nanos() {
        return now;
    }

    /** Moves time on. */
    public void advance(long nanos) {
        now += nanos;
    }
}
