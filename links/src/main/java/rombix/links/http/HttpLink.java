package rombix.links.http;

import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Arrival;
import rombix.core.card.Reply;
import rombix.core.event.Cause;
import rombix.core.event.Gears;
import rombix.core.event.Status.Phase;
import rombix.core.twin.MessageReader;
import rombix.core.twin.MessageReader.Message;
import rombix.core.twin.Order;
import rombix.core.value.Value;
import rombix.links.link.GearPlaces;
import rombix.links.link.GearReport;
import rombix.links.link.Link;
import rombix.links.link.Loop;
import rombix.links.link.Refused;
import rombix.links.link.Target;
import rombix.links.link.Web;
import rombix.links.talk.Polls;

/**
 * HTTP: at most eight requests at a time, those to one path one after the other, so that what was pressed last holds.
 * It is looked for until it answers; then it is greeted, its streams of events are followed and its polls are asked.
 * Where the card asks nothing, whether it is there is seen by connecting now and then.
 */
final class HttpLink implements Link {
    private static final int AT_A_TIME = 8;
    private static final int ASKED_AT_A_TIME = 4;
    private static final int MISSED = 2;
    private static final long LOOK_MILLIS = 5000;
    private static final long SOON_MILLIS = 1000;
    private static final int MOST_PATHS = 200;
    private static final int MOST_WAITING = 1000;
    private final AtomicInteger waiting = new AtomicInteger();
    private static final int CONNECT_MILLIS = 3000;
    private static final String EVENTS = "events ";

    private final GearReport report;
    private final Target target;
    private final GearPlaces places;
    private final Requests requests;
    private final Semaphore room = new Semaphore(AT_A_TIME, true);
    private final Semaphore asking = new Semaphore(ASKED_AT_A_TIME, true);
    private final ExecutorService threads = Executors.newVirtualThreadPerTaskExecutor();
    /** The last order to each path. */
    private final Map<String, CompletableFuture<?>> last = new ConcurrentHashMap<>();
    private final Loop looking;
    private final List<Loop> streams;
    private final Polls polls;
    private final int streamCount;
    private final @Nullable MessageReader expired;
    /** How many streams of events are open. */
    private final AtomicInteger open = new AtomicInteger();
    /** How many requests in a row nothing came back to. */
    private final AtomicInteger unanswered = new AtomicInteger();
    /** Whether it was greeted since it was last lost. */
    private volatile boolean greeted;
    /** Whether it was lost as it took requests and answered none. */
    private volatile boolean silent;
    /** When it was greeted last, by {@link System#nanoTime()}. Guarded by this. */
    private long greetedNanos = System.nanoTime() - TimeUnit.DAYS.toNanos(1);
    private volatile boolean closed;

    HttpLink(GearReport report, Target target) {
        this.report = report;
        this.target = target;
        this.places = new GearPlaces(report.twin(), target);
        target.hostPort(); // One that makes no sense is told at once.
        List<Order.Outgoing> greeting = report.twin().greeting();
        this.requests = new Requests(target, places, greeting.stream().anyMatch(p -> p.reply() != null && !p.reply()
                .keep().isEmpty()));
        Arrival says = report.twin().card().expired().get(report.twin().protocol());
        expired = says == null ? null : new MessageReader(says);
        polls = new Polls(report, this::asked, HttpLink::path);
        List<Order.Outgoing> events = greeting.stream().filter(p -> p.address().startsWith(EVENTS)).toList();
        streamCount = events.size();
        looking = Loop.start("http " + report.twin().gear(), this::watch, report::troubled);
        streams = events.stream().map(p -> Loop.start("events " + report.twin().gear(), () -> follow(p),
                report::troubled)).toList();
    }

    /** Until it answers, and then now and then whether it is still there. */
    private void watch() throws InterruptedException {
        boolean before = report.phase() == Phase.READY;
        try {
            if (!before && !greeted) {
                target.connect(CONNECT_MILLIS).close();
                greet(System.nanoTime());
                if (silent) {
                    prove();
                }
                greeted = true;
                responded();
            } else if (before && report.twin().polls().isEmpty() && streamCount == 0) {
                target.connect(CONNECT_MILLIS).close();
            }
        } catch (Requests.Expired e) {
            lost(Web.unknown(target));
        } catch (IOException | IllegalArgumentException e) {
            lost(e);
        }
        TimeUnit.MILLISECONDS.sleep(report.phase() == Phase.READY ? LOOK_MILLIS : SOON_MILLIS);
    }

    /**
     * Greets, where nobody has since.
     *
     * @param since a point in time by {@link System#nanoTime()}
     */
    private synchronized void greet(long since) throws IOException, InterruptedException {
        if (greetedNanos - since > 0) {
            return;
        }
        for (Order.Outgoing p : report.twin().greeting()) {
            report.recordOutgoing("greeting", p);
            if (!p.address().startsWith(EVENTS)) {
                done(p, true, () -> {
                });
            }
        }
        greetedNanos = System.nanoTime();
    }

    /** Who had stopped answering has to answer something. */
    private void prove() throws IOException, InterruptedException {
        for (Order.Outgoing question : report.twin().polls().stream().limit(1).flatMap(p -> report.twin().packets(p
                .ask(), "a poll", report.lists()).stream()).limit(1).toList()) {
            done(question, true, () -> {
            });
        }
    }

    /** It answers: that is ready once all of its streams are open. */
    private void responded() {
        unanswered.set(0);
        if (greeted && open.get() == streamCount) {
            boolean before = report.phase() == Phase.READY;
            silent = false;
            report.ready();
            if (!before) {
                polls.begin();
            }
        }
    }

    private void lost(Throwable e) {
        if (closed) {
            return;
        }
        if (e instanceof Requests.Unreached u && u.silent() && report.phase() == Phase.READY) {
            if (unanswered.incrementAndGet() < MISSED) {
                return;
            }
            silent = true;
            greeted = false;
            report.off(new Refused(e, Cause.STOPPED_ANSWERING));
        } else if (e instanceof Refused || e instanceof Requests.Unreached || report.phase() != Phase.READY) {
            greeted = false;
            report.off(e);
        }
    }

    /** A stream of events: each is handed on, and the stream is asked for again when it ends. */
    private void follow(Order.Outgoing packet) throws InterruptedException {
        if (greeted) {
            boolean[] opened = new boolean[1];
            try {
                Order.Outgoing made = places.made(packet);
                requests.events(made, () -> {
                    opened[0] = true;
                    open.incrementAndGet();
                    responded();
                }, (name, data) -> report.landed(packet.address(), List.of(Value.of(data), Value.of(name))));
                ended(opened[0]);
                lost(new Requests.Unreached("its event stream has ended", null));
            } catch (Requests.Expired e) {
                ended(opened[0]);
                renewed(System.nanoTime());
            } catch (IOException | IllegalArgumentException e) {
                ended(opened[0]);
                lost(e);
            }
        }
        TimeUnit.MILLISECONDS.sleep(greeted ? SOON_MILLIS : SOON_MILLIS / 5);
    }

    private void ended(boolean opened) {
        if (opened) {
            open.decrementAndGet();
        }
    }

    /**
     * Greets once more, as the login has run out; whether that went well.
     *
     * @param since when what was refused went out
     */
    private boolean renewed(long since) throws InterruptedException {
        try {
            greet(since);
            return true;
        } catch (Requests.Expired e) {
            lost(Web.unknown(target));
        } catch (IOException | IllegalArgumentException e) {
            lost(e);
        }
        return false;
    }

    /**
     * Sends a request, and hands on what comes back.
     *
     * @param poll whether it is one that nobody waits for: those leave room for orders
     * @param wired run when it goes out
     * @throws IOException in plain words why it was not done
     */
    private void done(Order.Outgoing packet, boolean poll, Runnable wired) throws IOException, InterruptedException {
        Order.Outgoing made = places.made(packet);
        Semaphore of = poll ? asking : room;
        of.acquire();
        try {
            wired.run();
            Requests.Answer answer = requests.send(made, poll);
            responded();
            if (answer.changed()) {
                taken(made, answer);
            }
        } finally {
            of.release();
        }
        TimeUnit.MILLISECONDS.sleep(made.pauseMillis());
    }

    private void taken(Order.Outgoing made, Requests.Answer answer) throws IOException {
        Reply reply = made.reply();
        Message message = new Message(path(made), List.of(Value.of(answer.text()), Value.of(answer.status())));
        if (expired != null && expired.means(message)) {
            throw new Requests.Expired("the login has expired");
        }
        if (reply != null && reply.error() != null && new MessageReader(reply.error()).means(message)) {
            String words = String.valueOf(new MessageReader(reply.error()).raw(message));
            throw new IOException("refused: " + reply.words().getOrDefault(words, words));
        }
        if (reply != null && reply.is() != null && !new MessageReader(reply.is()).means(message)) {
            throw new IOException("unexpected response: " + answer.firstWords());
        }
        if (reply != null) {
            reply.keep().forEach((name, arrival) -> {
                Value told = new MessageReader(arrival).raw(message);
                if (told != null) {
                    places.keep(name, told);
                }
            });
        }
        String as = reply == null ? null : reply.as();
        report.answered(as == null ? message.address() : as, message.args());
    }

    /** The path to which a request goes, without what is asked of it. */
    private static String path(Order.Outgoing packet) {
        return packet.address().substring(packet.address().indexOf(' ') + 1).replaceFirst("\\?.*", "");
    }

    private CompletableFuture<?> asked(Order.Outgoing question) {
        CompletableFuture<Void> answer = new CompletableFuture<>();
        if (report.phase() != Phase.READY) {
            answer.cancel(false);
            return answer;
        }
        threads.execute(() -> {
            long begun = System.nanoTime();
            try {
                try {
                    done(question, true, () -> {
                    });
                } catch (Requests.Expired e) {
                    if (!renewed(begun)) {
                        throw e;
                    }
                    done(question, true, () -> {
                    });
                }
                answer.complete(null);
            } catch (IOException | IllegalArgumentException e) {
                lost(e);
                answer.completeExceptionally(e);
            } catch (InterruptedException e) {
                answer.cancel(false);
            } catch (RuntimeException | Error e) {
                report.troubled(e);
                answer.completeExceptionally(e);
            }
        });
        return answer;
    }

    @Override
    public void send(long ticket, Order order) {
        if (closed) {
            answer(ticket, "was closed");
            return;
        }
        if (waiting.incrementAndGet() > MOST_WAITING) {
            waiting.decrementAndGet();
            answer(ticket, "has too many commands waiting");
            return;
        }
        long at = System.nanoTime();
        String path = order.packets().isEmpty() ? "" : path(order.packets().getFirst());
        if (order.command().urgent()) {
            path += " at once"; // What stops waits for nothing.
        }
        if (last.size() > MOST_PATHS) {
            last.values().removeIf(CompletableFuture::isDone);
        }
        last.compute(path, (_, before) -> (before == null || before.isDone()
                ? CompletableFuture.<Object>completedFuture(null)
                : before.handle((_, _) -> null)).thenRunAsync(() -> work(ticket, order, at), threads)
                .exceptionally(_ -> {
                    answer(ticket, "was closed"); // Nothing begins any more.
                    return null;
                }).thenRun(waiting::decrementAndGet));
    }

    private void work(long ticket, Order order, long at) {
        if (report.stale(ticket, at)) {
            return;
        }
        long[] wired = new long[1];
        Runnable first = () -> wired[0] = wired[0] == 0 ? report.now() : wired[0];
        try {
            for (Order.Outgoing packet : order.packets()) {
                try {
                    done(packet, false, first);
                } catch (Requests.Expired e) {
                    if (!renewed(at)) {
                        throw e;
                    }
                    if (report.stale(ticket, at)) {
                        return;
                    }
                    done(packet, false, first);
                }
            }
            report.sent(ticket, wired[0] == 0 ? report.now() : wired[0], "");
        } catch (IOException | IllegalArgumentException e) {
            if (closed) { // The link let go of the request, not the gear.
                answer(ticket, "was closed");
                return;
            }
            lost(e);
            answer(ticket, String.valueOf(e.getMessage()));
        } catch (InterruptedException e) {
            answer(ticket, "was closed");
        } catch (RuntimeException | Error e) {
            report.broke(ticket, e);
        }
    }

    private void answer(long ticket, String fault) {
        if (ticket != Gears.NO_ANSWER) {
            report.failed(ticket, fault);
        }
    }

    @Override
    public boolean goesOn() {
        return true;
    }

    @Override
    public void close() {
        closed = true;
        polls.close();
        looking.close();
        streams.forEach(Loop::close);
        threads.shutdownNow();
        requests.close();
    }
}
