package rombix.links.osc;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.links.link.GearUnderTest.soon;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.ByteBuffer;
import java.nio.file.Path;
import java.util.List;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rombix.core.board.Gear;
import rombix.core.card.Card;
import rombix.core.store.BadFile;
import rombix.core.store.CardLibrary;
import rombix.core.value.Value;
import rombix.links.link.GearUnderTest;
import rombix.links.link.StandInGear;
import rombix.wire.Malformed;
import rombix.wire.osc.OscCodec;
import rombix.wire.osc.OscFraming;
import rombix.wire.osc.OscPacket;

/** OSC in the ways that gear wants it: over TCP in both framings, at a port of its own, in all types. */
class OscWiresTest {
    private static final String CARD = """
            {"card": 2, "id": "x", "title": "X",
             "readings": [{"id": "level", "type": "number", "arrives": {"osc": {"from": "/level"}}}],
             "commands": [
              {"id": "mute", "params": [{"id": "on", "type": "flag"}], "send": {"osc": [{"to": "/mute", "args": [{"of": "on", "yes": 1, "no": 0, "as": "int"}]}]}},
              {"id": "all", "send": {"osc": [{"to": "/all", "args": [{"value": 5, "as": "int"}, {"value": 6, "as": "long"}, {"value": 1.5, "as": "double"}, 2.5, "text",
                {"value": "name", "as": "symbol"}, {"value": "A", "as": "char"}, {"value": true, "as": "flag"}, {"value": "0a0b", "as": "blob"}, {"as": "impulse"}, {"as": "nil"},
                {"value": "#FF8000", "as": "rgb"}, {"value": "0090407f", "as": "midi"}, [1, [2, {"value": 3, "as": "int"}]]]}]}}]}
            """;

    private static GearUnderTest gear(String address, UnaryOperator<Gear.Link> set) throws BadFile {
        Card card = CardLibrary.read(Path.of("x.json"), CARD);
        return StandInGear.of(new Osc(), card, address, set);
    }

    private static ByteBuffer encoded(OscPacket packet) {
        ByteBuffer out = ByteBuffer.allocate(1000);
        OscCodec.encode(packet, out);
        return out.flip();
    }

    /** One refusal by its host made it off, and only an answer lifted that: gear that never answers stayed off for ever. */
    @Test
    void gearThatNeverAnswersIsSentToAgainOnceItWasAway() throws Exception {
        int port;
        try (DatagramSocket once = new DatagramSocket(0, InetAddress.getLoopbackAddress())) {
            port = once.getLocalPort();
        }
        try (GearUnderTest gear = gear("127.0.0.1:" + port, l -> l)) {
            soon(() -> gear.status().sends());
            gear.done("mute", "on", true);
            soon(() -> gear.status().words().contains("no response from"));
            assertThat(gear.status().sends()).isTrue();
            try (DatagramSocket back = new DatagramSocket(port, InetAddress.getLoopbackAddress())) {
                back.setSoTimeout(60_000);
                gear.done("mute", "on", true);
                back.receive(new DatagramPacket(new byte[1000], 1000)); // Whatever was said of it.
                soon(() -> gear.status().words().equals("silent"));
                assertThat(gear.done("mute", "on", true)).isEqualTo("sent");
            }
        }
    }

    @ParameterizedTest
    @CsvSource({"LENGTH", "SLIP"})
    void overTcpInBothFramings(OscFraming framing) throws Exception {
        try (ServerSocket server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress());
                GearUnderTest gear = gear("127.0.0.1:" + server.getLocalPort(), l -> l.withSetting(Osc.OVER, Value.of(
                        framing == OscFraming.SLIP ? Osc.TCP_SLIP : Osc.TCP)));
                Socket to = server.accept()) {
            gear.ready();
            assertThat(gear.done("mute", "on", true)).isEqualTo("sent");
            OscFraming.Reader in = framing.reader(new BufferedInputStream(to.getInputStream()));
            byte[] packet = in.next();
            assertThat(OscCodec.decode(ByteBuffer.wrap(packet == null ? new byte[0] : packet))).isEqualTo(
                    new OscPacket.Message("/mute", 1));
            ByteBuffer level = encoded(
                    new OscPacket.Bundle(OscPacket.TimeTag.IMMEDIATELY, List.of(new OscPacket.Message(
                            "/level", 0.75f))));
            byte[] bytes = new byte[level.remaining()];
            level.get(bytes);
            to.getOutputStream().write(framing.frame(bytes));
            soon(() -> Value.of(0.75).equals(gear.now("level")));
        }
    }

    @Test
    void slipEscapesWhatItMustAndBothFramingsRefuseWhatIsNone() throws IOException, Malformed {
        byte[] hard = {(byte) 0xC0, 1, (byte) 0xDB, 2};
        for (OscFraming f : OscFraming.values()) {
            assertThat(f.reader(new java.io.ByteArrayInputStream(f.frame(hard))).next()).isEqualTo(hard);
        }
        org.assertj.core.api.Assertions.assertThatThrownBy(() -> OscFraming.LENGTH.reader(
                new java.io.ByteArrayInputStream(new byte[]{127, 1, 1, 1, 1})).next()).isInstanceOf(Malformed.class)
                .hasMessageContaining("is its framing the same?");
    }

    @Test
    void gearThatAnswersFromAnotherPortToOneOfItsOwnIsHeard() throws Exception {
        int port;
        try (DatagramSocket free = new DatagramSocket(0, InetAddress.getLoopbackAddress())) {
            port = free.getLocalPort();
        }
        try (DatagramSocket gears = new DatagramSocket(0, InetAddress.getLoopbackAddress());
                DatagramSocket other = new DatagramSocket(0, InetAddress.getLoopbackAddress());
                GearUnderTest gear = gear("127.0.0.1:" + gears.getLocalPort(), l -> l.withSetting(Osc.RECEIVE, Value.of(
                        port)))) {
            ByteBuffer level = encoded(new OscPacket.Message("/level", 0.25f));
            DatagramPacket packet = new DatagramPacket(level.array(), level.remaining(),
                    new InetSocketAddress(InetAddress
                            .getLoopbackAddress(), port));
            soon(() -> {
                other.send(packet);
                return Value.of(0.25).equals(gear.now("level"));
            });
            assertThat(gear.done("mute", "on", false)).isEqualTo("sent");
        }
    }

    @Test
    void allTypesOfTheStandardGoOutAndAnAimedOneIsABundle() throws Exception {
        try (DatagramSocket gears = new DatagramSocket(0, InetAddress.getLoopbackAddress());
                GearUnderTest gear = gear("127.0.0.1:" + gears.getLocalPort(), l -> l.withSetting(Osc.AHEAD, Value.of(
                        500)))) {
            assertThat(gear.done("all")).isEqualTo("sent");
            DatagramPacket in = new DatagramPacket(new byte[2000], 2000);
            gears.receive(in);
            OscPacket.Bundle bundle = (OscPacket.Bundle) OscCodec
                    .decode(ByteBuffer.wrap(in.getData(), 0, in.getLength()));
            assertThat(bundle.time().millisFrom(java.time.Instant.now())).isBetween(1L, 500L);
            List<Object> args = ((OscPacket.Message) bundle.packets().getFirst()).args();
            assertThat(args.subList(0, 8)).containsExactly(5, 6L, 1.5, 2.5f, "text", new OscPacket.Symbol("name"), 'A',
                    true);
            assertThat((byte[]) args.get(8)).containsExactly(10, 11);
            assertThat(args.subList(9, 14)).containsExactly(new OscPacket.Impulse(), new OscPacket.Nil(),
                    new OscPacket.Rgba(0xFF8000FF), new OscPacket.Midi(0x0090407F), List.of(1.0f, List.of(2.0f, 3)));
        }
    }
}
