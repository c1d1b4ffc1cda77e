package rombix.links;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.links.LinkBench.soon;

import com.hivemq.client.mqtt.mqtt3.Mqtt3BlockingClient;
import com.hivemq.client.mqtt.mqtt3.Mqtt3Client;
import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.ByteBuffer;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import rombix.core.event.Status.Phase;
import rombix.core.value.Value;
import rombix.standins.Chat;
import rombix.standins.Cues;
import rombix.standins.House;
import rombix.standins.Lamps;
import rombix.standins.Studio;
import rombix.standins.midi.CableProvider;
import rombix.standins.midi.SoundDesk;
import rombix.wire.osc.OscCodec;
import rombix.wire.osc.OscPacket;

/** Each link against the stand-in of its protocol. */
@Timeout(300)
class LinksTest {
    private static final String NOWHERE = "127.0.0.1:1";

    private static Map<String, String> only(String gear, String address) {
        Map<String, String> all = new java.util.HashMap<>(Map.of("studio", NOWHERE, "desk", "No such port", "lamps",
                NOWHERE, "house", NOWHERE, "cues", NOWHERE));
        all.put(gear, address);
        return all;
    }

    @Test
    void oscCommandsTheStudioAndFollowsIt() throws IOException {
        try (Studio studio = new Studio(0);
                LinkBench bench = new LinkBench(only("studio", "127.0.0.1:" + studio.port()))) {
            bench.awaitPhase("studio", Phase.READY);
            bench.awaitReading("studio/scene", Value.of("sky-map"));
            bench.awaitAnswer(bench.send("studio", "scene", Map.of("scene", Value.of("host-desk"))), "sent");
            bench.awaitReading("studio/scene", Value.of("host-desk"));
            assertThat(studio.scene()).isEqualTo("host-desk");
            bench.awaitAnswer(bench.send("studio", "show-layer", Map.of("layer", Value.of("countdown"))), "sent");
            bench.awaitReading("studio/shown/countdown", Value.of(true));
            bench.send("studio", "keep-clip", Map.of());
            bench.awaitReading("studio/clips", Value.of(1));
        }
    }

    @Test
    void cueListsGoBackAndAreReleasedAndStayAtTheirEnds() throws IOException {
        try (Cues cues = new Cues(0); LinkBench bench = new LinkBench(only("cues", "127.0.0.1:" + cues.port()))) {
            bench.awaitPhase("cues", Phase.READY);
            bench.awaitReading("cues/cue/dome-walk", Value.of(0));
            Map<String, Value> list = Map.of("list", Value.of("dome-walk"));
            bench.awaitAnswer(bench.send("cues", "back", list), "sent");
            for (int cue = 1; cue <= 4; cue++) {
                bench.send("cues", "go", list);
                bench.awaitReading("cues/cue/dome-walk", Value.of(cue));
            }
            bench.send("cues", "go", list);
            bench.send("cues", "back", list);
            bench.awaitReading("cues/cue/dome-walk", Value.of(3));
            bench.send("cues", "release", list);
            bench.awaitReading("cues/cue/dome-walk", Value.of(0));
            cues.work("house-lights", "go");
            bench.awaitReading("cues/cue/house-lights", Value.of(1));
        }
    }

    @Test
    void aChangeThatAnotherMakesOnTheStudioIsFollowed() throws IOException {
        try (Studio studio = new Studio(0);
                LinkBench bench = new LinkBench(only("studio", "127.0.0.1:" + studio.port()));
                DatagramSocket other = new DatagramSocket()) {
            bench.awaitPhase("studio", Phase.READY);
            ByteBuffer out = ByteBuffer.allocate(200);
            OscCodec.encode(new OscPacket.Bundle(OscPacket.TimeTag.IMMEDIATELY,
                    java.util.List.of(new OscPacket.Message("/studio/set/stream", 1))), out);
            other.send(new DatagramPacket(out.array(), out.position(), InetAddress.getLoopbackAddress(),
                    studio.port()));
            bench.awaitReading("studio/stream", Value.of(true));
        }
    }

    @Test
    void malformedDatagramsAreCountedAndTheLoopGoesOn() throws IOException {
        try (DatagramSocket gear = new DatagramSocket(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0));
                LinkBench bench = new LinkBench(only("studio", "127.0.0.1:" + gear.getLocalPort()))) {
            DatagramPacket hello = new DatagramPacket(new byte[100], 100);
            gear.receive(hello);
            byte[][] hostile = {{}, {1, 2, 3}, "#bundle\0\0\0\0\0\0\0\0\1\0\0\0\144".getBytes("ISO-8859-1"),
                    new byte[1000]};
            for (byte[] bytes : hostile) {
                gear.send(new DatagramPacket(bytes, bytes.length, hello.getSocketAddress()));
            }
            ByteBuffer out = ByteBuffer.allocate(200);
            OscCodec.encode(new OscPacket.Message("/studio/clips", 5), out);
            gear.send(new DatagramPacket(out.array(), out.position(), hello.getSocketAddress()));
            bench.awaitReading("studio/clips", Value.of(5));
            soon().until(() -> bench.statuses.get("studio").ignored() == hostile.length);
        }
    }

    @Test
    void gearThatIsNotThereIsSaidAndComesBackByItself() throws IOException {
        int port;
        try (Studio once = new Studio(0)) {
            port = once.port();
        }
        try (LinkBench bench = new LinkBench(only("studio", "127.0.0.1:" + port))) {
            soon().until(() -> bench.statuses.get("studio").words().contains("no response from 127.0.0.1:" + port));
            assertThat(bench.statuses.get("studio").phase()).isEqualTo(Phase.SILENT);
            assertThat(bench.statuses.get("studio").hint()).isNotBlank();
            try (Studio back = new Studio(port)) {
                bench.awaitPhase("studio", Phase.READY);
                assertThat(back.malformed()).isZero();
            }
        }
    }

    @Test
    void midiCommandsTheDeskAndFollowsIt() throws IOException {
        try (SoundDesk desk = new SoundDesk(0)) {
            CableProvider.plug("Test Desk", new InetSocketAddress(InetAddress.getLoopbackAddress(), desk.port()));
            try (LinkBench bench = new LinkBench(only("desk", "Test Desk"))) {
                bench.awaitPhase("desk", Phase.READY);
                bench.awaitReading("desk/muted/host", Value.of(true));
                bench.awaitAnswer(bench.send("desk", "unmute", Map.of("channel", Value.of("host"))), "sent");
                bench.awaitReading("desk/muted/host", Value.of(false));
                assertThat(desk.muted(0)).isFalse();
                desk.work(34, 127);
                bench.awaitReading("desk/level/stings", Value.of(10));
                desk.babble(new byte[]{(byte) 0xB0, 20, 3, 5, (byte) 0x90});
                desk.work(31, 0);
                bench.awaitReading("desk/level/guest", Value.of(-60));
                desk.close();
                bench.awaitPhase("desk", Phase.OFF);
                try (SoundDesk back = new SoundDesk(0)) {
                    CableProvider.plug("Test Desk",
                            new InetSocketAddress(InetAddress.getLoopbackAddress(), back.port()));
                    bench.awaitPhase("desk", Phase.READY);
                }
            } finally {
                CableProvider.unplug("Test Desk");
            }
        }
    }

    @Test
    void dmxSendsLevelsAndKeepsThemAlive() throws IOException {
        try (Lamps lamps = new Lamps(0);
                LinkBench bench = new LinkBench(only("lamps", "127.0.0.1:" + lamps.port()))) {
            bench.awaitPhase("lamps", Phase.READY);
            assertThat(lamps.packets()).isZero();
            bench.send("lamps", "level", Map.of("lamp", Value.of("desk-key"), "level", Value.of(100)));
            bench.send("lamps", "warmth", Map.of("warm-lamp", Value.of("desk-key"), "warmth", Value.of(2700)));
            long last = bench.send("lamps", "colour",
                    Map.of("colour-lamp", Value.of("dome-ring"), "colour", Value.of("#FF8001")));
            bench.awaitAnswer(last, "sent");
            soon().until(() -> lamps.slot(13) == 1);
            assertThat(new int[]{lamps.slot(1), lamps.slot(2), lamps.slot(11), lamps.slot(12)})
                    .containsExactly(255, 0, 255, 128);
            long sent = lamps.packets();
            soon().until(() -> lamps.packets() > sent);
            assertThat(lamps.ignored()).isZero();
        }
    }

    @Test
    void mqttCommandsTheHouseAndFollowsIt() throws IOException {
        try (House house = new House(0);
                LinkBench bench = new LinkBench(only("house", "127.0.0.1:" + house.port()))) {
            bench.awaitPhase("house", Phase.READY);
            bench.awaitReading("house/locked/gate", Value.of(true));
            bench.awaitAnswer(bench.send("house", "unlock", Map.of("lock", Value.of("gate"))), "sent");
            bench.awaitReading("house/locked/gate", Value.of(false));
            assertThat(house.state("house/lock/gate")).contains("UNLOCKED");
            bench.awaitAnswer(bench.send("house", "heat", Map.of("target", Value.of(21))), "sent");
            bench.awaitReading("house/target", Value.of(21));
            Mqtt3BlockingClient other = Mqtt3Client.builder().serverHost("127.0.0.1").serverPort(house.port())
                    .buildBlocking();
            other.connect();
            other.publishWith().topic("house/heater/temperature").payload("warm".getBytes()).send();
            other.publishWith().topic("house/plug/tea-urn").payload(new byte[]{(byte) 0xff, (byte) 0xfe}).send();
            soon().until(() -> bench.statuses.get("house").ignored() == 2);
            other.publishWith().topic("house/heater/temperature").payload("22.5".getBytes()).send();
            bench.awaitReading("house/temperature", Value.of(22.5));
            other.disconnect();
        }
    }

    @Test
    void ircTellsTheChatAndFollowsItsModes() throws IOException {
        Chat chat = new Chat(0);
        int port = chat.port();
        try (LinkBench bench = new LinkBench(only("chat", "127.0.0.1:" + port))) {
            bench.awaitPhase("chat", Phase.READY);
            bench.awaitReading("chat/slow/star-night", Value.of(false));
            bench.awaitAnswer(bench.send("chat", "say", Map.of("room", Value.of("star-night"), "text", Value.of(
                    "clear\r\nQUIT"))), "sent");
            soon().until(() -> chat.messages().equals(List.of("clear  QUIT")));
            bench.awaitAnswer(bench.send("chat", "slow-on", Map.of("room", Value.of("star-night"))), "sent");
            bench.awaitReading("chat/slow/star-night", Value.of(true));
            chat.mode('m', false);
            bench.awaitReading("chat/slow/star-night", Value.of(false));
            chat.close();
            bench.awaitPhase("chat", Phase.OFF);
            bench.awaitAnswer(bench.send("chat", "slow-on", Map.of("room", Value.of("star-night"))), "not connected");
            try (Chat again = new Chat(port)) {
                bench.awaitPhase("chat", Phase.READY);
                again.mode('M', true);
                bench.awaitReading("chat/members/star-night", Value.of(true));
            }
        }
    }

    @Test
    void everyOrderIsAnsweredEvenWhenNothingIsThere() {
        try (LinkBench bench = new LinkBench(only("studio", "nonsense"))) {
            bench.awaitPhase("studio", Phase.OFF);
            bench.awaitAnswer(bench.send("studio", "keep-clip", Map.of()), "no usable address");
            bench.awaitPhase("house", Phase.OFF);
            bench.awaitPhase("desk", Phase.OFF);
            bench.awaitAnswer(bench.send("desk", "mute", Map.of("channel", Value.of("host"))), "Sound desk: the port");
        }
    }
}
