package rombix.links.talk;

import java.io.IOException;
import java.net.SocketTimeoutException;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import rombix.core.event.Cause;
import rombix.core.event.Gears;
import rombix.core.event.Status.Phase;
import rombix.core.event.Trouble;
import rombix.core.twin.MessageReader.Message;
import rombix.core.twin.Order;
import rombix.links.link.Connected;
import rombix.links.link.GearPlaces;
import rombix.links.link.GearReport;
import rombix.links.link.Link;
import rombix.links.link.Loop;
import rombix.links.link.Refused;
import rombix.wire.Malformed;

/**
 * A link whose messages go to and fro over one connection: it greets as the card says and is ready when that was
 * answered, sends orders one after the other with their pauses, waits for what belongs to each, asks its polls, and
 * hands on what comes. How a connection is opened and how one message stands in it is the protocol's own: a
 * {@link Dialer}. What the gear leaves without an answer twice in a row is left as it does not answer any more.
 */
public final class Talk implements Link {
    /** An address of a greeting to which nothing is sent: only its reply is waited for. */
    public static final String WAIT = "wait";
    private static final int MISSED = 2;
    private static final long GREETER_MILLIS = 1000;
    private static final long POLL_ANSWER_MILLIS = 2000;

    /** A connection. {@code write} and {@code read} are called on one thread at a time each. */
    public interface Wire extends AutoCloseable {
        /**
         * @throws IOException where the connection is of no more use
         * @throws IllegalArgumentException in plain words, where the packet is at fault
         */
        void write(Order.Outgoing packet) throws IOException;

        /**
         * The next message; null where there are no more.
         *
         * @throws SocketTimeoutException where none came for a while; the connection is as it was
         * @throws Malformed where one could not be read; the next one can
         */
        @Nullable
        Message read() throws IOException, Malformed;

        @Override
        void close();
    }

    /** Opens a connection. Called on the link's thread. */
    public interface Dialer {
        /** @throws IOException in plain words why there is none */
        Wire dial() throws IOException, InterruptedException;

        /** For how long it is kept open when nothing is said, in milliseconds; 0 where it is kept for good. */
        default long keptMillis() {
            return 0;
        }
    }

    private final GearReport report;
    private final GearPlaces places;
    private final Dialer dialer;
    private final Replies replies;
    private final Waiting queue = new Waiting();
    private final Connected<Wire> connected;
    private final Loop writer;
    private final Polls polls;
    private final long paceMillis;
    private volatile @Nullable Wire wire;
    /** Why the present connection was left; null where it was not. */
    private volatile @Nullable IOException left;
    private volatile int missed;
    /** For a connection that is opened only when there is something to say. */
    private final Semaphore wanted = new Semaphore(1);
    /** Done with the present connection once it is ready. */
    private volatile CompletableFuture<Wire> open = new CompletableFuture<>();

    /** @param name of the protocol, for its threads */
    public Talk(String name, GearReport report, GearPlaces places, Dialer dialer) {
        this.report = report;
        this.places = places;
        this.dialer = dialer;
        this.replies = new Replies(report, places);
        this.paceMillis = (long) places.number(Usual.PACE, 0);
        writer = Loop.startOften(name + "-out " + report.twin().gear(), this::write, report::troubled);
        connected = new Connected<>(report, name + "-in", new Connected.Way<>() {
            @Override
            public Wire connect() throws IOException, InterruptedException {
                if (dialer.keptMillis() > 0) {
                    wanted.acquire(); // The first one comes by itself, to see whether it is there.
                }
                try {
                    return dialer.dial();
                } catch (IOException e) {
                    wanted.release();
                    throw e;
                }
            }

            @Override
            public void serve(Wire wire) throws IOException {
                Talk.this.serve(wire);
            }
        });
        polls = new Polls(report, this::asked, _ -> null);
    }

    private void serve(Wire to) throws IOException {
        left = null;
        missed = 0;
        places.forget();
        replies.begin();
        wire = to;
        Thread greeter = Thread.startVirtualThread(() -> greet(to));
        IOException why = null;
        try {
            listen(to);
        } catch (IOException e) {
            why = e;
        }
        wire = null;
        boolean over = why == null && left == null && dialer.keptMillis() > 0 && open.isDone();
        IOException reason = left;
        replies.end(over
                ? "it ended the connection before it answered"
                : reason == null ? "the connection broke" : String.valueOf(reason.getMessage()));
        joined(greeter); // What it was refused with is why it ended.
        open = new CompletableFuture<>();
        if (over) {
            return;
        }
        if (dialer.keptMillis() > 0) {
            wanted.release(); // Whether it is there again has to be seen.
        }
        IOException known = left;
        throw known != null ? known : why != null ? why : new Refused(Cause.ENDED);
    }

    private static void joined(Thread greeter) {
        try {
            greeter.join(GREETER_MILLIS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        greeter.interrupt();
    }

    /** Says and awaits what stands at the beginning. */
    private void greet(Wire to) {
        try {
            for (Order.Outgoing packet : report.twin().greeting()) {
                report.said("greeting", packet);
                say(to, packet, false, false);
            }
            report.ready();
            open.complete(to);
        } catch (InterruptedException e) {
            // The connection has ended.
        } catch (Refused e) {
            leave(e);
        } catch (IOException | IllegalArgumentException e) {
            leave(wire == null && !(e instanceof Replies.Declined)
                    ? new Refused(e, Cause.ENDED)
                    : new Refused(e, Cause.GREETING_REFUSED, String.valueOf(e.getMessage())));
        } catch (RuntimeException | Error e) {
            report.troubled(e);
            leave(new IOException(Trouble.words(e), e));
        }
    }

    /** Until the connection ends, or nothing was said for as long as it is kept. */
    private void listen(Wire from) throws IOException {
        long heard = System.nanoTime();
        while (left == null) {
            try {
                Message message = from.read();
                if (message == null) {
                    return;
                }
                heard = System.nanoTime();
                missed = 0;
                switch (replies.take(message, open.isDone())) {
                    case NOT -> report.landed(message.address(), message.args());
                    case ANSWER -> report.answered(message.address(), message.args());
                    case LANDED -> {
                    }
                }
            } catch (SocketTimeoutException e) {
                long kept = dialer.keptMillis();
                if (kept > 0 && queue.isEmpty() && !replies.waits() && System.nanoTime() - heard > TimeUnit.MILLISECONDS
                        .toNanos(kept)) {
                    return;
                }
            } catch (Malformed e) {
                report.ignored(String.valueOf(e.getMessage()));
            }
        }
    }

    private void leave(IOException why) {
        Wire now = wire;
        left = why;
        if (now != null) {
            now.close();
        }
    }

    private void write() throws InterruptedException {
        Waiting.Job job = queue.take();
        try {
            work(job);
        } catch (InterruptedException e) {
            job.done().accept("was closed"); // Whoever waits for it is told.
            throw e;
        }
    }

    private void work(Waiting.Job job) throws InterruptedException {
        Wire to = reached();
        if (to == null) {
            job.done().accept(connected.closed() ? "was closed" : "is not connected");
            return;
        }
        if (System.nanoTime() - job.atNanos() > TimeUnit.MILLISECONDS.toNanos(report.twin().card().ageMillis())) {
            job.done().accept(GearReport.tooOld(report.twin()));
            return;
        }
        CompletableFuture<Void> answered = CompletableFuture.completedFuture(null);
        try {
            for (int i = 0; i < job.packets().size(); i++) {
                answered = say(to, job.packets().get(i), i == job.packets().size() - 1, job.question());
            }
        } catch (IOException | IllegalArgumentException e) {
            job.done().accept(String.valueOf(e.getMessage()));
            return;
        } catch (RuntimeException | Error e) {
            report.troubled(e);
            job.done().accept(Trouble.words(e));
            return;
        }
        answered.whenComplete((_, e) -> job.done().accept(e == null ? null : words(e)));
    }

    /** The connection to speak over; one that is not kept is waited for. Null where there is none. */
    private @Nullable Wire reached() throws InterruptedException {
        if (open.isDone() || dialer.keptMillis() == 0) {
            return open.getNow(null);
        }
        wanted.drainPermits();
        wanted.release();
        try {
            return open.get(report.twin().card().ageMillis(), TimeUnit.MILLISECONDS);
        } catch (ExecutionException | TimeoutException e) {
            return null;
        }
    }

    /**
     * Sends a packet, and waits for its answer where nothing may go out before it has come.
     *
     * @param question whether it is a poll: then an order that comes meanwhile ends the wait, and the answer is still
     *            taken when it comes
     */
    private CompletableFuture<Void> say(Wire to, Order.Outgoing packet, boolean last, boolean question)
            throws IOException, InterruptedException {
        Order.Outgoing made = places.made(packet);
        boolean waits = made.reply() != null;
        CompletableFuture<Void> answer = waits
                ? replies.awaited(made)
                : CompletableFuture.completedFuture(null);
        if (!made.address().equals(WAIT)) {
            try {
                to.write(made);
            } catch (IOException e) {
                to.close();
                throw new Refused(e, Cause.BROKE);
            }
        }
        if (question) {
            answer.whenComplete((_, e) -> unanswered(e));
            try {
                CompletableFuture.anyOf(answer, queue.ordered()).get();
            } catch (ExecutionException e) {
                throw Replies.root(e) instanceof Replies.Declined no ? no : new IOException(words(e), e);
            }
        } else if (waits && !(last && Replies.byItself(made))) {
            try {
                answer.get();
            } catch (ExecutionException e) {
                unanswered(e.getCause());
                throw Replies.root(e) instanceof Replies.Declined no ? no : new IOException(words(e), e);
            }
        } else {
            answer.whenComplete((_, e) -> unanswered(e));
        }
        TimeUnit.MILLISECONDS.sleep(Math.max(made.pauseMillis(), last ? paceMillis : 0));
        return answer;
    }

    private void unanswered(@Nullable Throwable why) {
        if (Replies.root(why) instanceof TimeoutException && ++missed >= MISSED) {
            leave(new Refused(Cause.STOPPED_ANSWERING));
        }
    }

    private String words(Throwable why) {
        Throwable root = Replies.root(why);
        return root instanceof TimeoutException
                ? "did not answer"
                : String.valueOf(root == null
                        ? ""
                        : root
                                .getMessage());
    }

    private CompletableFuture<?> asked(Order.Outgoing question) {
        CompletableFuture<Void> answer = new CompletableFuture<>();
        boolean there = open.isDone() || dialer.keptMillis() > 0 && report.phase() == Phase.READY;
        if (!there || !queue.offer(new Waiting.Job(List.of(question), true, System.nanoTime(), fault -> {
            if (fault == null) {
                answer.complete(null);
            } else {
                answer.completeExceptionally(new IOException(fault));
            }
        }))) {
            answer.cancel(false);
        }
        return answer.orTimeout(Math.max(POLL_ANSWER_MILLIS, report.twin().card().ageMillis()) * 2,
                TimeUnit.MILLISECONDS);
    }

    @Override
    public void send(long ticket, Order order) {
        Consumer<@Nullable String> done = fault -> {
            if (fault == null) {
                report.sent(ticket);
            } else if (ticket != Gears.NO_ANSWER) {
                report.failed(ticket, fault);
            }
        };
        if (writer.closed()) {
            done.accept("was closed");
        } else if (!queue.offer(new Waiting.Job(order.packets(), false, System.nanoTime(), done))) {
            done.accept("has too many orders waiting");
        }
    }

    @Override
    public boolean goesOn() {
        return true;
    }

    @Override
    public void close() {
        polls.close();
        connected.close();
        writer.close();
        leave(new IOException("was closed"));
        replies.end("was closed");
        queue.drain().forEach(job -> job.done().accept("was closed"));
    }
}
