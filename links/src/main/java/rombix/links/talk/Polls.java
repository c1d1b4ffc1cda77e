package rombix.links.talk;

import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Poll;
import rombix.core.card.Reply;
import rombix.core.twin.Order;
import rombix.core.twin.Twin;
import rombix.links.link.GearReport;
import rombix.links.link.Loop;

/**
 * Asks a gear again and again what it does not tell by itself, as its card says: each question at its own pace, which
 * is counted from question to question, and none before the last one was answered or given up. What nothing shows is
 * asked for each fifth time only.
 */
public final class Polls implements AutoCloseable {
    /** How soon it is asked again where it was not there. */
    private static final long SOON_MILLIS = 250;
    private static final int UNSEEN = 5;
    /** Whatever becomes of an answer, it is asked again. */
    private static final long LONGEST_SECONDS = 180;

    private final List<Loop> loops;

    /**
     * @param ask asks, on a thread of its own; what comes back is done when the answer is there, or when there is none
     * @param from the address from which an answer comes when its card says nothing else; null where it is not known
     */
    public Polls(GearReport report, Function<Order.Outgoing, CompletableFuture<?>> ask,
            Function<Order.Outgoing, @Nullable String> from) {
        Twin twin = report.twin();
        loops = twin.polls().stream().map(poll -> {
            Order.Outgoing question = twin.packet(poll.ask(), "a poll");
            Reply reply = question.reply();
            String as = reply == null || reply.as() == null ? from.apply(question) : reply.as();
            int[] left = new int[1];
            return Loop.start("poll " + twin.gear(), () -> {
                if (left[0]-- <= 0 || report.shows(as)) {
                    left[0] = UNSEEN - 1;
                    turn(report, poll, question, ask);
                } else {
                    TimeUnit.MILLISECONDS.sleep(poll.every());
                }
            }, report::troubled);
        }).toList();
    }

    private static void turn(GearReport report, Poll poll, Order.Outgoing question,
            Function<Order.Outgoing, CompletableFuture<?>> ask)
            throws InterruptedException {
        long next = System.nanoTime() + TimeUnit.MILLISECONDS.toNanos(poll.every());
        try {
            CompletableFuture<?> answer = ask.apply(question);
            if (!answer.isCompletedExceptionally()) {
                report.said("question", question);
            }
            answer.get(LONGEST_SECONDS, TimeUnit.SECONDS);
            TimeUnit.NANOSECONDS.sleep(Math.max(TimeUnit.MILLISECONDS.toNanos(poll.every()) / 4, next - System
                    .nanoTime()));
        } catch (ExecutionException | CancellationException | TimeoutException e) {
            TimeUnit.MILLISECONDS.sleep(Math.min(poll.every(), SOON_MILLIS)); // Why, the link tells.
        }
    }

    @Override
    public void close() {
        loops.forEach(Loop::close);
    }
}
