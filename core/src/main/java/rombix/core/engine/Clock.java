package rombix.core.engine;

/** Time, handed in. Values are compared by difference; they may wrap. Safe to read from any thread. */
@FunctionalInterface
public interface Clock {
    /** Nanoseconds since some fixed moment. */
    long nanos();
}
