package rombix.bench;

import java.io.IOException;
import java.lang.management.ManagementFactory;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.SocketAddress;
import java.nio.ByteBuffer;
import java.nio.channels.DatagramChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.IntStream;
import rombix.app.show.Session;
import rombix.bench.measure.Figure;
import rombix.bench.measure.Measured;
import rombix.core.board.Board;
import rombix.core.board.Gear.Link;
import rombix.core.card.Card.Item;
import rombix.core.card.Protocol;
import rombix.core.event.Mode;
import rombix.core.store.BoardFile;
import rombix.running.input.TriggerInputs;
import rombix.wire.osc.OscCodec;
import rombix.wire.osc.OscPacket.Message;

/**
 * A gear that reports two thousand readings a second, twenty meters in turn, to the window in Live: what of a core they
 * take beside what their packets take where somebody receives them and does nothing.
 */
final class Readings implements Measured {
    private static final int A_SECOND = 2000;
    private static final int LOT = 20;
    private static final int SECONDS = 8;
    private static final int WARM_SECONDS = 30;
    private static final double ALLOWED_CORES = 0.1;
    private static final String CARD = """
            {"card": 1, "id": "meters", "title": "Meters", "lists": {"meter": []},
             "readings": [{"id": "level/{meter}", "title": "{meter}", "type": "number", "min": 0, "max": 100,
                           "arrives": {"osc": {"from": "/meter/{meter}"}}}],
             "greeting": {"osc": [{"to": "/hello"}]}}
            """;

    @Override
    public List<Figure> measure() throws Exception {
        double bare = bare();
        Path folder = Files.createTempDirectory("readings");
        Files.writeString(Files.createDirectory(folder.resolve("cards")).resolve("meters.json"), CARD);
        Path file = folder.resolve("b.json");
        List<Item> meters = IntStream.range(0, LOT).mapToObj(i -> new Item("m" + i, "Meter " + i, Map.of())).toList();
        try (DatagramChannel gear = channel()) {
            int port = ((InetSocketAddress) gear.getLocalAddress()).getPort();
            BoardFile.save(file, Board.empty("Readings").withGear(List.of(new rombix.core.board.Gear("g", "Meters",
                    "meters", new Link(Protocol.of("osc"), "127.0.0.1:" + port, Map.of()), Map.of("meter", meters), Map
                            .of()))));
            Session.startToolkit(true);
            try (Session session = Session.open(file, Map.of(TriggerInputs.OSC, "0"), null, s -> {
                s.setWidth(1280);
                s.setHeight(800);
            })) {
                SocketAddress deck = gear.receive(ByteBuffer.allocate(256));
                send(gear, deck, WARM_SECONDS);
                double seen = cores(() -> send(gear, deck, SECONDS)); // In Build the rack shows each of them.
                Session.onInterface(() -> {
                    session.window().bench().mode(Mode.LIVE);
                    return true;
                });
                send(gear, deck, WARM_SECONDS);
                double full = cores(() -> send(gear, deck, SECONDS));
                double known = session.deck().known().readings().getOrDefault("g", Map.of()).size();
                if (known != LOT) {
                    throw new IllegalStateException("only " + known + " readings landed");
                }
                double idle = cores(() -> LockSupport.parkNanos(TimeUnit.SECONDS.toNanos(SECONDS)));
                return List.of(Figure.of("readings-cores", full - idle - bare, ALLOWED_CORES, "cores", 1), Figure.of(
                        "readings-in-rack", seen - idle - bare, ALLOWED_CORES, "cores", 0));
            }
        }
    }

    private static DatagramChannel channel() throws IOException {
        return DatagramChannel.open().bind(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0));
    }

    /** What the packets take where they are received and dropped. */
    private static double bare() throws Exception {
        try (DatagramChannel from = channel(); DatagramChannel to = channel()) {
            SocketAddress there = to.getLocalAddress();
            Thread receiver = Thread.ofVirtual().start(() -> {
                ByteBuffer in = ByteBuffer.allocate(1024);
                try {
                    while (true) {
                        in.clear();
                        to.receive(in);
                    }
                } catch (IOException e) {
                    // It was closed.
                }
            });
            send(from, there, WARM_SECONDS / 2);
            double cores = cores(() -> send(from, there, SECONDS));
            to.close();
            receiver.join();
            return cores;
        }
    }

    private static void send(DatagramChannel from, SocketAddress to, int seconds) throws IOException {
        List<ByteBuffer> packets = new ArrayList<>();
        for (int value = 0; value < 100; value++) {
            for (int m = 0; m < LOT; m++) {
                ByteBuffer packet = ByteBuffer.allocate(64);
                OscCodec.encode(new Message("/meter/m" + m, List.of((float) ((value * 7 + m) % 100))), packet);
                packets.add(packet.flip());
            }
        }
        long start = System.nanoTime();
        for (int sent = 0; sent < A_SECOND * seconds; sent += LOT) {
            for (int i = 0; i < LOT; i++) {
                from.send(packets.get((sent + i) % packets.size()).rewind(), to);
            }
            LockSupport.parkNanos(start + (sent + LOT) * TimeUnit.SECONDS.toNanos(1) / A_SECOND - System.nanoTime());
        }
    }

    private interface Work {
        void run() throws IOException;
    }

    /** How much of a core this process takes while something is done. */
    private static double cores(Work work) throws IOException {
        long start = System.nanoTime();
        long before = cpuNanos();
        work.run();
        return (cpuNanos() - before) / (double) (System.nanoTime() - start);
    }

    private static long cpuNanos() {
        return ((com.sun.management.OperatingSystemMXBean) ManagementFactory.getOperatingSystemMXBean())
                .getProcessCpuTime();
    }
}
