package rombix.torture;

import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.SocketAddress;
import java.nio.ByteBuffer;
import java.nio.channels.DatagramChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.IntStream;
import javafx.stage.Stage;
import rombix.app.show.Session;
import rombix.core.board.Board;
import rombix.core.board.Gear;
import rombix.core.card.Card.Item;
import rombix.core.card.Protocol;
import rombix.core.event.Mode;
import rombix.core.store.BoardFile;
import rombix.core.value.Value;
import rombix.running.input.TriggerInputs;
import rombix.wire.osc.OscCodec;
import rombix.wire.osc.OscPacket;

/** A window with 2,000 readings a second: the heap stays flat, and what is shown at the end is what was said last. */
final class ReadingFlood implements Trial {
    private static final int LOT = 20;
    private static final int A_SECOND = 2000;
    private static final double ALLOWED_MB = 16;
    private static final String CARD = """
            {"card": 1, "id": "meters", "title": "Meters", "lists": {"meter": []},
             "readings": [{"id": "level/{meter}", "title": "{meter}", "type": "number", "min": 0, "max": 100,
                           "arrives": {"osc": {"from": "/meter/{meter}"}}}],
             "greeting": {"osc": [{"to": "/hello"}]}}
            """;

    @Override
    public String name() {
        return "2,000-readings-a-second";
    }

    @Override
    public long whole() {
        return 240_000;
    }

    @Override
    public double share() {
        return 3;
    }

    @Override
    public Outcome suffer(Budget budget) throws Exception {
        Path folder = Files.createTempDirectory("readings");
        Files.writeString(Files.createDirectory(folder.resolve("cards")).resolve("meters.json"), CARD);
        Path file = folder.resolve("b.json");
        List<Item> meters = IntStream.range(0, LOT).mapToObj(i -> new Item("m" + i, "Meter " + i, Map.of())).toList();
        Stage[] stage = new Stage[1];
        try (DatagramChannel gear = DatagramChannel.open().bind(new InetSocketAddress(InetAddress.getLoopbackAddress(),
                0))) {
            int port = ((InetSocketAddress) gear.getLocalAddress()).getPort();
            BoardFile.save(file, Board.empty("Readings").withGear(List.of(new Gear("g", "Meters", "meters",
                    new Gear.Link(Protocol.of("osc"), "127.0.0.1:" + port, Map.of()), Map.of("meter", meters), Map
                            .of()))));
            try (Session session = Session.open(file, Map.of(TriggerInputs.OSC, "0"), null, s -> {
                s.setWidth(1280);
                s.setHeight(800);
                stage[0] = s;
            })) {
                SocketAddress deck = gear.receive(ByteBuffer.allocate(256));
                return flood(budget, session, gear, deck);
            } finally {
                Session.onInterface(() -> {
                    stage[0].hide();
                    return true;
                });
            }
        }
    }

    private static Outcome flood(Budget budget, Session session, DatagramChannel gear, SocketAddress deck)
            throws Exception {
        long start = System.nanoTime();
        double before = 0;
        ByteBuffer packet = ByteBuffer.allocate(64);
        int sent = 0;
        for (; budget.take(); sent++) {
            send(gear, deck, packet, sent % LOT, sent % 100);
            if (sent % LOT == LOT - 1) {
                LockSupport.parkNanos(start + (sent + 1L) * TimeUnit.SECONDS.toNanos(1) / A_SECOND - System
                        .nanoTime());
            }
            if (sent == 20 * A_SECOND / 2) {
                Session.onInterface(() -> {
                    session.window().bench().mode(Mode.LIVE);
                    return true;
                });
                before = Heap.held();
            }
        }
        long until = System.nanoTime() + TimeUnit.SECONDS.toNanos(30);
        boolean same = false;
        while (!same && System.nanoTime() - until < 0) {
            for (int m = 0; m < LOT; m++) {
                send(gear, deck, packet, m, 77); // Again and again: a packet may be lost.
            }
            LockSupport.parkNanos(TimeUnit.MILLISECONDS.toNanos(200));
            same = Session.onInterface(() -> IntStream.range(0, LOT).allMatch(m -> Value.of(77).equals(session.window()
                    .model().state().reading("g", "level/m" + m))));
        }
        if (!same) {
            budget.breach("half a minute later the window does not show what was said last");
        }
        double grown = before == 0 ? 0 : Heap.held() - before;
        if (grown > ALLOWED_MB) {
            budget.breach("the heap has grown by %.1f MB".formatted(grown));
        }
        return budget.outcome("%.0f a second, heap %+.1f MB".formatted(sent / ((System.nanoTime() - start) / 1e9),
                grown));
    }

    private static void send(DatagramChannel from, SocketAddress to, ByteBuffer packet, int meter, int value)
            throws Exception {
        packet.clear();
        OscCodec.encode(new OscPacket.Message("/meter/m" + meter, List.of((float) value)), packet);
        from.send(packet.flip(), to);
    }
}
