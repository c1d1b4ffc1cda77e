package rombix.links.dmx;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.PortUnreachableException;
import java.nio.ByteBuffer;
import java.nio.channels.DatagramChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.Condition;
import java.util.concurrent.locks.ReentrantLock;
import org.jspecify.annotations.Nullable;
import rombix.core.card.As;
import rombix.core.card.Order;
import rombix.core.engine.Glide;
import rombix.core.engine.Status.Phase;
import rombix.links.link.GearReport;
import rombix.links.link.HostPort;
import rombix.links.link.Keyring;
import rombix.links.link.Link;
import rombix.links.link.Loop;
import rombix.wire.dmx.SacnPacket;

/**
 * Streaming ACN (E1.31) out. Levels of a universe are gathered and sent as one packet: at once after a pause, and at
 * most 44 times a second, which is as often as DMX itself goes round. A universe is first sent when a level of it was
 * first set, so that joining in does not black out a rig; from then on it is sent again every 800 ms, as the standard
 * asks; at the end it says that it ends. The address is HOST:PORT, or {@code multicast}.
 */
final class DmxLink implements Link {
    private static final long FRAME_NANOS = 1_000_000_000L / 44;
    /** Universes that are due nearly at the same time are sent at the same time: so they stay in step. */
    private static final long TOGETHER_NANOS = FRAME_NANOS / 4;
    private static final long KEEP_ALIVE_NANOS = 800_000_000L;
    private static final long LOOK_UP_MILLIS = 2000;
    /** How often it is said that a universe ends (E1.31, 6.2.6). */
    private static final int GOODBYES = 3;
    private static final String MULTICAST = "multicast";
    /** E1.31-2018, section 9.1.1. */
    private static final int LAST_UNIVERSE = 63_999;

    /** One universe's levels. Guarded by the link's lock. */
    private static final class Universe {
        final int number;
        final byte[] levels = new byte[SacnPacket.SLOTS];
        final List<Long> tickets = new ArrayList<>();
        final Moving moving = new Moving();
        boolean dirty;
        int sequence;
        long sentNanos = System.nanoTime() - KEEP_ALIVE_NANOS;

        Universe(int number) {
            this.number = number;
        }

        /** How long until it is to be sent. */
        long left(long now) {
            return (dirty || !moving.isEmpty() ? FRAME_NANOS : KEEP_ALIVE_NANOS) - (now - sentNanos);
        }

    }

    private record Frame(Universe universe, byte[] packet, List<Long> tickets) {
    }

    private final GearReport report;
    private final @Nullable InetSocketAddress unicast;
    private final UUID identity;
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

    DmxLink(GearReport report, String address, Keyring keyring) {
        this.report = report;
        this.identity = identity(keyring);
        this.unicast = address.equals(MULTICAST) ? null : HostPort.of(address);
        try {
            channel = DatagramChannel.open();
            if (unicast != null && HostPort.isNumeric(unicast)) {
                channel.connect(HostPort.resolved(unicast));
            }
        } catch (IOException e) {
            throw new IllegalArgumentException("no way to " + address + ": " + e.getMessage(), e);
        }
        if (reaches()) {
            report.ready();
        }
        loop = Loop.startOften("dmx " + report.twin().gear(), this::run, report::troubled);
    }

    /** One for this computer, as long as it keeps one: a new one at each start would be one more source (E1.31, 5.6). */
    private static UUID identity(Keyring keyring) {
        Path kept = keyring.kept("sacn-identity");
        if (kept == null) {
            return UUID.randomUUID();
        }
        try {
            if (Files.exists(kept)) {
                return UUID.fromString(Files.readString(kept).strip());
            }
            UUID fresh = UUID.randomUUID();
            Files.createDirectories(kept.toAbsolutePath().getParent());
            Files.writeString(kept, fresh.toString());
            return fresh;
        } catch (IOException | IllegalArgumentException e) {
            return UUID.randomUUID(); // What cannot be kept is new each time.
        }
    }

    private boolean reaches() {
        return unicast == null || channel.isConnected();
    }

    private void run() throws InterruptedException {
        if (!reaches() && unicast != null) {
            try {
                channel.connect(HostPort.resolved(unicast));
            } catch (IOException e) {
                report.off(String.valueOf(e.getMessage()));
                Thread.sleep(LOOK_UP_MILLIS);
                return;
            }
            report.ready();
        }
        for (Frame frame : due()) {
            send(frame);
        }
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
                    wait = Math.min(wait, u.left(now));
                }
                if (wait > 0) {
                    changed.await(wait, TimeUnit.NANOSECONDS);
                } else {
                    for (Universe u : universes.values()) {
                        if (u.left(now) <= TOGETHER_NANOS) {
                            frames.add(frame(u, now, false));
                        }
                    }
                }
            }
            return frames;
        } finally {
            lock.unlock();
        }
    }

    private Frame frame(Universe u, long now, boolean ended) {
        u.moving.move(now, u.levels);
        Frame frame = new Frame(u, new SacnPacket(identity, "Rombix", 100, u.sequence++ & 0xFF, ended, u.number,
                u.levels).encode(), List.copyOf(u.tickets));
        u.tickets.clear();
        u.dirty = false;
        u.sentNanos = now;
        return frame;
    }

    private void send(Frame frame) {
        try {
            if (unicast != null) {
                channel.write(ByteBuffer.wrap(frame.packet()));
            } else {
                channel.send(ByteBuffer.wrap(frame.packet()), new InetSocketAddress(
                        "239.255." + (frame.universe().number >> 8) + "." + (frame.universe().number & 0xFF),
                        SacnPacket.PORT));
            }
            String words = ready;
            if (!words.equals(said)) {
                said = words;
                report.status(Phase.READY, words, "");
            }
            frame.tickets().forEach(report::sent);
        } catch (PortUnreachableException e) {
            said = "";
            report.status(Phase.SILENT, "nothing listens",
                    "Nothing listens at the lamps' address. Levels are still sent; check that the node is on.");
            frame.tickets().forEach(t -> report.failed(t, "nothing listens at its address"));
        } catch (IOException e) {
            said = "";
            report.status(Phase.SILENT, "cannot be sent to", "The network says: " + e.getMessage());
            frame.tickets().forEach(t -> report.failed(t, "the network refused it: " + e.getMessage()));
        }
    }

    @Override
    public void send(long ticket, Order order) {
        String wrong = wrong(order);
        if (wrong != null) {
            report.failed(ticket, wrong);
            return;
        }
        lock.lock();
        try {
            if (closed) {
                report.failed(ticket, "was closed");
                return;
            }
            if (!reaches()) {
                report.failed(ticket, "its host is not known yet");
                return;
            }
            Universe last = null;
            for (Order.Outgoing packet : order.packets()) {
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

    /** Why an order has no place on the wire; null where it has. It is looked at as a whole before any of it is set. */
    private static @Nullable String wrong(Order order) {
        for (Order.Outgoing packet : order.packets()) {
            String[] words = packet.address().split(" ");
            try {
                int universe = (int) Double.parseDouble(words[0]);
                int slot = (int) Double.parseDouble(words[1]);
                int slots = packet.forms().stream().mapToInt(f -> f == As.RGB ? 3 : 1).sum();
                if (universe >= 1 && universe <= LAST_UNIVERSE && slot >= 1 && slot + slots - 1 <= SacnPacket.SLOTS) {
                    continue;
                }
            } catch (NumberFormatException | ArrayIndexOutOfBoundsException e) {
                // Said below.
            }
            return "“" + packet.address() + "” is not a universe from 1 to " + LAST_UNIVERSE
                    + " and a slot from 1 to 512 with room for what it carries";
        }
        return null;
    }

    private Universe universe(int number) {
        Universe known = universes.get(number);
        if (known == null) {
            known = new Universe(number);
            universes.put(number, known);
            ready = "ready · sACN " + universes.keySet().stream().sorted().map(String::valueOf).collect(
                    java.util.stream.Collectors.joining(", "));
        }
        return known;
    }

    @Override
    public boolean glide(Glide glide) {
        List<Order.Outgoing> first = glide.ramp().passing(glide.from()).packets();
        List<Order.Outgoing> last = glide.ramp().passing(glide.to()).packets();
        lock.lock();
        try {
            for (int p = 0; p < first.size(); p++) {
                String[] words = first.get(p).address().split(" ");
                Universe u = universes.get((int) Double.parseDouble(words[0]));
                for (int i = 0; u != null && i < first.get(p).args().size(); i++) {
                    u.moving.add(glide, (int) Double.parseDouble(words[1]) - 1 + i, level(first.get(p), i),
                            level(last.get(p), i));
                }
            }
            changed.signal();
        } finally {
            lock.unlock();
        }
        return true;
    }

    private static double level(Order.Outgoing packet, int arg) {
        return Math.clamp(packet.args().get(arg).asNumber(), 0, 255);
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
        u.moving.removeSlot(slot);
        for (int i = 0; i < packet.args().size(); i++) {
            if (packet.forms().get(i) == As.RGB) {
                int rgb = Integer.parseInt(packet.args().get(i).toString().substring(1), 16);
                u.levels[at++] = (byte) (rgb >> 16);
                u.levels[at++] = (byte) (rgb >> 8);
                u.levels[at++] = (byte) rgb;
            } else {
                u.levels[at++] = (byte) Math.clamp(Math.round(packet.args().get(i).asNumber()), 0, 255);
            }
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
            for (Universe u : universes.values()) {
                if (u.dirty) {
                    last.add(frame(u, System.nanoTime(), false));
                }
                for (int i = 0; i < GOODBYES; i++) {
                    last.add(frame(u, System.nanoTime(), true));
                }
            }
        } finally {
            lock.unlock();
        }
        last.forEach(this::send);
        loop.close();
        try {
            channel.close();
        } catch (IOException e) {
            // It is gone either way.
        }
    }
}
