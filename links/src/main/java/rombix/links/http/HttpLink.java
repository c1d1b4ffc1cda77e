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
import rombix.core.card.Reply;
import rombix.core.event.Gears;
import rombix.core.event.Status.Phase;
import rombix.core.twin.MessageReader.Message;
import rombix.core.twin.MessageReader;
import rombix.core.twin.Order;
import rombix.core.value.Value;
import rombix.links.link.GearPlaces;
import rombix.links.link.GearReport;
import rombix.links.link.Link;
import rombix.links.link.Loop;
import rombix.links.link.Refused;
import rombix.links.link.Target;
import rombix.links.talk.Polls;

/**
 * HTTP: at most eight requests at a time, those to one path one after the other, so that what was pressed last holds.
 * It is looked for until it answers; then it is greeted, its streams of events are followed and its polls are asked.
 * Where the card asks nothing, whether it is there is seen by connecting now and then.
 */
final class HttpLink implements Link {
    private static final int AT_A_TIME = 8;
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
    private final ExecutorService threads = Executors.newVirtualThreadPerTaskExecutor();
    /** The last order to each path. */
    private final Map<String, CompletableFuture<?>> last = new ConcurrentHashMap<>();
    private final Loop looking;
    private final List<Loop> streams;
    private final Polls polls;
    private volatile boolean closed;

    HttpLink(GearReport report, Target target) {
        this.report = report;
        this.target = target;
        this.places = new GearPlaces(report.twin(), target);
        target.hostPort(); // One that makes no sense is told at once.
        this.requests = new Requests(target, places);
        looking = Loop.start("http " + report.twin().gear(), this::watch, report::troubled);
        streams = report.twin().greeting().stream().filter(p -> p.address().startsWith(EVENTS)).map(p -> Loop.start(
                "events " + report.twin().gear(), () -> follow(p), report::troubled)).toList();
        polls = new Polls(report, this::asked, HttpLink::path);
    }

    /** Until it answers, and then now and then whether it is still there. */
    private void watch() throws InterruptedException {
        boolean before = report.phase() == Phase.READY;
        try {
            if (!before) {
                target.connect(CONNECT_MILLIS).close();
                for (Order.Outgoing p : report.twin().greeting()) {
                    report.said("greeting", p);
                    if (!p.address().startsWith(EVENTS)) {
                        done(p);
                    }
                }
                report.ready();
            } else if (report.twin().polls().isEmpty() && streams.isEmpty()) {
                target.connect(CONNECT_MILLIS).close();
            }
        } catch (IOException | IllegalArgumentException e) {
            lost(e);
        }
        TimeUnit.MILLISECONDS.sleep(report.phase() == Phase.READY ? LOOK_MILLIS : SOON_MILLIS);
    }

    private void lost(Throwable e) {
        if (closed) {
            return;
        }
        if (e instanceof Refused refused) {
            report.off(refused);
        } else if (e instanceof Requests.Unreached || report.phase() != Phase.READY) {
            report.off(e);
        }
    }

    /** A stream of events: each is handed on, and the stream is asked for again when it ends. */
    private void follow(Order.Outgoing packet) throws InterruptedException {
        if (report.phase() == Phase.READY) {
            try {
                Order.Outgoing made = places.made(packet);
                requests.events(made, (name, data) -> report.landed(packet.address(), List.of(Value.of(data), Value.of(
                        name))));
                lost(new Requests.Unreached("its stream of events has ended", null));
            } catch (IOException | IllegalArgumentException e) {
                lost(e);
            }
        }
        TimeUnit.MILLISECONDS.sleep(SOON_MILLIS);
    }

    /**
     * Sends a request, and hands on what comes back.
     *
     * @throws IOException in plain words why it was not done
     */
    private void done(Order.Outgoing packet) throws IOException, InterruptedException {
        Order.Outgoing made = places.made(packet);
        room.acquire();
        try {
            Requests.Answer answer = requests.send(made);
            report.ready();
            if (answer.changed()) {
                taken(made, answer);
            }
        } finally {
            room.release();
        }
        TimeUnit.MILLISECONDS.sleep(made.pauseMillis());
    }

    private void taken(Order.Outgoing made, Requests.Answer answer) throws IOException {
        Reply reply = made.reply();
        Message message = new Message(path(made), List.of(Value.of(answer.text()), Value.of(answer.status())));
        if (reply != null && reply.error() != null && new MessageReader(reply.error()).means(message)) {
            throw new IOException("refused: " + new MessageReader(reply.error()).raw(message));
        }
        if (reply != null && reply.is() != null && !new MessageReader(reply.is()).means(message)) {
            throw new IOException("answered something else: " + answer.firstWords());
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
            try {
                done(question);
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
            answer(ticket, "has too many orders waiting");
            return;
        }
        long at = System.nanoTime();
        String path = order.packets().isEmpty() ? "" : path(order.packets().getFirst());
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
        try {
            for (Order.Outgoing packet : order.packets()) {
                done(packet);
            }
            answer(ticket, null);
        } catch (IOException | IllegalArgumentException e) {
            lost(e);
            answer(ticket, String.valueOf(e.getMessage()));
        } catch (InterruptedException e) {
            answer(ticket, "was closed");
        } catch (RuntimeException | Error e) {
            report.broke(ticket, e);
        }
    }

    private void answer(long ticket, @Nullable String fault) {
        if (fault == null) {
            report.sent(ticket);
        } else if (ticket != Gears.NO_ANSWER) {
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
