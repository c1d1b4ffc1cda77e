package rombix.links.dmx;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.PortUnreachableException;
import java.net.StandardSocketOptions;
import java.nio.ByteBuffer;
import java.nio.channels.DatagramChannel;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.Condition;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rombix.core.card.value.As;
import rombix.core.event.Cause;
import rombix.core.event.Glide;
import rombix.core.event.Status.Phase;
import rombix.core.twin.Order;
import rombix.core.value.Value;
import rombix.links.link.GearPlaces;
import rombix.links.link.GearReport;
import rombix.links.link.HostPort;
import rombix.links.link.Link;
import rombix.links.link.Loop;
import rombix.links.link.Target;

/**
 * DMX over IP, streaming ACN or Art-Net. Levels of a universe are gathered and sent as one packet: at once after a pause, and at
 * most 44 times a second, which is as often as DMX itself goes round. A universe is first sent when a level of it was
 * first set, so that joining in does not black out a rig; from then on it is sent again every 800 ms, or as is
 * set; at the end it says that it ends. A master holds down the slots that their packets put under it; what others send
 * is heard where a port is set for it. The address is HOST:PORT, or {@code multicast}.
 */
final class DmxLink implements Link {
    static final long FRAME_NANOS = 1_000_000_000L / 44;
    /** Universes that are due nearly at the same time are sent at the same time: so they stay in step. */
    private static final long TOGETHER_NANOS = FRAME_NANOS / 4;
    static final long LONG_AGO_NANOS = 10_000_000_000L;
    private static final double USUAL_KEEP_ALIVE = 800;
    private static final long LOOK_UP_MILLIS = 2000;
    static final String MULTICAST = "multicast";
    private static final String MASTER = "master";

    private record Frame(DmxForm.Parcel parcel, List<Long> tickets) {
    }

    private final GearReport report;
    private final @Nullable InetSocketAddress unicast;
    private final DmxForm form;
    private final GearPlaces places;
    private final long keepAliveNanos;
    private final @Nullable DmxEar ear;
    /** How far all that the master holds down is up, from 0 to 1, and how levels go out. Guarded by the lock. */
    private double master = 1;
    private Shaping shaping;
    private long toldNanos = System.nanoTime() - LONG_AGO_NANOS;
    private int frames;
    /** Those that said that they are there. Guarded by the lock. */
    private final Set<String> nodes = new TreeSet<>();
    private final DatagramChannel channel;
    private final ReentrantLock lock = new ReentrantLock();
    private final Condition changed = lock.newCondition();
    private final Map<Integer, Universe> universes = new LinkedHashMap<>();
    private final Loop loop;
    /** Guarded by the lock. */
    private boolean closed;
    /** What a link that is well says, with the universes that it sends. */
    private volatile String ready = "ready";
    /** What was said last; the link's thread alone. */
    private String said = "";

    DmxLink(GearReport report, Target target, GearPlaces places, DmxForm form) {
        this.report = report;
        this.shaping = Shaping.NONE.shaped(report.twin().outputs());
        this.form = form;
        this.places = places;
        String address = target.address();
        this.keepAliveNanos = TimeUnit.MILLISECONDS.toNanos((long) places.number(Dmx.KEEP_ALIVE, USUAL_KEEP_ALIVE));
        this.unicast = address.equals(MULTICAST) ? null : HostPort.of(address);
        try {
            channel = DatagramChannel.open();
            channel.setOption(StandardSocketOptions.SO_BROADCAST, true);
            if (unicast != null && HostPort.isNumeric(unicast)) {
                channel.connect(HostPort.resolved(unicast));
            }
        } catch (IOException e) {
            throw new IllegalArgumentException("no route to " + address + ": " + e.getMessage(), e);
        }
        if (reaches()) {
            report.ready();
        }
        ear = DmxEar.of(report, form, places, target, unicast, channel, this::answers);
        loop = Loop.startOften("dmx " + report.twin().gear(), this::run, report::troubled);
    }

    @Override
    public void overhear(boolean all) {
        if (ear != null) {
            ear.overhear(all);
        }
    }

    @Override
    public boolean goesOn() {
        return true;
    }

    @Override
    public void described() {
        shape(s -> s.shaped(report.twin().outputs()));
        if (ear != null) {
            ear.described();
        }
    }

    @Override
    public void light(Map<Integer, Map<Integer, Integer>> slots) {
        shape(s -> s.lighting(slots));
    }

    /** From now on levels go out otherwise; those that are out, too. */
    private void shape(UnaryOperator<Shaping> how) {
        lock.lock();
        try {
            Shaping next = how.apply(shaping);
            if (next == shaping) {
                return;
            }
            shaping = next;
            shaping.lit().stream().filter(n -> n >= form.firstUniverse() && n <= form.lastUniverse()).forEach(
                    this::universe);
            universes.values().forEach(u -> u.dirty = true);
            changed.signal();
        } finally {
            lock.unlock();
        }
    }

    /** A node says that it is there. */
    private void answers(String name) {
        lock.lock();
        try {
            nodes.add(name);
            ready = words();
        } finally {
            lock.unlock();
        }
    }

    private String words() {
        return "ready · " + form.title() + universes.keySet().stream().sorted().map(String::valueOf).collect(Collectors
                .joining(", ", " ", "")) + (nodes.isEmpty() ? "" : " · answers: " + String.join(", ", nodes));
    }

    private boolean reaches() {
        return unicast == null || channel.isConnected();
    }

    private void run() throws InterruptedException {
        if (!reaches() && unicast != null) {
            try {
                channel.connect(HostPort.resolved(unicast));
            } catch (IOException e) {
                report.off(e);
                Thread.sleep(LOOK_UP_MILLIS);
                return;
            }
            report.ready();
        }
        due().forEach(this::send);
    }

    /** Waits until packets are due, and makes them. */
    private List<Frame> due() throws InterruptedException {
        lock.lockInterruptibly();
        try {
            List<Frame> frames = new ArrayList<>();
            while (frames.isEmpty()) {
                long now = System.nanoTime();
                long wait = Long.MAX_VALUE;
                for (Universe u : universes.values()) {
                    wait = Math.min(wait, u.left(now, keepAliveNanos));
                }
                if (now - toldNanos >= form.nowNanos()) {
                    toldNanos = now;
                    form.now(universes.keySet()).forEach(p -> frames.add(new Frame(p, List.of())));
                }
                wait = Math.min(wait, form.nowNanos() - (now - toldNanos));
                if (wait > 0 && frames.isEmpty()) {
                    changed.await(wait, TimeUnit.NANOSECONDS);
                } else {
                    for (Universe u : universes.values()) {
                        if (u.left(now, keepAliveNanos) <= TOGETHER_NANOS) {
                            frames.add(frame(u, now));
                        }
                    }
                    if (wait <= 0) {
                        form.after(this.frames++).forEach(p -> frames.add(new Frame(p, List.of())));
                    }
                }
            }
            return frames;
        } finally {
            lock.unlock();
        }
    }

    private Frame frame(Universe u, long now) {
        u.moving.move(now, u.levels);
        Frame frame = new Frame(form.data(u.number, u.sequence++, shaping.out(u.number, u
                .out(master))), List.copyOf(u.tickets));
        u.tickets.clear();
        u.dirty = false;
        u.sentNanos = now;
        return frame;
    }

    private void send(Frame frame) {
        try {
            InetSocketAddress to = frame.parcel().to();
            if (to == null) {
                channel.write(ByteBuffer.wrap(frame.parcel().bytes()));
            } else {
                channel.send(ByteBuffer.wrap(frame.parcel().bytes()), to);
            }
            String words = ready;
            if (!words.equals(said)) {
                said = words;
                report.status(Phase.READY, Cause.SENDING, words);
            }
            frame.tickets().forEach(report::sent);
        } catch (PortUnreachableException e) {
            said = "";
            report.status(Phase.SILENT, Cause.NOTHING_AT_THE_LAMPS);
            frame.tickets().forEach(t -> report.failed(t, "nothing is listening at its address"));
        } catch (IOException e) {
            said = "";
            report.status(Phase.SILENT, Cause.CANNOT_BE_SENT_TO, String.valueOf(e.getMessage()));
            frame.tickets().forEach(t -> report.failed(t, "the network refused: " + e.getMessage()));
        }
    }

    @Override
    public void send(long ticket, Order order) {
        List<Order.Outgoing> packets;
        try {
            packets = places.made(order);
        } catch (IOException | IllegalArgumentException e) {
            report.failed(ticket, String.valueOf(e.getMessage()));
            return;
        }
        for (Order.Outgoing packet : packets) { // All of it is looked at before any of it is set.
            String wrong = packet.address().equals(MASTER) ? null : form.wrong(packet);
            if (wrong != null) {
                report.failed(ticket, wrong);
                return;
            }
        }
        lock.lock();
        try {
            if (closed) {
                report.failed(ticket, "was closed");
                return;
            }
            if (!reaches()) {
                report.failed(ticket, "its host name isn't resolved yet");
                return;
            }
            Universe last = null;
            for (Order.Outgoing packet : packets) {
                if (packet.address().equals(MASTER)) {
                    master = Math.clamp(packet.args().getFirst().asNumber(), 0, 1);
                    universes.values().forEach(u -> u.dirty = true);
                    last = universes.isEmpty() ? null : universes.values().iterator().next();
                    continue;
                }
                String[] words = packet.address().split(" ");
                last = universe((int) Double.parseDouble(words[0]));
                set(last, (int) Double.parseDouble(words[1]) - 1, packet);
                last.dirty = true;
            }
            if (last == null) {
                report.sent(ticket);
            } else {
                last.tickets.add(ticket);
                changed.signal();
            }
        } finally {
            lock.unlock();
        }
    }

    private Universe universe(int number) {
        Universe known = universes.get(number);
        if (known == null) {
            known = new Universe(number);
            universes.put(number, known);
            ready = words();
        }
        return known;
    }

    @Override
    public boolean glide(Glide glide) {
        List<Order.Outgoing> first = glide.ramp().passing(glide.from()).packets();
        List<Order.Outgoing> last = glide.ramp().passing(glide.to()).packets();
        if (first.stream().anyMatch(p -> p.address().equals(MASTER) || p.forms().stream().anyMatch(As::leaps))) {
            return false; // Their slots do not move apart from each other.
        }
        lock.lock();
        try {
            for (int p = 0; p < first.size(); p++) {
                String[] words = first.get(p).address().split(" ");
                Universe u = universes.get((int) Double.parseDouble(words[0]));
                for (int i = 0; u != null && i < first.get(p).args().size(); i++) {
                    u.moving.add(glide, (int) Double.parseDouble(words[1]) - 1 + i, Slots.level(first.get(p), i),
                            Slots.level(last.get(p), i));
                }
            }
            changed.signal();
        } finally {
            lock.unlock();
        }
        return true;
    }

    @Override
    public void halt(Glide glide) {
        lock.lock();
        try {
            long now = System.nanoTime();
            for (Universe u : universes.values()) {
                if (u.moving.has(glide)) {
                    u.moving.move(now, u.levels);
                    u.moving.remove(glide);
                    u.dirty = true;
                }
            }
            changed.signal();
        } finally {
            lock.unlock();
        }
    }

    private static void set(Universe u, int slot, Order.Outgoing packet) {
        int at = slot;
        for (int i = 0; i < packet.args().size(); i++) {
            for (int level : Slots.of(packet.args().get(i), packet.forms().get(i))) {
                u.moving.removeSlot(at);
                u.levels[at++] = (byte) level;
            }
        }
        Value held = packet.head().get(MASTER);
        if (held != null && held.asFlag()) {
            u.mastered.set(slot, at);
        }
    }

    /** What was set and has not gone out yet goes out now: a hold that ended must not stay on the lamps. Then it ends. */
    @Override
    public void close() {
        List<Frame> last = new ArrayList<>();
        lock.lock();
        try {
            if (closed) {
                return;
            }
            closed = true;
            light(Map.of()); // What was lit to be found does not stay so.
            for (Universe u : universes.values()) {
                if (u.dirty) {
                    last.add(frame(u, System.nanoTime()));
                }
                form.end(u.number, u.sequence, shaping.out(u.number, u.out(master)))
                        .forEach(p -> last.add(new Frame(p, List.of())));
            }
        } finally {
            lock.unlock();
        }
        last.forEach(this::send);
        if (ear != null) {
            ear.close();
        }
        loop.close();
        try {
            channel.close();
        } catch (IOException e) {
            // It is gone either way.
        }
    }
}
