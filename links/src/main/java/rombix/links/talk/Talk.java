package rombix.links.talk;

import java.io.IOException;
import java.net.SocketTimeoutException;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import org.jspecify.annotations.Nullable;
import rombix.core.event.Cause;
import rombix.core.event.Status.Phase;
import rombix.core.event.Trouble;
import rombix.core.twin.Figures;
import rombix.core.twin.MessageReader.Message;
import rombix.core.twin.Order;
import rombix.links.link.GearPlaces;
import rombix.links.link.GearReport;
import rombix.links.link.Link;
import rombix.links.link.Loop;
import rombix.links.link.Reconnector;
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
    /** For how long a session has lasted at least that is begun anew without a word. */
    private static final long RENEWED_NANOS = TimeUnit.MILLISECONDS.toNanos(500);
    /** From how long on it is told what an order waited behind. */
    private static final long LONG_MILLIS = 100;
    private static final long POLL_ANSWER_MILLIS = 2000;

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
    private final SendQueue queue = new SendQueue();
    private final Exchange exchange;
    private final Greeting greeting;
    private final Reconnector<Wire> connected;
    private final Loop writer;
    private final Polls polls;
    private volatile @Nullable Wire wire;
    /** Why the present connection was left; null where it was not. */
    private volatile @Nullable IOException left;
    /** For a connection that is opened only when there is something to say. */
    private final Semaphore wanted = new Semaphore(1);
    /** Done with the present connection once it is ready. */
    private volatile CompletableFuture<Wire> open = new CompletableFuture<>();
    /** Whether it is to be greeted once more over the same connection, as its login has run out. */
    private volatile boolean expired;
    /** Whether the gear has ended the session, and is called once more before anything is said of it. */
    private volatile boolean renewing;
    /** What was said last, for those that wait behind it. The writer's. */
    private String busy = "";

    /** @param name of the protocol, for its threads */
    public Talk(String name, GearReport report, GearPlaces places, Dialer dialer) {
        this.report = report;
        this.places = places;
        this.dialer = dialer;
        this.replies = new Replies(report, places, () -> expired = true);
        exchange = new Exchange(places, replies, queue, report.twin().card().window(), () -> disconnect(new Refused(
                Cause.STOPPED_ANSWERING)));
        greeting = new Greeting(report, exchange);
        polls = new Polls(report, this::asked, _ -> null); // Before there is a connection that begins.
        writer = Loop.startOften(name + "-out " + report.twin().gear(), this::write, report::troubled);
        connected = new Reconnector<>(report, name + "-in", new Reconnector.Way<>() {
            @Override
            public Wire connect() throws IOException, InterruptedException {
                if (dialer.keptMillis() > 0) {
                    wanted.acquire(); // The first one comes by itself, to see whether it is there.
                }
                try {
                    return dialer.dial();
                } catch (IOException e) {
                    renewing = false;
                    wanted.release();
                    throw e;
                }
            }

            @Override
            public void serve(Wire wire) throws IOException {
                Talk.this.serve(wire);
            }
        });
    }

    private void serve(Wire to) throws IOException {
        boolean stopped = left instanceof Refused r && r.why() == Cause.STOPPED_ANSWERING;
        left = null;
        expired = false;
        exchange.received();
        places.forget();
        replies.begin();
        wire = to;
        Thread greeter = Thread.startVirtualThread(() -> greet(to, stopped));
        long begun = System.nanoTime();
        IOException why = null;
        try {
            listen(to);
        } catch (IOException e) {
            why = e;
        }
        wire = null;
        boolean over = why == null && left == null && dialer.keptMillis() > 0 && open.isDone();
        renewing = left == null && open.isDone() && (why == null || why instanceof Refused r && r
                .why() == Cause.ENDED_SAYING) && dialer
                        .keptMillis() == 0
                && greeting.login() && System.nanoTime() - begun > RENEWED_NANOS;
        IOException reason = left;
        CompletableFuture<Wire> next = new CompletableFuture<>();
        if (renewing) {
            open = next; // Orders that fail now wait for the next connection.
            replies.end(new Replies.Expired());
            Greeting.ended(greeter);
            return;
        }
        replies.end(new IOException(over
                ? "it closed the connection before replying"
                : reason == null ? "the connection was lost" : String.valueOf(reason.getMessage())));
        Greeting.ended(greeter); // What it was refused with is why it ended.
        open = next;
        if (over) {
            return;
        }
        if (dialer.keptMillis() > 0) {
            wanted.release(); // Whether it is there again has to be seen.
        }
        IOException known = left;
        throw known != null ? known : why != null ? why : new Refused(Cause.ENDED);
    }

    /**
     * Says and awaits what stands at the beginning.
     *
     * @param stopped whether it had stopped answering: then it is ready when it has answered something
     */
    private void greet(Wire to, boolean stopped) {
        try {
            greeting.begin(to, stopped);
            report.ready();
            renewing = false;
            open.complete(to);
            polls.begin();
        } catch (InterruptedException e) {
            // The connection has ended.
        } catch (Refused e) {
            disconnect(e);
        } catch (IOException | IllegalArgumentException e) {
            disconnect(wire == null && !(e instanceof Replies.Declined)
                    ? new Refused(e, Cause.ENDED)
                    : new Refused(e, Cause.GREETING_REFUSED, String.valueOf(e.getMessage())));
        } catch (RuntimeException | Error e) {
            report.troubled(e);
            disconnect(new IOException(Trouble.words(e), e));
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
                boolean whole = from.whole();
                if (whole) {
                    exchange.received();
                }
                switch (replies.take(message, open.isDone() && !expired, whole)) {
                    case NOT -> {
                        if ((whole || !report.landings().land(message).isEmpty()) && report.landed(message.address(),
                                message.args()).meant()) {
                            from.meant();
                        }
                    }
                    case ANSWER -> {
                        from.meant();
                        report.answered(message.address(), message.args());
                    }
                    case LANDED -> from.meant();
                    case EXPIRED -> {
                        report.answered(message.address(), message.args());
                        queue.wake();
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

    private void disconnect(IOException why) {
        Wire now = wire;
        left = why;
        if (now != null) {
            now.close();
        }
    }

    private void write() throws InterruptedException {
        SendQueue.Job job = queue.take();
        try {
            work(job);
        } catch (InterruptedException e) {
            job.done().done("was closed"); // No order is left without an answer.
            throw e;
        }
    }

    private void work(SendQueue.Job job) throws InterruptedException {
        Wire to = reached();
        if (to == null) {
            job.done().done(connected.closed() ? "was closed" : "is not connected");
            return;
        }
        if (expired) {
            renew(to);
        }
        long waited = TimeUnit.NANOSECONDS.toMillis(System.nanoTime() - job.atNanos());
        if (waited > report.twin().card().ageMillis()) {
            job.done().done(GearReport.tooOld(report.twin()));
            return;
        }
        String behind = waited < LONG_MILLIS || busy.isEmpty()
                ? ""
                : "waited %s behind %s".formatted(Figures.span(waited), busy);
        busy = job.words();
        CompletableFuture<Void> answered = CompletableFuture.completedFuture(null);
        replies.keep(job.packets().stream().anyMatch(p -> p.address().equals(WAIT)));
        try {
            for (int i = 0; i < job.packets().size(); i++) {
                int number = i;
                answered = exchange.say(to, job.packets().get(i), i == job.packets().size() - 1, job
                        .rank() == SendQueue.Rank.QUESTION, made -> job.done().wired(number, made, behind));
            }
        } catch (Replies.Expired e) {
            repeated(job, e);
            return;
        } catch (IOException | IllegalArgumentException e) {
            job.done().done(String.valueOf(e.getMessage()));
            return;
        } catch (RuntimeException | Error e) {
            report.troubled(e);
            job.done().done(Trouble.words(e));
            return;
        }
        answered.whenComplete((_, e) -> {
            if (Replies.root(e) instanceof Replies.Expired why) {
                repeated(job, why);
            } else {
                job.done().done(e == null ? null : Exchange.words(e));
            }
        });
    }

    /** What was not done as the login had run out is said once more behind a new one. */
    private void repeated(SendQueue.Job job, Replies.Expired why) {
        if (!connected.closed() && job.again()) {
            queue.again(job);
        } else {
            job.done().done(why.getMessage());
        }
    }

    /** Greets once more over the same connection. */
    private void renew(Wire to) throws InterruptedException {
        try {
            greeting.again(to);
            expired = false;
        } catch (IOException | IllegalArgumentException e) {
            disconnect(new Refused(e, Cause.GREETING_REFUSED, String.valueOf(e.getMessage())));
        }
    }

    /** The connection to speak over; one that is not kept is waited for. Null where there is none. */
    private @Nullable Wire reached() throws InterruptedException {
        if (open.isDone() || dialer.keptMillis() == 0 && !renewing) {
            return open.getNow(null);
        }
        if (dialer.keptMillis() > 0) {
            wanted.drainPermits();
            wanted.release();
        }
        try {
            return open.get(report.twin().card().ageMillis(), TimeUnit.MILLISECONDS);
        } catch (ExecutionException | TimeoutException e) {
            return null;
        }
    }

    private CompletableFuture<?> asked(Order.Outgoing question) {
        CompletableFuture<Void> answer = new CompletableFuture<>();
        boolean there = open.isDone() || dialer.keptMillis() > 0 && report.phase() == Phase.READY;
        if (!there
                || !queue.offer(new SendQueue.Job(List.of(question), SendQueue.Rank.QUESTION, Exchange.quoted(question),
                        fault -> {
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
        SendQueue.Done done = new Ticket(report, ticket);
        if (writer.closed()) {
            done.done("was closed");
        } else if (!queue.offer(new SendQueue.Job(order.packets(), order.command().urgent()
                ? SendQueue.Rank.URGENT
                : SendQueue.Rank.ORDER, "“" + order.title() + "”", done))) {
            done.done("has too many commands waiting");
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
        disconnect(new IOException("was closed"));
        replies.end(new IOException("was closed"));
        queue.drain().forEach(job -> job.done().done("was closed"));
    }
}
