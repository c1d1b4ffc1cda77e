package rombix.links.link;

import static org.awaitility.Awaitility.await;

import java.nio.file.Path;
import java.time.Duration;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.Callable;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Gear;
import rombix.core.card.Card.Item;
import rombix.core.card.Card;
import rombix.core.card.Protocol;
import rombix.core.event.Event;
import rombix.core.event.Status.Phase;
import rombix.core.event.Status;
import rombix.core.store.CardLibrary;
import rombix.core.twin.Twin;
import rombix.core.value.Value;
import rombix.links.MachineClock;

/** A gear behind its link: its commands are sent by hand, and what it tells is kept. */
public final class GearUnderTest implements AutoCloseable {
    private static final String ID = "gear";
    /** Orders of cards that set no age don't expire while a busy machine catches up. */
    private static final long PATIENT_MILLIS = 60_000;

    private final Twin twin;
    private final Link link;
    private final Map<Long, String> answers = new ConcurrentHashMap<>();
    private final Map<String, Value> readings = new ConcurrentHashMap<>();
    private volatile Status status = Status.UNTRIED;
    private long ticket;

    public GearUnderTest(LinkType type, String card, String address, Map<String, List<Item>> lists, Keyring keyring) {
        this(type, Objects.requireNonNull(CardLibrary.shipped().get(card)), address, lists, keyring, link -> link);
    }

    /** @param set sets what belongs to the link beside the address */
    public GearUnderTest(LinkType type, Card card, String address, Map<String, List<Item>> lists, Keyring keyring,
            UnaryOperator<Gear.Link> set) {
        twin = new Twin(ID, "Gear", card.age() == null ? card.withAge(PATIENT_MILLIS) : card, Protocol.of(type.id()),
                lists);
        link = type.open(new GearReport(twin, new MachineClock(), this::take), new Target(address,
                set.apply(new Gear.Link(Protocol.of(type.id()), address, Map.of())), keyring, Path::of));
    }

    private void take(Event event) {
        switch (event) {
            case Event.OrderDone d -> answers.put(d.ticket(), d.fault() == null ? "sent" : d.fault());
            case Event.Came c -> readings.put(c.reading(), c.value());
            case Event.Linked l -> status = l.status();
            default -> {
            }
        }
    }

    public static void soon(Callable<Boolean> so) {
        await().atMost(Duration.ofSeconds(60)).pollInterval(Duration.ofMillis(5)).until(so);
    }

    public Link link() {
        return link;
    }

    public Status status() {
        return status;
    }

    public GearUnderTest ready() {
        soon(() -> status.phase() == Phase.READY);
        return this;
    }

    /** Sends a command; its ticket. */
    public long send(String command, Object... args) {
        long mine = ++ticket;
        link.send(mine, twin.order(twin.card().command(command).orElseThrow(), with(args), readings::get));
        return mine;
    }

    /** Sends a command; what became of it. */
    public String done(String command, Object... args) {
        return answer(send(command, args));
    }

    /** What became of an order; waited for. */
    public String answer(long of) {
        soon(() -> answers.containsKey(of));
        return Objects.requireNonNull(answers.get(of));
    }

    public boolean answered(long of) {
        return answers.containsKey(of);
    }

    public @Nullable Value now(String reading) {
        return readings.get(reading);
    }

    /** Arguments, each behind its name. */
    public static Map<String, Value> with(Object... pairs) {
        Map<String, Value> all = new HashMap<>();
        for (int i = 0; i < pairs.length; i += 2) {
            all.put((String) pairs[i], pairs[i + 1] instanceof Number n
                    ? Value.of(n.doubleValue())
                    : pairs[i + 1] instanceof Boolean b ? Value.of(b) : Value.of((String) pairs[i + 1]));
        }
        return all;
    }

    @Override
    public void close() {
        link.close();
    }
}
