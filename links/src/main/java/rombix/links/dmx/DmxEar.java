package rombix.links.dmx;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.NetworkInterface;
import java.net.SocketAddress;
import java.net.StandardProtocolFamily;
import java.net.StandardSocketOptions;
import java.nio.ByteBuffer;
import java.nio.channels.DatagramChannel;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import rombix.core.value.Value;
import rombix.links.link.GearPlaces;
import rombix.links.link.GearReport;
import rombix.links.link.Loop;
import rombix.links.link.Target;
import rombix.wire.Malformed;
import rombix.wire.dmx.SacnPacket;

/**
 * Hears what others send, a desk above all: each slot that the card has a reading for lands when it changes, as its
 * level, with the slot behind it as 16 bits, and with the two behind it as a colour. Where several send one universe,
 * the highest priority counts for as long as it is heard.
 */
final class DmxEar implements AutoCloseable {
    private static final String HERE = "localhost|127\\.\\d+\\.\\d+\\.\\d+|::1|0:0:0:0:0:0:0:1";
    private static final int LARGEST = 2048;
    private static final Set<Integer> EVERY = new TreeSet<>(
            IntStream.rangeClosed(1, SacnPacket.SLOTS).boxed().toList());
    /** Who is not heard for so long is gone (E1.31, 6.7.1). */
    private static final long GONE_NANOS = TimeUnit.MILLISECONDS.toNanos(2500);

    private final GearReport report;
    private final DmxForm form;
    private final Consumer<String> nodes;
    private final DatagramChannel channel;
    private final @Nullable SocketAddress own;
    private final Loop loop;
    private volatile boolean all;
    private final ByteBuffer in = ByteBuffer.allocate(LARGEST);
    /** The slots of interest, by universe. */
    private volatile Map<Integer, Set<Integer>> slots;
    private volatile Shaping shaping;
    private final Map<Integer, byte[]> last = new HashMap<>();
    private final Map<Integer, Owner> owners = new HashMap<>();

    private record Owner(Object source, int priority, long nanos) {
    }

    /**
     * @param nodes told of each node that says that it is there, by its name
     * @param own where this link itself sends from, which comes back where it goes to all
     */
    DmxEar(GearReport report, DmxForm form, int port, Consumer<String> nodes, @Nullable SocketAddress own) {
        this.own = own;
        this.report = report;
        this.nodes = nodes;
        this.form = form;
        slots = read(report);
        shaping = Shaping.NONE.shaped(report.twin().outputs());
        try {
            channel = DatagramChannel.open(StandardProtocolFamily.INET);
            channel.setOption(StandardSocketOptions.SO_REUSEADDR, true);
            channel.bind(new InetSocketAddress(port));
            join();
        } catch (IOException e) {
            throw new IllegalArgumentException("can't listen on port " + port + ": " + e.getMessage(), e);
        }
        loop = Loop.start("dmx-in " + report.twin().gear(), this::receive, report::troubled);
    }

    /**
     * What hears others; null where nothing is to be heard: what is on this computer may have the usual port itself.
     *
     * @param unicast where the link sends; null for multicast
     * @param out by what it sends
     * @throws IllegalArgumentException in plain words, where a port that was set cannot be listened at
     */
    static @Nullable DmxEar of(GearReport report, DmxForm form, GearPlaces places, Target target,
            @Nullable InetSocketAddress unicast, DatagramChannel out, Consumer<String> nodes) {
        int port = (int) places.number(Dmx.LISTEN, 0);
        boolean set = target.link().settings().containsKey(Dmx.LISTEN);
        if (port == 0 || !set && unicast != null && unicast.getHostString().matches(HERE)) {
            return null;
        }
        try {
            if (out.getLocalAddress() == null) {
                out.bind(null); // Or it would have no port to know itself by before it has sent.
            }
            return new DmxEar(report, form, port, nodes, out.getLocalAddress());
        } catch (IOException | IllegalArgumentException e) {
            if (set) {
                throw new IllegalArgumentException(e.getMessage(), e);
            }
            return null; // Somebody has it already: what was not asked for is done without.
        }
    }

    private static Map<Integer, Set<Integer>> read(GearReport report) {
        Map<Integer, Set<Integer>> all = new TreeMap<>();
        report.twin().fixedArrivals().stream().map(a -> a.split(" ")).filter(w -> w.length == 2 && w[0].matches("\\d+")
                && w[1].matches("\\d+")).forEach(w -> all.computeIfAbsent(Integer.parseInt(w[0]), _ -> new TreeSet<>())
                        .add(Integer.parseInt(w[1])));
        return all;
    }

    /** The gear's card reads other slots from now on. */
    void described() {
        shaping = Shaping.NONE.shaped(report.twin().outputs());
        slots = read(report);
        try {
            join();
        } catch (IOException e) {
            report.troubled(e);
        }
    }

    private void join() throws IOException {
        for (String group : form.groups(slots.keySet())) {
            for (NetworkInterface network : NetworkInterface.networkInterfaces().toList()) {
                if (network.isUp() && network.supportsMulticast() && network.inetAddresses().anyMatch(a -> a
                        .getAddress().length == 4)) {
                    channel.join(InetAddress.getByName(group), network);
                }
            }
        }
    }

    private void receive() throws IOException {
        in.clear();
        if (ours(channel.receive(in))) {
            return;
        }
        try {
            DmxForm.Came came = form.read(in.flip());
            switch (came) {
                case DmxForm.Levels levels -> take(levels, System.nanoTime());
                case DmxForm.Node node -> nodes.accept(node.name());
                case null -> {
                }
            }
        } catch (Malformed e) {
            report.ignored(String.valueOf(e.getMessage()));
        }
    }

    /** @param every whether all slots are told of that change, not only those that the card reads */
    void overhear(boolean every) {
        all = every;
    }

    private boolean ours(@Nullable SocketAddress from) throws IOException {
        return from instanceof InetSocketAddress at && own instanceof InetSocketAddress ours && at
                .getPort() == ours.getPort() && NetworkInterface.getByInetAddress(at.getAddress()) != null;
    }

    private void take(DmxForm.Levels came, long now) {
        Owner owner = owners.get(came.universe());
        if (owner != null && !owner.source().equals(came.source()) && now - owner.nanos() < GONE_NANOS && owner
                .priority() > came.priority()) {
            return;
        }
        if (came.ended()) {
            owners.remove(came.universe());
            return;
        }
        owners.put(came.universe(), new Owner(came.source(), came.priority(), now));
        byte[] before = last.get(came.universe());
        byte[] levels = Arrays.copyOf(shaping.in(came.universe(), came.levels()), SacnPacket.SLOTS + 3);
        last.put(came.universe(), levels);
        for (int slot : all && before != null ? EVERY : slots.getOrDefault(came.universe(), Set.of())) {
            if (differs(before, levels, slot - 1)) {
                report.landed(came.universe() + " " + slot, args(levels, slot - 1));
            }
        }
    }

    private static boolean differs(byte @Nullable [] before, byte[] levels, int at) {
        return before == null || before[at] != levels[at] || before[at + 1] != levels[at + 1] || before[at
                + 2] != levels[at + 2];
    }

    private static List<Value> args(byte[] levels, int at) {
        int first = levels[at] & 0xFF;
        int second = levels[at + 1] & 0xFF;
        return List.of(Value.of(first), Value.of(first << 8 | second), Value.of("#%02X%02X%02X".formatted(first, second,
                levels[at + 2] & 0xFF)));
    }

    @Override
    public void close() {
        loop.close();
        try {
            channel.close();
        } catch (IOException e) {
            // It is gone either way.
        }
    }
}
