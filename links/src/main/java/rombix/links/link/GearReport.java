package rombix.links.link;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Consumer;
import java.util.function.Predicate;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import rombix.core.event.Cause;
import rombix.core.event.Event;
import rombix.core.event.Gears;
import rombix.core.event.Status;
import rombix.core.event.Status.Phase;
import rombix.core.event.Trouble;
import rombix.core.time.Clock;
import rombix.core.traffic.Traffic;
import rombix.core.trust.Redactor;
import rombix.core.twin.Figures;
import rombix.core.twin.Landings;
import rombix.core.twin.MessageReader.Message;
import rombix.core.twin.Order;
import rombix.core.twin.ReceivedReading;
import rombix.core.twin.Twin;
import rombix.core.value.Limits;
import rombix.core.value.Value;
import rombix.core.value.Visible;

/** How a link reports to the deck. Safe to use from any thread. */
public final class GearReport {
    private static final Logger LOG = LoggerFactory.getLogger(GearReport.class);

    private static final long TELL_MILLIS = 250;

    private volatile Twin twin;
    private final Clock clock;
    private final Consumer<Event> deck;
    private final Traffic traffic;
    private final AtomicLong ignored = new AtomicLong();
    /** The lists that the gear has told. Guarded by this. */
    private final Map<String, Value.Choices> told = new HashMap<>();
    /** Guarded by this. */
    private final Room room = new Room();
    private volatile Landings landings;
    private volatile boolean read;
    private volatile Predicate<String> shown = _ -> true;
    private volatile Consumer<Message> heard = _ -> {
    };
    private volatile Runnable whenListed = () -> {
    };
    private volatile Status last = Status.UNTRIED;
    /** Whether the link was closed: what it still says of the gear would be taken for what the next one says. */
    private volatile boolean left;
    /** Whether it is about to be told how many packets were ignored. Guarded by this. */
    private boolean telling;

    public GearReport(Twin twin, Clock clock, Consumer<Event> deck) {
        this(twin, clock, deck, new Traffic(clock));
    }

    /** @param traffic keeps what goes out and comes in */
    public GearReport(Twin twin, Clock clock, Consumer<Event> deck, Traffic traffic) {
        this.traffic = traffic;
        this.twin = twin;
        this.clock = clock;
        this.deck = deck;
        this.landings = twin.landings(told);
    }

    /** The gear is described by another card from now on. */
    public synchronized void become(Twin next) {
        twin = next;
        landings = next.landings(told);
    }

    /** The gear as its card describes it. */
    public Twin twin() {
        return twin;
    }

    /**
     * Says how far the link has come, and why no further; says nothing where nothing has changed.
     *
     * @param told what is told along with the cause, in the order of its places
     */
    public void status(Phase phase, Cause cause, String... told) {
        status(new Status(phase, cause, Stream.of(told).map(GearReport::clean).toList(), ignored.get()));
    }

    private synchronized void status(Status now) {
        Phase phase = now.phase();
        if (!now.equals(last) && !left) {
            if (phase != last.phase()) {
                traffic.linked(twin.gear());
            }
            last = now;
            deck.accept(new Event.Linked(twin.gear(), now));
        }
    }

    /** Without secrets, and without characters that would change what stands around: gear may say anything. */
    private static String clean(String text) {
        return Visible.line(Redactor.PROCESS.clean(text));
    }

    /** The link is closed: from now on only its orders are answered. */
    public synchronized void detach() {
        left = true;
    }

    /** How it is now. */
    public synchronized Status status() {
        return last.withIgnored(ignored.get());
    }

    /** Whether any of its readings has come. */
    boolean read() {
        return read;
    }

    public Phase phase() {
        return last.phase();
    }

    /** The usual words for a gear that answers. */
    public void ready() {
        status(Phase.READY, Cause.READY);
    }

    /** It cannot be commanded, and why, by what was thrown. */
    public void off(Throwable thrown) {
        Refused why = Refused.of(thrown);
        status(Phase.OFF, why.why(), why.reasons().toArray(String[]::new));
    }

    /** An order went out, just now. */
    public void sent(long ticket) {
        sent(ticket, clock.nanos(), "");
    }

    /**
     * An order is done that went out earlier.
     *
     * @param wiredNanos when it went out, by {@link #now()}
     * @param behind what it waited behind until then, in words; empty where it did not wait long
     */
    public void sent(long ticket, long wiredNanos, String behind) {
        if (ticket != Gears.NO_ANSWER) {
            traffic.done(ticket, null);
            deck.accept(new Event.OrderDone(ticket, clock.nanos(), null, wiredNanos, clean(behind)));
        }
    }

    /** What stood on the wire of one of an order's packets: what was computed for it is known only then. */
    public void made(long ticket, int number, Order.Outgoing packet) {
        traffic.made(ticket, number, packet.args());
    }

    /** The time on the deck's clock, in nanoseconds. */
    public long now() {
        return clock.nanos();
    }

    /** An order did not go out, and why. */
    public void failed(long ticket, String why) {
        String clean = clean(why);
        traffic.done(ticket, clean);
        deck.accept(new Event.OrderDone(ticket, clock.nanos(), twin.title() + ": " + clean));
    }

    /**
     * Something went wrong inside the link with an order: it is told, and the order answered for. Whatever a link does
     * with an order on a thread of its own, it ends with this where anything is thrown that is not expected.
     */
    public void broke(long ticket, Throwable e) {
        troubled(e);
        failed(ticket, Trouble.words(e));
    }

    /**
     * Answers for an order that is too old to be sent, as its card says: what was right then may be wrong now.
     *
     * @param atNanos when it was handed in, by {@link System#nanoTime()}
     * @return whether it is
     */
    public boolean stale(long ticket, long atNanos) {
        long millis = twin.card().ageMillis();
        if (System.nanoTime() - atNanos <= TimeUnit.MILLISECONDS.toNanos(millis)) {
            return false;
        }
        failed(ticket, tooOld(twin));
        return true;
    }

    /** Why what is too old was not sent. */
    public static String tooOld(Twin twin) {
        return "it waited for more than " + Figures.span(twin.card().ageMillis()) + ", so it wasn't sent";
    }

    /** @param readings whether one is in sight, or followed by the board: what is not need not be asked for so often */
    public void shown(Predicate<String> readings) {
        shown = readings;
    }

    /**
     * Whether anything shows what comes from an address.
     *
     * @param address null where it is not known where it comes from
     */
    public boolean shows(@Nullable String address) {
        Predicate<String> now = shown;
        Set<String> brought = landings.brought(address);
        return brought.stream().anyMatch(now) || twin.card().readings().stream().anyMatch(r -> r.indicator() && brought
                .contains(r.id().toString().replaceFirst("\\{.*", ""))); // An indicator is always in sight.
    }

    /** Where packets land now: what the gear has listed so far is known. */
    public Landings landings() {
        return landings;
    }

    /**
     * A packet came whose address is in the card's form; what it brings is told, what is not understood is counted.
     *
     */
    public Came landed(String address, List<Value> args) {
        return landed(address, args, false);
    }

    /**
     * The result of reading a packet.
     *
     * @param meant whether its card knows it
     * @param listed whether the gear has listed something by it, so that there may be more to listen to
     */
    public record Came(boolean meant, boolean listed) {
    }

    /**
     * Has others follow what comes, on the threads on which it comes.
     *
     * @param packets takes each packet that is no answer, after it has landed
     * @param lists run when the gear has told a list anew
     */
    public void follow(Consumer<Message> packets, Runnable lists) {
        heard = packets;
        whenListed = lists;
    }

    /** The lists that the gear has reported, by name. */
    public synchronized Map<String, Value.Choices> lists() {
        return Map.copyOf(told);
    }

    /** A packet came that belongs to something that was said; what it brings is told. */
    public void answered(String address, List<Value> args) {
        landed(address, args, true);
    }

    private Came landed(String address, List<Value> args, boolean answer) {
        Message message = new Message(address, args);
        List<ReceivedReading> all = landings.land(message);
        traffic.in(twin.gear(), address, args, all, answer);
        boolean listed = deliver(all);
        if (listed) { // What it tells of the items that it has just listed.
            List<ReceivedReading> more = new ArrayList<>(landings.land(message));
            more.removeAll(all);
            deliver(more);
        }
        if (listed) {
            whenListed.run();
        }
        if (!answer) {
            heard.accept(message);
        }
        return new Came(!all.isEmpty(), listed);
    }

    /** Delivers readings; returns whether they include a list. */
    private boolean deliver(List<ReceivedReading> all) {
        boolean listed = false;
        for (ReceivedReading landed : all) {
            @Nullable
            Value value = landed.value() == null ? null : Redactor.PROCESS.clean(landed.value());
            read |= value != null;
            if (value != null && !room(landed.reading(), value)) {
                counted("“" + Limits.quoted(landed.reading()) + "” is too much data for one device");
                continue;
            }
            if (value instanceof Value.Choices choices) {
                listed |= listed(landed.reading(), choices);
            }
            if (value != null && !left) {
                deck.accept(new Event.Came(twin.gear(), landed.reading(), value, twin.moment(landed.reading())));
            } else if (value == null) {
                counted("“" + landed.reading() + "” " + landed.problem());
            }
        }
        return listed;
    }

    private synchronized boolean room(String reading, Value value) {
        return room.takes(reading, value);
    }

    private synchronized boolean listed(String list, Value.Choices now) {
        boolean other = !now.equals(told.put(list, now));
        if (other) {
            landings = twin.landings(told);
        }
        return other;
    }

    /** Something went wrong inside the link, whose loop goes on: it is counted as a packet that was ignored. */
    public void troubled(Throwable e) {
        LOG.warn("{}: the link goes on after {}", twin.title(), e, e);
        ignored(String.valueOf(e.getMessage()));
    }

    /** Records a packet that no step ordered: a greeting or a poll. */
    public void recordOutgoing(String of, Order.Outgoing packet) {
        traffic.recordOutgoing(twin.gear(), of, packet);
    }

    /** A packet could not be used: it is counted, and the gear shows how many there were. */
    public void ignored(String why) {
        traffic.ignored(twin.gear(), why);
        counted(why);
    }

    private synchronized void counted(String said) {
        String why = clean(said);
        long count = ignored.incrementAndGet();
        if (Long.bitCount(count) == 1) {
            LOG.warn("{}: a packet was ignored ({} so far): {}", twin.title(), count, why);
        }
        if (!telling) { // However many come, it is told four times a second, and the last number always.
            telling = true;
            CompletableFuture.delayedExecutor(TELL_MILLIS, TimeUnit.MILLISECONDS).execute(this::tellIgnored);
        }
    }

    private synchronized void tellIgnored() {
        telling = false;
        Status before = last;
        last = before.withIgnored(ignored.get());
        if (!left) {
            deck.accept(new Event.Linked(twin.gear(), last));
        }
    }
}
