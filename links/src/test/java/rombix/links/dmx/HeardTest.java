package rombix.links.dmx;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.links.link.GearUnderTest.soon;

import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CopyOnWriteArrayList;
import org.junit.jupiter.api.Test;
import rombix.core.board.Gear;
import rombix.core.card.Card;
import rombix.core.card.Protocol;
import rombix.core.event.Event;
import rombix.core.store.CardLibrary;
import rombix.core.twin.Twin;
import rombix.core.value.Value;
import rombix.links.MachineClock;
import rombix.links.link.GearPlaces;
import rombix.links.link.GearReport;
import rombix.links.link.Keyring;
import rombix.links.link.Target;
import rombix.wire.dmx.ArtNetPacket;

/** Others on the network of lamps. */
class HeardTest {
    private static final String CARD = """
            {"card": 2, "id": "desk", "title": "Desk", "readings": [
              {"id": "level", "type": "number", "arrives": {"artnet": {"from": "0 5"}}}], "commands": []}
            """;

    /** What went to all came back and was taken for a desk's: a button that follows it changed by its own press. */
    @Test
    void whatWeSendToAllOurselvesIsNotTakenForADesks() throws Exception {
        Card card = CardLibrary.read(Path.of("desk.json"), CARD);
        List<Value> came = new CopyOnWriteArrayList<>();
        GearReport report = new GearReport(new Twin("desk", "Desk", card, Protocol.of("artnet"), Map.of()),
                new MachineClock(), e -> {
                    if (e instanceof Event.Came c) {
                        came.add(c.value());
                    }
                });
        Target target = new Target("127.0.0.1:1", new Gear.Link(Protocol.of("artnet"), "127.0.0.1:1", Map.of()),
                Keyring.NONE, Path::of);
        try (DatagramSocket own = new DatagramSocket(0);
                DatagramSocket desk = new DatagramSocket(0);
                DatagramSocket free = new DatagramSocket(0)) {
            int port = free.getLocalPort();
            free.close();
            try (DmxEar _ = new DmxEar(report, new ArtNetForm(new GearPlaces(report.twin(), target)), port, _ -> {
            }, own.getLocalSocketAddress())) {
                InetSocketAddress to = new InetSocketAddress(InetAddress.getLoopbackAddress(), port);
                own.send(level(200, to));
                desk.send(level(42, to));
                soon(() -> came.contains(Value.of(42)));
                assertThat(came).containsExactly(Value.of(42));
            }
        }
    }

    private static DatagramPacket level(int level, InetSocketAddress to) {
        byte[] levels = new byte[512];
        levels[4] = (byte) level;
        byte[] bytes = ArtNetPacket.encode(new ArtNetPacket.Dmx(1, 0, levels));
        return new DatagramPacket(bytes, bytes.length, to);
    }
}
