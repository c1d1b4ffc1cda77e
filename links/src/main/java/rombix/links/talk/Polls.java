package rombix.links.talk;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.Function;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Arrival;
import rombix.core.card.Packet;
import rombix.core.card.Poll;
import rombix.core.card.Poll.Kind;
import rombix.core.twin.MessageReader;
import rombix.core.twin.Order;
import rombix.links.link.GearReport;
import rombix.links.link.Loop;

/**
 * Asks a gear again and again what it does not tell by itself, as its card says: each question at its own pace, which
 * is counted from question to question, and none before the last one was answered or given up. Each is asked when a
 * connection begins and when a message asks for it; the state that nothing shows is asked for each fifth time only. What
 * a greeting says of each item of a list goes out here, too, when the gear has listed it.
 */
public final class Polls implements AutoCloseable {
    /** How soon it is asked again where it was not there. */
    private static final long SOON_MILLIS = 250;
    /** Between two that messages ask for: what asks may be what was asked for. */
    private static final long APART_MILLIS = 100;
    private static final int UNSEEN = 5;
    private static final long NEVER = Long.MIN_VALUE;
    /** Whatever becomes of an answer, it is asked again. */
    private static final long LONGEST_SECONDS = 180;

    private final GearReport report;
    private final Function<Order.Outgoing, CompletableFuture<?>> ask;
    private final Function<Order.Outgoing, @Nullable String> from;
    private final List<Asking> all;

    /**
     * @param ask asks, on a thread of its own; what comes back is done when the answer is there, or when there is none
     * @param from the address from which an answer comes when its card says nothing else; null where it is not known
     */
    public Polls(GearReport report, Function<Order.Outgoing, CompletableFuture<?>> ask,
            Function<Order.Outgoing, @Nullable String> from) {
        this.report = report;
        this.ask = ask;
        this.from = from;
        all = Stream
                .concat(report.twin().polls().stream().map(Asking::new), report.twin().greetingByItem().stream().map(
                        Asking::new))
                .toList();
        report.follow(message -> all.forEach(a -> a.received(message)), () -> all.stream().filter(a -> a.ask
                .each() != null).forEach(Asking::wake));
        all.forEach(Asking::start);
    }

    /** A connection begins: what was known may be old. */
    public void begin() {
        all.forEach(Asking::begin);
    }

    /** One question. Its turn is taken on its loop's thread alone. */
    private final class Asking {
        private final Packet ask;
        private final Kind kind;
        private final @Nullable MessageReader on;
        /** How long from one question to the next; null where it is asked only when there is a reason. */
        private final @Nullable Integer every;
        /** Whether each item is asked about once. */
        private final boolean once;
        private final Semaphore wake = new Semaphore(0);
        /** What was asked since the connection began. Guarded by this. */
        private final Set<String> asked = new HashSet<>();
        private @Nullable Loop loop;
        private int left;
        private long next = NEVER;
        private final long pace;

        Asking(Poll poll) {
            Arrival message = poll.on();
            ask = poll.ask();
            kind = poll.purpose();
            on = message == null ? null : new MessageReader(message);
            every = poll.every();
            pace = TimeUnit.MILLISECONDS.toNanos(every == null ? SOON_MILLIS : every);
            once = false;
        }

        /** What is said once of each item that the gear lists. */
        Asking(Packet greeting) {
            ask = greeting;
            kind = Kind.RENEWAL;
            on = null;
            every = null;
            pace = TimeUnit.MILLISECONDS.toNanos(SOON_MILLIS);
            once = true;
        }

        void start() {
            wake();
            loop = Loop.start("poll " + report.twin().gear(), this::turn, report::troubled);
        }

        void begin() {
            synchronized (this) {
                asked.clear();
            }
            wake();
        }

        void wake() {
            wake.release();
        }

        void received(MessageReader.Message message) {
            if (on != null && on.means(message)) {
                wake();
            }
        }

        private void turn() throws InterruptedException {
            boolean woken = true;
            if (next == NEVER) {
                wake.acquire();
            } else {
                woken = wake.tryAcquire(Math.max(0, next - System.nanoTime()), TimeUnit.NANOSECONDS);
            }
            wake.drainPermits();
            long begun = System.nanoTime();
            List<Order.Outgoing> questions = report.twin().packets(ask, "a poll", report.lists());
            if (!woken && every != null && kind == Kind.STATE && left-- > 0
                    && questions.stream().noneMatch(q -> report.shows(place(
                            q)))) {
                next = begun + pace;
                return;
            }
            boolean done = true;
            for (Order.Outgoing question : questions) {
                done &= once && known(question) || answered(question);
            }
            left = done ? UNSEEN - 1 : 0; // What was not there was not asked.
            long now = System.nanoTime();
            if (!done) { // A connection that begins meanwhile is not waited for.
                next = now + Math.min(pace, TimeUnit.MILLISECONDS.toNanos(SOON_MILLIS));
            } else {
                next = every == null ? NEVER : Math.max(begun + pace, now + pace / 4);
                TimeUnit.MILLISECONDS.sleep(every == null ? APART_MILLIS : Math.min(APART_MILLIS, every / 4));
            }
        }

        private synchronized boolean known(Order.Outgoing question) {
            return asked.contains(key(question));
        }

        /** A packet that is made out when it goes out is no longer the same. */
        private static String key(Order.Outgoing question) {
            return question.address() + " " + question.args() + " " + question.head();
        }

        private @Nullable String place(Order.Outgoing question) {
            return question.reply() == null || question.reply().as() == null
                    ? from.apply(question)
                    : question.reply().as();
        }

        /** Whether it was answered, or went out where no answer is waited for. Why not, the link tells. */
        private boolean answered(Order.Outgoing question) throws InterruptedException {
            try {
                CompletableFuture<?> answer = Polls.this.ask.apply(kind == Kind.KEEP_ALIVE
                        ? question.unanswered()
                        : question);
                if (!answer.isCompletedExceptionally()) {
                    report.recordOutgoing(kind == Kind.KEEP_ALIVE ? "keep-alive" : once ? "greeting" : "question",
                            question);
                }
                answer.get(LONGEST_SECONDS, TimeUnit.SECONDS);
                synchronized (this) {
                    asked.add(key(question));
                }
                return true;
            } catch (ExecutionException | CancellationException | TimeoutException e) {
                return false;
            }
        }
    }

    @Override
    public void close() {
        all.forEach(a -> {
            Loop loop = a.loop;
            if (loop != null) {
                loop.close();
            }
        });
    }
}
