package rombix.links.link;

import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.function.Function;
import rombix.core.card.Order;
import rombix.core.card.Poll;
import rombix.core.card.Twin;

/**
 * Asks a gear again and again what it does not tell by itself, as its card says: each question at its own pace, which
 * is counted from question to question, and none before the last one was answered or given up.
 */
public final class Polls implements AutoCloseable {
    /** How soon it is asked again where it was not there. */
    private static final long SOON_MILLIS = 250;

    private final List<Loop> loops;

    /**
     * @param ask asks, on a thread of its own; what comes back is done when the answer is there, or when there is none
     */
    public Polls(GearReport report, Function<Order.Outgoing, CompletableFuture<?>> ask) {
        Twin twin = report.twin();
        loops = twin.polls().stream().map(poll -> Loop.start("poll " + twin.gear(), () -> turn(twin, poll, ask),
                report::troubled)).toList();
    }

    private static void turn(Twin twin, Poll poll, Function<Order.Outgoing, CompletableFuture<?>> ask)
            throws InterruptedException {
        long next = System.nanoTime() + TimeUnit.MILLISECONDS.toNanos(poll.every());
        try {
            ask.apply(twin.packet(poll.ask(), "a poll")).get();
            TimeUnit.NANOSECONDS.sleep(Math.max(TimeUnit.MILLISECONDS.toNanos(poll.every()) / 4, next - System
                    .nanoTime()));
        } catch (ExecutionException | CancellationException e) {
            TimeUnit.MILLISECONDS.sleep(Math.min(poll.every(), SOON_MILLIS)); // Why, the link tells.
        }
    }

    @Override
    public void close() {
        loops.forEach(Loop::close);
    }
}
