package rombix.links.irc;

import java.util.concurrent.TimeUnit;

/** Keeps lines apart: five at once, then one a pause. Servers refuse who writes faster. One thread's, but for the rest. */
final class Pacing {
    private static final int AT_ONCE = 5;
    private static final long REST_MILLIS = 2000;

    private final long pauseNanos;
    /** Until when the lines that were sent have been paid for. */
    private long paid = System.nanoTime();

    Pacing(long pauseMillis) {
        pauseNanos = TimeUnit.MILLISECONDS.toNanos(pauseMillis);
    }

    /** Waits until another line may go out. */
    void next() throws InterruptedException {
        if (pauseNanos == 0) {
            return;
        }
        long now = System.nanoTime();
        paid = Math.max(paid, now - (AT_ONCE - 1) * pauseNanos);
        long wait = paid - now;
        if (wait > 0) {
            TimeUnit.NANOSECONDS.sleep(wait);
        }
        paid += pauseNanos;
    }

    /** Waits before it is tried again after one was thrown out. */
    void rest() {
        try {
            TimeUnit.MILLISECONDS.sleep(REST_MILLIS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
