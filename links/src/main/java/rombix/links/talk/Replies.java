package rombix.links.talk;

import java.io.IOException;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashSet;
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
    private static final long UNKNOWN_NANOS = TimeUnit.MILLISECONDS.toNanos(500);

    private final GearReport report;
    private final GearPlaces places;
    /** Oldest first. Guarded by this. */
    private final Set<Awaited> waiting = new LinkedHashSet<>();
    /** Whether an order waits for more than one answer. Guarded by this. */
    private boolean keeping;
    /** What came while the gear is greeted, or such an order goes out, and answered nothing. Guarded by this. */
    private final Deque<Message> early = new ArrayDeque<>();

    /** The questions that were answered since the connection began. Guarded by this. */
    private final Set<String> known = new HashSet<>();
    private final @Nullable MessageReader expired;
    private final Runnable whenExpired;

    private static final class Awaited {
        final Reply reply;
        final @Nullable MessageReader is;
        final @Nullable MessageReader error;
        /** What is asked; null where it is an order. */
        final @Nullable String question;
        final long atNanos = System.nanoTime();
        final CompletableFuture<Void> answered = new CompletableFuture<>();

        Awaited(Reply reply, @Nullable String question) {
            this.reply = reply;
            this.question = question;
            Arrival answer = reply.is();
            Arrival refusal = reply.error();
            is = answer == null ? null : new MessageReader(answer);
            error = refusal == null ? null : new MessageReader(refusal);
        }

        boolean refusedBy(Message message) {
            return error != null && error.means(message);
        }

        /** Whether a message may answer it. */
        boolean meant(Message message) {
            return !answered.isDone() && (refusedBy(message) || is == null || is.means(message));
        }

        /** Whether a message says more than that it has come. */
        boolean surely(Message message) {
            return refusedBy(message) || is != null && !is.arrival().plain();
        }
    }

    /** @param whenExpired run when a login has run out, before what waits is told */
    Replies(GearReport report, GearPlaces places, Runnable whenExpired) {
        this.whenExpired = whenExpired;
        this.report = report;
        this.places = places;
        Arrival says = report.twin().card().expired().get(report.twin().protocol());
        expired = says == null ? null : new MessageReader(says);
    }

    /** A connection begins. */
    synchronized void begin() {
        early.clear();
        known.clear();
    }

    /** Whether what comes before it is waited for is kept from now on: a second answer may come right behind the first. */
    synchronized void keep(boolean on) {
        keeping = on;
        early.clear();
    }

    /** What a message was. */
    enum Taken {
        NOT, ANSWER, LANDED, EXPIRED
    }

    /** Whether its answer says itself what it belongs to, so that others may go out before it comes. */
    static boolean byItself(Order.Outgoing packet) {
        Reply reply = packet.reply();
        return reply != null && reply.is() != null && !reply.is().where().isEmpty();
    }

    /** What answers a packet that is about to go out; fails with the gear's words, or by a time-out. */
    synchronized CompletableFuture<Void> awaited(Order.Outgoing packet, boolean question) {
        Reply reply = packet.reply();
        if (reply == null) {
            return CompletableFuture.completedFuture(null);
        }
        Awaited one = new Awaited(reply, question ? packet.address() + packet.args() : null);
        waiting.add(one);
        one.answered.orTimeout(reply.withinMillis(), TimeUnit.MILLISECONDS).whenComplete((_, _) -> forget(one));
        if (packet.address().equals(Talk.WAIT)) {
            early.stream().filter(one::meant).findFirst().ifPresent(m -> {
                early.remove(m);
                answer(one, m);
            });
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
     * @param whole whether it is all of one; what may be the begin of one answers only what it surely answers
     * @return what it was: one that has landed already, as its card says where; another answer; or no answer
     */
    Taken take(Message message, boolean greeted, boolean whole) {
        if (greeted && expired != null && expired.means(message)) {
            whenExpired.run();
            end(new Expired());
            return Taken.EXPIRED;
        }
        Awaited one;
        synchronized (this) {
            one = best(message);
            if (one == null || !whole && !one.surely(message)) {
                if (whole && (!greeted || keeping) && early.size() < MOST_EARLY) {
                    early.add(message);
                }
                return Taken.NOT;
            }
            if (one.question != null) {
                known.add(one.question);
            }
        }
        answer(one, message);
        String as = one.reply.as();
        if (as != null) {
            report.landed(as, message.args());
        }
        return as != null ? Taken.LANDED : Taken.ANSWER;
    }

    /**
     * What a message answers: what it surely answers before what anything answers, and the oldest of those. A question
     * that was never answered gives way to others when its time is up: such gear does not know it.
     */
    private @Nullable Awaited best(Message message) {
        long now = System.nanoTime();
        Awaited best = null;
        int most = -1;
        for (Awaited one : waiting) {
            if (one.meant(message)) {
                boolean unknown = one.question != null && !known.contains(one.question) && now
                        - one.atNanos > UNKNOWN_NANOS;
                int weight = (one.surely(message) ? 2 : 0) + (unknown ? 0 : 1);
                if (weight > most) {
                    best = one;
                    most = weight;
                }
            }
        }
        return best;
    }

    /** The login has run out: what waits is not answered any more. */
    static final class Expired extends IOException {
        private static final long serialVersionUID = 1;

        Expired() {
            super("the login has expired");
        }
    }

    /** The gear has answered that it will not. */
    static final class Declined extends IOException {
        private static final long serialVersionUID = 1;

        Declined(String why) {
            super(why);
        }
    }

    private void answer(Awaited one, Message message) {
        if (one.refusedBy(message)) {
            Value read = java.util.Objects.requireNonNull(one.error).raw(message);
            String words = read == null
                    ? String.join(" ", message.args().stream().map(Value::toString).toList())
                    : read.toString();
            one.answered.completeExceptionally(new Declined("refused: " + one.reply.words().getOrDefault(words,
                    words)));
            return;
        }
        for (Map.Entry<String, Arrival> e : one.reply.keep().entrySet()) {
            MessageReader reader = new MessageReader(e.getValue());
            Value told = reader.means(message) ? reader.raw(message) : null;
            if (told != null) {
                places.keep(e.getKey(), told);
            }
        }
        one.answered.complete(null);
    }

    /** Fails everything that waits for an answer. */
    void end(IOException why) {
        List<Awaited> left;
        synchronized (this) {
            left = List.copyOf(waiting);
        }
        left.forEach(one -> one.answered.completeExceptionally(why));
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
