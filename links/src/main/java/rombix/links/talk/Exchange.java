package rombix.links.talk;

import java.io.IOException;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rombix.core.event.Cause;
import rombix.core.twin.Order;
import rombix.core.value.Limits;
import rombix.core.value.Value;
import rombix.links.link.GearPlaces;
import rombix.links.link.Refused;

/**
 * Says packets over a connection and waits for what answers them: for one at a time where answers do not tell what they
 * belong to, for as many as the card's window allows where they do. Two in a row that stay unanswered end the
 * connection. {@link #say} is called on one thread at a time.
 */
final class Exchange {
    private static final int MISSED = 2;
    private static final int MOST_OPEN = 1000;

    private final GearPlaces places;
    private final Replies replies;
    private final SendQueue queue;
    private final long paceMillis;
    private final boolean several;
    private final Semaphore window;
    private final Runnable frozen;
    private volatile int missed;

    /**
     * @param several how many may be unanswered at once; null where the card does not say
     * @param frozen run when nothing is answered any more
     */
    Exchange(GearPlaces places, Replies replies, SendQueue queue, @Nullable Integer several, Runnable frozen) {
        this.places = places;
        this.replies = replies;
        this.queue = queue;
        this.paceMillis = (long) places.number(Usual.PACE, 0);
        this.several = several != null && several > 1;
        this.window = new Semaphore(several == null ? MOST_OPEN : several);
        this.frozen = frozen;
    }

    /** Something was received: the gear is answering, even if not this request. */
    void received() {
        missed = 0;
    }

    /**
     * Sends a packet, and waits for its answer where nothing may go out before it has come.
     *
     * @param question whether it is a poll: then an order that comes meanwhile ends the wait, and the answer is still
     *            taken when it comes
     * @param wired takes it as it is on the wire
     * @return done when it is answered
     */
    CompletableFuture<Void> say(Wire to, Order.Outgoing packet, boolean last, boolean question,
            Consumer<Order.Outgoing> wired)
            throws IOException, InterruptedException {
        Order.Outgoing made = places.made(packet);
        boolean waits = made.reply() != null;
        boolean free = waits && last && (several || Replies.byItself(made));
        if (free) {
            window.acquire();
        }
        CompletableFuture<Void> answer = waits
                ? replies.awaited(made, question)
                : CompletableFuture.completedFuture(null);
        answer.whenComplete((_, e) -> {
            if (free) {
                window.release();
            }
            unanswered(e);
        });
        if (!made.address().equals(Talk.WAIT)) {
            try {
                to.write(made);
            } catch (IOException e) {
                to.close();
                throw new Refused(e, Cause.BROKE);
            }
        }
        wired.accept(made);
        if (question) {
            await(CompletableFuture.anyOf(answer, queue.ordered()));
        } else if (waits && !free) {
            await(last ? CompletableFuture.anyOf(answer, queue.urgent()) : answer); // What stops waits for no answer.
        }
        TimeUnit.MILLISECONDS.sleep(Math.max(made.pauseMillis(), last ? paceMillis : 0));
        return answer;
    }

    private static void await(CompletableFuture<?> answer) throws IOException, InterruptedException {
        try {
            answer.get();
        } catch (ExecutionException e) {
            throw Replies.root(e) instanceof IOException why ? why : new IOException(words(e), e);
        }
    }

    private void unanswered(@Nullable Throwable why) {
        if (Replies.root(why) instanceof TimeoutException && ++missed >= MISSED) {
            frozen.run();
        }
    }

    /** Why something was not done, in plain words. */
    static String words(Throwable why) {
        Throwable root = Replies.root(why);
        return root instanceof TimeoutException
                ? "didn't respond"
                : String.valueOf(root == null ? "" : root.getMessage());
    }

    /** What a question asks, as it stands on the wire. */
    static String quoted(Order.Outgoing packet) {
        String said = packet.args().stream().map(Value::toString).collect(Collectors.joining(" "));
        return "the query " + Limits.quoted(said.isBlank() ? packet.address() : said);
    }
}
