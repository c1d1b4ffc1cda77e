package rombix.core.traffic;

import java.time.Instant;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rombix.core.event.Gears;
import rombix.core.time.Clock;
import rombix.core.traffic.TrafficPacket.Fate;
import rombix.core.traffic.TrafficPacket.Way;
import rombix.core.trust.Redactor;
import rombix.core.twin.Order;
import rombix.core.twin.ReceivedReading;
import rombix.core.value.Limits;
import rombix.core.value.Value;

/**
 * The packets of all gear, the last ones of them; and of each gear those that were ignored, which others would push out.
 * Safe to use from any thread; nothing in it waits.
 */
public final class Traffic {
    private static final int MOST = 4096;
    private static final int MOST_IGNORED = 50;
    private static final int MOST_FRESH = 256;
    private static final int LONGEST = 16_384;
    private static final long NANOS_PER_MILLI = 1_000_000;

    private final Clock clock;
    private final @Nullable TrafficPacket[] ring = new TrafficPacket[MOST];
    private final Map<String, Deque<TrafficPacket>> ignored = new HashMap<>();
    private final Map<String, Counts> counts = new HashMap<>();
    /** The packets of orders that wait for their answer, by ticket. */
    private final Map<Long, Waiting> waiting = new HashMap<>();
    /** Sent orders whose packets aren't recorded yet. The next call that needs them does it, so that no press waits. */
    private final Deque<Sent> fresh = new ArrayDeque<>();
    private long last;
    private long oldest = 1;
    /** Characters of all that is kept. */
    private long kept;
    private long changes;

    private record Waiting(long first, long behind, long nanos) {
    }

    private record Sent(long ticket, Order order, Instant at, long nanos) {
    }

    /**
     * How much went to and fro.
     *
     * @param out packets that went out, ever
     * @param in packets that came, ever
     * @param millis how long the last answer took; below 0 where there was none
     * @param since since when its link is as it is; null where that is not known
     */
    public record Counts(long out, long in, double millis, @Nullable Instant since) {
        public static final Counts NONE = new Counts(0, 0, -1, null);
    }

    /** What a look at it finds: the packets, oldest first, and what to ask for the next time. */
    public record Look(List<TrafficPacket> packets, long changes) {
    }

    public Traffic(Clock clock) {
        this.clock = clock;
    }

    /** The link of a gear has become ready, or is not any more. */
    public synchronized void linked(String gear) {
        settle();
        Counts c = counts.getOrDefault(gear, Counts.NONE);
        counts.put(gear, new Counts(c.out, c.in, c.millis, clock.wall().toInstant()));
    }

    /** An order goes out. */
    public synchronized void out(long ticket, Order order) {
        fresh.add(new Sent(ticket, order, clock.wall().toInstant(), clock.nanos()));
        if (fresh.size() > MOST_FRESH) {
            settle();
        }
    }

    /** Records the packets of the orders sent since the last call. */
    private void settle() {
        for (Sent s = fresh.poll(); s != null; s = fresh.poll()) {
            long first = last + 1;
            for (Order.Outgoing packet : s.order.packets()) {
                add(s.at, s.order.gear(), Way.OUT, s.order.title(), packet.address(), packet.args(), s.order, List.of(),
                        Fate.SENT, "");
            }
            if (s.ticket != Gears.NO_ANSWER && last >= first) {
                waiting.put(s.ticket, new Waiting(first, last + 1, s.nanos));
            }
        }
    }

    /** An order does not go out, and why. */
    public synchronized void refused(Order order, String why) {
        for (Order.Outgoing packet : order.packets()) {
            add(order.gear(), Way.OUT, order.title(), packet.address(), packet.args(), order, List.of(), Fate.FAILED,
                    why);
        }
    }

    /** Records a packet that the link sent by itself. */
    public synchronized void recordOutgoing(String gear, String of, Order.Outgoing packet) {
        add(gear, Way.OUT, of, packet.address(), packet.args(), null, List.of(), Fate.SENT, "");
    }

    /**
     * What stood on the wire of an order that is on its way.
     *
     * @param number which of its packets, from 0
     */
    public synchronized void made(long ticket, int number, List<Value> args) {
        settle();
        Waiting of = waiting.get(ticket);
        long n = of == null ? 0 : of.first + number;
        TrafficPacket sent = of == null || n >= of.behind ? null : ring[index(n)];
        if (sent != null && sent.number() == n && !sent.args().equals(args)) {
            kept -= size(sent);
            TrafficPacket now = sent.carrying(shortened(args.stream().map(Redactor.PROCESS::clean).toList()));
            ring[index(n)] = now;
            kept += size(now);
            changes++;
        }
    }

    /** What became of an order: {@code fault} says why it failed; null where it is done. */
    public synchronized void done(long ticket, @Nullable String fault) {
        settle();
        Waiting of = waiting.remove(ticket);
        if (of == null) {
            return;
        }
        double millis = (clock.nanos() - of.nanos) / (double) NANOS_PER_MILLI;
        for (long n = Math.max(of.first, last - MOST + 1); n < of.behind; n++) {
            TrafficPacket sent = ring[index(n)];
            if (sent != null && sent.number() == n) {
                ring[index(n)] = fault == null
                        ? sent.became(Fate.DONE, "done in " + words(millis))
                        : sent.became(Fate.FAILED, fault);
                if (fault == null) {
                    counts.compute(sent.gear(), (_, c) -> c == null ? c : new Counts(c.out, c.in, millis, c.since));
                }
            }
        }
        changes++;
    }

    private static String words(double millis) {
        return millis < 10 ? "%.1f ms".formatted(millis) : "%.0f ms".formatted(millis);
    }

    /**
     * A packet came that could be read.
     *
     * @param landed what it brought
     * @param answer whether it belongs to something that was sent
     */
    public synchronized void in(String gear, String address, List<Value> args, List<ReceivedReading> landed,
            boolean answer) {
        String trouble = String.join("; ", landed.stream().filter(l -> l.value() == null).map(l -> "“" + l.reading()
                + "” " + l.problem()).toList());
        TrafficPacket came = add(gear, Way.IN, "", address, args, null, landed, !trouble.isEmpty()
                ? Fate.IGNORED
                : !landed.isEmpty() ? Fate.LANDED : answer ? Fate.ANSWER : Fate.UNREAD, trouble);
        if (!trouble.isEmpty()) {
            ignored(came);
        }
    }

    /** Something came that could not be read, or used. */
    public synchronized void ignored(String gear, String why) {
        ignored(add(gear, Way.IN, "", "", List.of(), null, List.of(), Fate.IGNORED, why));
    }

    private void ignored(TrafficPacket packet) {
        Deque<TrafficPacket> all = ignored.computeIfAbsent(packet.gear(), _ -> new ArrayDeque<>());
        all.addLast(packet);
        if (all.size() > MOST_IGNORED) {
            all.removeFirst();
        }
    }

    private TrafficPacket add(String gear, Way way, String of, String address, List<Value> args, @Nullable Order order,
            List<ReceivedReading> landed, Fate fate, String fault) {
        settle();
        return add(clock.wall().toInstant(), gear, way, of, address, args, order, landed, fate, fault);
    }

    private TrafficPacket add(Instant at, String gear, Way way, String of, String address, List<Value> args,
            @Nullable Order order, List<ReceivedReading> landed, Fate fate, String fault) {
        Redactor secrets = Redactor.PROCESS;
        TrafficPacket packet = new TrafficPacket(++last, at, gear, way, of,
                secrets.clean(Limits.quoted(address)),
                shortened(args.stream().map(secrets::clean).toList()), order, landed.stream().map(Traffic::shortened)
                        .toList(),
                fate, secrets.clean(Limits.quoted(fault)));
        forget(ring[index(last)]);
        ring[index(last)] = packet;
        kept += size(packet);
        for (; kept > Limits.TRAFFIC && oldest < last; oldest++) {
            TrafficPacket p = ring[index(oldest)];
            if (p != null && p.number() == oldest) {
                forget(p);
                ring[index(oldest)] = null;
            }
        }
        Counts c = counts.getOrDefault(gear, Counts.NONE);
        counts.put(gear, way == Way.OUT
                ? new Counts(c.out + 1, c.in, c.millis, c.since)
                : new Counts(c.out, c.in + 1, c.millis, c.since));
        changes++;
        return packet;
    }

    private void forget(@Nullable TrafficPacket packet) {
        if (packet != null) {
            kept -= size(packet);
        }
    }

    private static long size(TrafficPacket packet) {
        return packet.args().stream().mapToLong(Traffic::size).sum() + packet.landed().stream().mapToLong(l -> l
                .value() == null ? 0 : size(l.value())).sum() + packet.address().length() + packet.result().length();
    }

    private static long size(Value value) {
        return value instanceof Value.Text t ? t.text().length() : 8;
    }

    /** What is as long as a picture is not kept as a whole: there are thousands of packets. */
    private static List<Value> shortened(List<Value> args) {
        long all = args.stream().mapToLong(Traffic::size).sum();
        if (all <= LONGEST) {
            return args;
        }
        List<Value> begun = new ArrayList<>();
        long left = LONGEST;
        for (Value v : args.subList(0, Math.min(args.size(), LONGEST / Long.BYTES))) {
            boolean whole = size(v) <= Math.max(left, Long.BYTES);
            begun.add(whole ? v : Value.of(v.toString().substring(0, (int) left) + "…"));
            left = Math.max(0, left - size(v));
        }
        return List.copyOf(begun);
    }

    private static ReceivedReading shortened(ReceivedReading landed) {
        Value v = landed.value() == null ? null : Redactor.PROCESS.clean(landed.value());
        return v == null
                ? landed
                : new ReceivedReading(landed.reading(), shortened(List.of(v)).getFirst(), landed.problem());
    }

    private static int index(long number) {
        return (int) (number % MOST);
    }

    /** All that is kept; null where nothing has changed since a look that found {@code seen} changes. */
    public synchronized @Nullable Look look(long seen) {
        settle();
        if (seen == changes) {
            return null;
        }
        List<TrafficPacket> all = new ArrayList<>();
        for (long n = Math.max(1, last - MOST + 1); n <= last; n++) {
            TrafficPacket p = ring[index(n)];
            if (p != null) {
                all.add(p);
            }
        }
        return new Look(all, changes);
    }

    /** What was ignored of a gear's, the last ones, oldest first. */
    public synchronized List<TrafficPacket> ignoredOf(String gear) {
        return List.copyOf(ignored.getOrDefault(gear, new ArrayDeque<>()));
    }

    public synchronized Counts counts(String gear) {
        settle();
        return counts.getOrDefault(gear, Counts.NONE);
    }
}
