package rombix.links;

import static org.awaitility.Awaitility.await;

import java.nio.file.Path;
import java.time.Duration;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicLong;
import org.awaitility.core.ConditionFactory;
import rombix.core.board.Rig;
import rombix.core.event.Event;
import rombix.core.event.Status;
import rombix.core.store.BadFile;
import rombix.core.store.BoardFile;
import rombix.core.twin.Twin;
import rombix.core.value.Value;

/** The demo board's links, on given addresses, and what they report. */
final class LinkBench implements AutoCloseable {
    private static final Rig RIG = demo();

    final Map<String, Value> readings = new ConcurrentHashMap<>();
    final Map<String, Status> statuses = new ConcurrentHashMap<>();
    final Map<Long, String> answers = new ConcurrentHashMap<>();
    private final AtomicLong tickets = new AtomicLong();
    private final Links links = new Links(new MachineClock(), this::take);

    LinkBench(Map<String, String> addresses) {
        links.connect(RIG, addresses);
    }

    private static Rig demo() {
        try {
            return BoardFile.read(Path.of("../demo/star-night.json"));
        } catch (BadFile e) {
            throw new AssertionError(e);
        }
    }

    private void take(Event event) {
        switch (event) {
            case Event.Came c -> readings.put(c.gear() + "/" + c.reading(), c.value());
            case Event.Linked l -> statuses.put(l.gear(), l.status());
            case Event.OrderDone a -> answers.put(a.ticket(), a.fault() == null ? "sent" : a.fault());
            default -> throw new AssertionError("a link posted " + event);
        }
    }

    /** Sends a command of the demo board's gear and returns its ticket. */
    long send(String gear, String command, Map<String, Value> args) {
        Twin twin = RIG.twin(gear).orElseThrow();
        long ticket = tickets.incrementAndGet();
        links.send(ticket, twin.order(twin.card().command(command).orElseThrow(), args,
                id -> readings.get(gear + "/" + id)));
        return ticket;
    }

    static ConditionFactory soon() {
        return await().atMost(Duration.ofSeconds(60)).pollInterval(Duration.ofMillis(5));
    }

    void awaitReading(String reading, Value value) {
        soon().until(() -> value.equals(readings.get(reading)));
    }

    void awaitPhase(String gear, Status.Phase phase) {
        soon().until(() -> statuses.containsKey(gear) && statuses.get(gear).phase() == phase);
    }

    void awaitAnswer(long ticket, String answer) {
        soon().until(() -> answers.getOrDefault(ticket, "").contains(answer));
    }

    @Override
    public void close() {
        links.close();
    }
}
