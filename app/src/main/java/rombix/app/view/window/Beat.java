package rombix.app.view.window;

import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import javafx.animation.AnimationTimer;
import javafx.application.Platform;

/**
 * When the window has to do something: in each pulse as long as something moves, once when something came in, and once
 * a second for what shows the time. In between nothing wakes the interface's thread.
 */
final class Beat implements AutoCloseable {
    private static final long SECOND_MILLIS = 1000;

    private final Runnable second;
    private final AnimationTimer pulses;
    private final ScheduledExecutorService seconds = Executors.newSingleThreadScheduledExecutor(Thread.ofPlatform()
            .daemon().name("seconds").factory());

    /**
     * @param pulse what is done in a pulse, on the interface's thread; whether something still moves
     * @param second what is done as each second of the clock begins, on the interface's thread
     */
    Beat(BooleanSupplier pulse, Runnable second) {
        this.second = second;
        pulses = new AnimationTimer() {
            @Override
            public void handle(long now) {
                stop(); // Before: what comes in from now on starts it again.
                if (pulse.getAsBoolean()) {
                    start();
                }
            }
        };
        untilNextSecond();
    }

    /** A pulse is wanted. From any thread. */
    void wake() {
        Platform.runLater(pulses::start);
    }

    private void untilNextSecond() {
        long rest = SECOND_MILLIS - System.currentTimeMillis() % SECOND_MILLIS;
        seconds.schedule(() -> {
            Platform.runLater(second);
            untilNextSecond();
        }, rest, TimeUnit.MILLISECONDS);
    }

    @Override
    public void close() {
        seconds.shutdownNow();
        pulses.stop();
    }
}
