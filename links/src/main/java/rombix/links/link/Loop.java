package rombix.links.link;

import java.time.Duration;
import java.util.function.Consumer;

/**
 * The loop of a link: a thread that takes turn after turn until it is closed. A turn that throws is told and followed
 * by a pause, so that a turn which fails at once takes no core; the loop itself goes on. Safe to use from any thread.
 */
public final class Loop implements AutoCloseable {
    /** One turn: waits until there is something to do, and does it. Called on the loop's thread alone. */
    @FunctionalInterface
    public interface Turn {
        /** @throws Exception which ends this turn, not the loop */
        void take() throws Exception;
    }

    private static final Duration PAUSE = Duration.ofMillis(500);

    private final Turn turn;
    private final Consumer<Throwable> trouble;
    private final Thread thread;
    private volatile boolean closed;

    /** @param trouble told of what a turn threw, on the loop's thread; what it throws itself is dropped */
    private Loop(Thread.Builder builder, Turn turn, Consumer<Throwable> trouble) {
        this.turn = turn;
        this.trouble = trouble;
        this.thread = builder.unstarted(this::run);
    }

    /** A loop on a virtual thread, for turns that wait long. */
    public static Loop start(String name, Turn turn, Consumer<Throwable> trouble) {
        return started(Thread.ofVirtual().name(name), turn, trouble);
    }

    /** A loop on a thread of the system, for turns that wake up often: that costs half of a virtual thread's. */
    public static Loop startOften(String name, Turn turn, Consumer<Throwable> trouble) {
        return started(Thread.ofPlatform().daemon().name(name), turn, trouble);
    }

    private static Loop started(Thread.Builder builder, Turn turn, Consumer<Throwable> trouble) {
        Loop loop = new Loop(builder, turn, trouble);
        loop.thread.start();
        return loop;
    }

    private void run() {
        while (!closed) {
            try {
                turn.take();
            } catch (InterruptedException e) {
                return; // Closed.
            } catch (Throwable e) {
                if (closed) {
                    return;
                }
                tell(e);
                try {
                    Thread.sleep(PAUSE);
                } catch (InterruptedException closing) {
                    return;
                }
            }
        }
    }

    private void tell(Throwable e) {
        try {
            trouble.accept(e);
        } catch (RuntimeException | Error again) {
            // Nobody is left to be told; the loop goes on.
        }
    }

    /** Whether it was closed: what a turn meets then is no trouble. */
    public boolean closed() {
        return closed;
    }

    /** Ends the loop; a turn that waits is interrupted. */
    @Override
    public void close() {
        closed = true;
        thread.interrupt();
    }
}
