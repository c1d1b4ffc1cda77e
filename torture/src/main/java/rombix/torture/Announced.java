package rombix.torture;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.DatagramPacket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.MulticastSocket;
import java.net.NetworkInterface;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.SplittableRandom;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import rombix.links.found.Searching;
import rombix.standins.set.Announcements.Service;
import rombix.standins.set.Announcements;

/**
 * Sends spoiled announcements to a search (DNS-SD over multicast, RFC 6762 and 6763): what is announced well afterwards
 * is still found, and the heap stays flat.
 */
final class Announced implements Trial {
    private static final int LOT = 5000;
    /** A pause after as many packets: the system drops what comes faster. */
    private static final int BURST = 50;
    private static final long FOUND_NANOS = TimeUnit.SECONDS.toNanos(60);
    private static final double ALLOWED_MB = 48;
    private static final InetSocketAddress GROUP = new InetSocketAddress("224.0.0.251", 5353);

    @Override
    public String name() {
        return "spoiled-announcements";
    }

    @Override
    public long whole() {
        return 100_000;
    }

    @Override
    public double share() {
        return 2;
    }

    @Override
    public Outcome suffer(Budget budget) throws Exception {
        SplittableRandom chance = new SplittableRandom(1);
        Set<String> found = ConcurrentHashMap.newKeySet();
        double before = Heap.held();
        double grown;
        double slowest = 0;
        try (Searching searching = new Searching(List.of(), g -> found.add(g.name()));
                MulticastSocket out = new MulticastSocket()) {
            out.setNetworkInterface(NetworkInterface.getByInetAddress(InetAddress.getLoopbackAddress()));
            out.setTimeToLive(0);
            slowest = seconds(found, budget, 0);
            for (int i = 1; budget.take(); i++) {
                byte[] packet = Inputs.spoiled(announcement(chance.nextInt(i)), chance);
                try {
                    out.send(new DatagramPacket(packet, packet.length, GROUP));
                } catch (IOException e) {
                    // The system has no room for more just now.
                }
                if (i % BURST == 0) {
                    LockSupport.parkNanos(TimeUnit.MILLISECONDS.toNanos(5));
                }
                if (i % LOT == 0) {
                    slowest = Math.max(slowest, seconds(found, budget, i));
                }
            }
            grown = Heap.held() - before;
        }
        if (grown > ALLOWED_MB) {
            budget.breach("the heap has grown by %.1f MB".formatted(grown));
        }
        return budget.outcome(String.format(Locale.ROOT, "found in at most %.1f s, heap %+.1f MB", slowest, grown));
    }

    /** Announces something new; how long it takes until it is found. */
    private static double seconds(Set<String> found, Budget budget, int number) {
        String name = "Lantern " + ProcessHandle.current().pid() + " " + number;
        long start = System.nanoTime();
        try (Announcements told = new Announcements(List.of(new Service("_osc._udp", name, 4711, Map.of())))) {
            while (!found.contains(name)) {
                if (System.nanoTime() - start > FOUND_NANOS) {
                    budget.breach("after " + number + " packets “" + name + "” was not found");
                    break;
                }
                LockSupport.parkNanos(TimeUnit.MILLISECONDS.toNanos(20));
            }
        }
        return (System.nanoTime() - start) / 1e9;
    }

    /** An answer without a question (RFC 1035, 4.1): a service, where it is, what it says of itself, and its address. */
    private static byte[] announcement(int number) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        String type = "_osc._udp.local";
        String service = "Lamp " + number + "." + type;
        String host = "lamp-" + number + ".local";
        out.writeBytes(new byte[]{0, 0, (byte) 0x84, 0, 0, 0, 0, 4, 0, 0, 0, 0});
        record(out, type, 12, name(service));
        record(out, service, 33, ByteBuffer.allocate(6 + name(host).length).putShort((short) 0).putShort((short) 0)
                .putShort((short) 4711).put(name(host)).array());
        record(out, service, 16, "\7model=a".getBytes(StandardCharsets.US_ASCII));
        record(out, host, 1, new byte[]{127, 0, 0, 1});
        return out.toByteArray();
    }

    private static void record(ByteArrayOutputStream out, String name, int type, byte[] data) {
        out.writeBytes(name(name));
        out.writeBytes(ByteBuffer.allocate(10).putShort((short) type).putShort((short) 1).putInt(120).putShort(
                (short) data.length).array());
        out.writeBytes(data);
    }

    private static byte[] name(String dotted) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        for (String label : dotted.split("\\.")) {
            out.write(label.length());
            out.writeBytes(label.getBytes(StandardCharsets.US_ASCII));
        }
        out.write(0);
        return out.toByteArray();
    }
}
