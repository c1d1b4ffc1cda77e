package rombix.links.talk;

import java.io.IOException;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Arrival;
import rombix.core.card.Reply;
import rombix.core.twin.MessageReader.Message;
import rombix.core.twin.MessageReader;
import rombix.core.twin.Order;
import rombix.core.value.Value;
import rombix.links.link.GearPlaces;
import rombix.links.link.GearReport;

/** What is waited for of a gear: which message answers which packet, in the order of the packets. Safe to use from any thread. */
final class Replies {
    /** How many messages are kept that came before it was said what is waited for. */
    private static final int MOST_EARLY = 16;

    private final GearReport report;
    private final GearPlaces places;
    /** Oldest first. Guarded by this. */
    private final Set<Awaited> waiting = new LinkedHashSet<>();
    /** What came while the gear is greeted and answered nothing. Guarded by this. */
    private final Deque<Message> early = new ArrayDeque<>();

    private static final class Awaited {
        final Reply reply;
        final @Nullable MessageReader is;
        final @Nullable MessageReader error;
        final CompletableFuture<Void> answered = new CompletableFuture<>();

        Awaited(Reply reply) {
            this.reply = reply;
            Arrival answer = reply.is();
            Arrival refusal = reply.error();
            is = answer == null ? null : new MessageReader(answer);
            error = refusal == null ? null : new MessageReader(refusal);
        }
    }

    Replies(GearReport report, GearPlaces places) {
        this.report = report;
        this.places = places;
    }

    /** A connection begins. */
    synchronized void begin() {
        early.clear();
    }

    /** What a message was. */
    enum Taken {
        NOT, ANSWER, LANDED
    }

    /** Whether its answer says itself what it belongs to, so that others may go out before it comes. */
    static boolean byItself(Order.Outgoing packet) {
        Reply reply = packet.reply();
        return reply != null && reply.is() != null && !reply.is().where().isEmpty();
    }

    /** What answers a packet that is about to go out; fails with the gear's words, or by a time-out. */
    synchronized CompletableFuture<Void> awaited(Order.Outgoing packet) {
        Reply reply = packet.reply();
        if (reply == null) {
            return CompletableFuture.completedFuture(null);
        }
        Awaited one = new Awaited(reply);
        waiting.add(one);
        one.answered.orTimeout(reply.withinMillis(), TimeUnit.MILLISECONDS).whenComplete((_, _) -> forget(one));
        if (packet.address().equals(Talk.WAIT)) {
            early.removeIf(m -> answers(one, m));
        }
        return one.answered;
    }

    private synchronized void forget(Awaited one) {
        waiting.remove(one);
    }

    synchronized boolean waits() {
        return !waiting.isEmpty();
    }

    /**
     * Takes a message that came.
     *
     * @param greeted whether the greeting is over
     * @return what it was: one that has landed already, as its card says where; another answer; or no answer
     */
    Taken take(Message message, boolean greeted) {
        List<Awaited> now;
        synchronized (this) {
            now = new ArrayList<>(waiting);
            if (!greeted && early.size() < MOST_EARLY) {
                early.add(message);
            }
        }
        for (Awaited one : now) {
            if (answers(one, message)) {
                synchronized (this) {
                    early.remove(message);
                }
                String as = one.reply.as();
                if (as != null) {
                    report.landed(as, message.args());
                }
                return as != null ? Taken.LANDED : Taken.ANSWER;
            }
        }
        return Taken.NOT;
    }

    /** The gear has answered that it will not. */
    static final class Declined extends IOException {
        private static final long serialVersionUID = 1;

        Declined(String why) {
            super(why);
        }
    }

    /** Whether a message answers what is waited for; then that is over. */
    private boolean answers(Awaited one, Message message) {
        if (one.answered.isDone()) {
            return false;
        }
        if (one.error != null && one.error.means(message)) {
            Value words = one.error.raw(message);
            one.answered.completeExceptionally(new Declined("refused: " + (words == null
                    ? String.join(" ", message.args().stream().map(Value::toString).toList())
                    : words)));
            return true;
        }
        if (one.is != null && !one.is.means(message)) {
            return false;
        }
        for (Map.Entry<String, Arrival> e : one.reply.keep().entrySet()) {
            MessageReader reader = new MessageReader(e.getValue());
            Value told = reader.means(message) ? reader.raw(message) : null;
            if (told != null) {
                places.keep(e.getKey(), told);
            }
        }
        one.answered.complete(null);
        return true;
    }

    /** The connection has ended: nothing comes any more. */
    void end(String why) {
        List<Awaited> left;
        synchronized (this) {
            left = new ArrayList<>(waiting);
        }
        left.forEach(one -> one.answered.completeExceptionally(new IOException(why)));
    }

    /** What is behind a failure. */
    static @Nullable Throwable root(@Nullable Throwable why) {
        Throwable e = why;
        while ((e instanceof CompletionException || e instanceof ExecutionException) && e.getCause() != null) {
            e = e.getCause();
        }
        return e;
    }
}
