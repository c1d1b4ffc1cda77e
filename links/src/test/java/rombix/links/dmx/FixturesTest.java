package rombix.links.dmx;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.links.link.GearUnderTest.soon;

import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.ByteBuffer;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.UUID;
import java.util.function.UnaryOperator;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import rombix.core.board.Gear;
import rombix.core.card.Card.Item;
import rombix.core.store.CardLibrary;
import rombix.core.value.Value;
import rombix.links.link.GearUnderTest;
import rombix.links.link.LinkType;
import rombix.links.link.StandInGear;
import rombix.wire.Malformed;
import rombix.wire.dmx.ArtNetPacket;
import rombix.wire.dmx.SacnExtended;
import rombix.wire.dmx.SacnPacket;

/** Fixtures over sACN and Art-Net: 16 bits, white, a master that holds down, and a desk that is heard. */
class FixturesTest {
    private static final InetAddress HERE = InetAddress.getLoopbackAddress();

    private static GearUnderTest fixtures(LinkType type, int port, UnaryOperator<Gear.Link> set) {
        Map<String, List<Item>> lists = Map.of("dimmer", List.of(item("key", "slot", 1)), "rgbw", List.of(item("ring",
                "slot", 10)), "mover", List.of(new Item("head", "Head", Map.of("universe", 1, "pan", 20, "tilt", 22))),
                "wheel", List.of(item("gobo", "slot", 30)));
        return new GearUnderTest(type, Objects.requireNonNull(CardLibrary.shipped().get("fixtures")),
                "127.0.0.1:" + port,
                lists, StandInGear.KEYS, set);
    }

    private static Item item(String id, String field, int slot) {
        return new Item(id, id, Map.of("universe", 1, field, slot));
    }

    /** Reads packets until the levels are as they should be. */
    private static void shows(DatagramSocket node, boolean artNet, int slot, int... levels) throws IOException {
        DatagramPacket in = new DatagramPacket(new byte[1500], 1500);
        node.setSoTimeout(5000);
        String last = "";
        for (int packets = 0; packets < 20; packets++) {
            node.receive(in);
            byte[] now = levels(ByteBuffer.wrap(in.getData(), 0, in.getLength()), artNet);
            if (now.length > slot + levels.length) {
                int[] there = new int[levels.length];
                for (int i = 0; i < levels.length; i++) {
                    there[i] = now[slot - 1 + i] & 0xFF;
                }
                if (Arrays.equals(there, levels)) {
                    return;
                }
                last = Arrays.toString(there);
            }
        }
        assertThat(last).isEqualTo(Arrays.toString(levels));
    }

    private static byte[] levels(ByteBuffer bytes, boolean artNet) {
        try {
            return artNet
                    ? ArtNetPacket.decode(bytes) instanceof ArtNetPacket.Dmx d ? d.levels() : new byte[0]
                    : SacnPacket.decode(bytes).levels();
        } catch (Malformed e) {
            return new byte[0];
        }
    }

    @Test
    void aMoverARingAndAWheelOverBothProtocols() throws IOException {
        for (LinkType type : List.of(new Dmx(), new ArtNet())) {
            boolean artNet = type instanceof ArtNet;
            try (DatagramSocket node = new DatagramSocket(0, HERE);
                    GearUnderTest gear = fixtures(type, node.getLocalPort(), l -> l).ready()) {
                assertThat(gear.done("pan", "mover", "head", "pan", 123.4)).isEqualTo("sent");
                shows(node, artNet, 20, 186, 127); // (123.4 + 270) / 540 of 65535 is 47743, 0xBA7F.
                assertThat(gear.done("shade", "rgbw", "ring", "colour", "#FF8040")).isEqualTo("sent");
                shows(node, artNet, 10, 0xBF, 0x40, 0, 0x40);
                assertThat(gear.done("wheel", "wheel", "gobo", "step", "rings")).isEqualTo("sent");
                shows(node, artNet, 30, 80);
            }
        }
    }

    @Test
    void aBlackOutHoldsDownWhatShinesAndGivesItBack() throws IOException {
        try (DatagramSocket node = new DatagramSocket(0, HERE);
                GearUnderTest gear = fixtures(new Dmx(), node.getLocalPort(), l -> l).ready()) {
            gear.done("level", "dimmer", "key", "level", 100);
            gear.done("pan", "mover", "head", "pan", 270);
            shows(node, false, 20, 255, 255);
            assertThat(gear.done("black-out")).isEqualTo("sent");
            shows(node, false, 1, 0);
            gear.done("level", "dimmer", "key", "level", 40);
            shows(node, false, 20, 255, 255);
            assertThat(gear.done("master", "master", 50)).isEqualTo("sent");
            shows(node, false, 1, 51);
            assertThat(gear.done("master", "master", 100)).isEqualTo("sent");
            shows(node, false, 1, 102);
        }
    }

    /** In a black-out the packets that end the stream carried the levels beneath the master: the lamps shone again. */
    @Test
    void theEndOfAStreamCarriesTheLevelsThatAreOut() throws Exception {
        try (DatagramSocket node = new DatagramSocket(0, HERE)) {
            try (GearUnderTest gear = fixtures(new Dmx(), node.getLocalPort(), l -> l).ready()) {
                gear.done("level", "dimmer", "key", "level", 100);
                assertThat(gear.done("black-out")).isEqualTo("sent");
            }
            node.setSoTimeout(20_000);
            DatagramPacket in = new DatagramPacket(new byte[1500], 1500);
            SacnPacket last = null;
            while (last == null || !last.ended()) {
                node.receive(in);
                last = SacnPacket.decode(ByteBuffer.wrap(in.getData(), 0, in.getLength()));
            }
            assertThat(last.levels()[0]).isZero();
        }
    }

    @Test
    void whatADeskSendsIsHeardAndTheHighestPriorityCounts() throws Exception {
        int port;
        try (DatagramSocket free = new DatagramSocket(0)) {
            port = free.getLocalPort();
        }
        try (DatagramSocket desk = new DatagramSocket(0, HERE);
                GearUnderTest gear = fixtures(new Dmx(), 9, l -> l.withSetting(Dmx.LISTEN, Value.of(port)))) {
            byte[] levels = new byte[SacnPacket.SLOTS];
            levels[0] = (byte) 255;
            levels[19] = (byte) 0x80;
            UUID main = UUID.randomUUID();
            soon(() -> {
                say(desk, port, new SacnPacket(main, "desk", 150, 1, false, 1, levels));
                return Value.of(100).equals(gear.now("level/key"));
            });
            soon(() -> Math.abs(Objects.requireNonNull(gear.now("pan/head")).asNumber()) < 0.01);
            levels[0] = 0;
            say(desk, port, new SacnPacket(UUID.randomUUID(), "other", 100, 1, false, 1, levels));
            levels[0] = 51;
            soon(() -> {
                say(desk, port, new SacnPacket(main, "desk", 150, 2, false, 1, levels));
                return Value.of(20).equals(gear.now("level/key"));
            });
        }
    }

    @Test
    void aNodeThatAnswersIsNamed() throws Exception {
        int port;
        try (DatagramSocket free = new DatagramSocket(0)) {
            port = free.getLocalPort();
        }
        try (DatagramSocket node = new DatagramSocket(0, HERE);
                GearUnderTest gear = fixtures(new ArtNet(), node.getLocalPort(),
                        l -> l.withSetting(Dmx.LISTEN, Value.of(
                                port)))) {
            DatagramPacket in = new DatagramPacket(new byte[1500], 1500);
            node.receive(in);
            assertThat(ArtNetPacket.decode(ByteBuffer.wrap(in.getData(), 0, in.getLength()))).isEqualTo(
                    new ArtNetPacket.Poll());
            byte[] reply = ArtNetPacket
                    .encode(new ArtNetPacket.PollReply(new byte[]{127, 0, 0, 1}, "Node", "A node", List.of(0, 1)));
            node.send(new DatagramPacket(reply, reply.length, new InetSocketAddress(HERE, port)));
            soon(() -> {
                gear.done("level", "dimmer", "key", "level", 10);
                return gear.status().words().endsWith("answers: Node");
            });
        }
    }

    private static void say(DatagramSocket from, int port, SacnPacket packet) throws IOException {
        byte[] bytes = packet.encode();
        from.send(new DatagramPacket(bytes, bytes.length, new InetSocketAddress(HERE, port)));
    }

    @Test
    void extendedPacketsAreAsLongAsTheStandardSays() {
        UUID id = UUID.randomUUID();
        assertThat(SacnExtended.sync(id, 1, 7)).hasSize(49);
        assertThat(SacnExtended.discovery(id, "Rombix", List.of(3, 1))).hasSize(124).endsWith(0, 1, 0, 3);
    }

    @Property(tries = 2000)
    void hostilePacketsNeverEscape(@ForAll byte[] bytes) {
        byte[] headed = new byte[bytes.length + 10];
        System.arraycopy(ArtNetPacket.encode(new ArtNetPacket.Sync()), 0, headed, 0, 9);
        System.arraycopy(bytes, 0, headed, 10, bytes.length);
        headed[9] = (byte) (bytes.length % 3 == 0 ? 0x50 : 0x21);
        try {
            ArtNetPacket.decode(ByteBuffer.wrap(headed));
        } catch (Malformed e) {
            assertThat(e.getMessage()).isNotBlank();
        }
    }
}
