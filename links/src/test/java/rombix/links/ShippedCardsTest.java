package rombix.links;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.links.link.GearUnderTest.soon;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ExecutionMode;
import rombix.core.card.Card.Item;
import rombix.core.store.CardLibrary;
import rombix.core.value.Value;
import rombix.links.http.Http;
import rombix.links.line.Line;
import rombix.links.link.GearUnderTest;
import rombix.links.link.LinkType;
import rombix.links.link.StandInGear;
import rombix.links.midi.Midi;
import rombix.links.mqtt.Mqtt;
import rombix.links.osc.Osc;
import rombix.links.websocket.WebSockets;
import rombix.standins.CameraHead;
import rombix.standins.House;
import rombix.standins.Music;
import rombix.standins.Sleeper;
import rombix.standins.Studio;
import rombix.standins.midi.CableProvider;
import rombix.standins.midi.SoundDesk;
import rombix.standins.set.ShowPort;
import rombix.standins.set.StandIn;

/** Cards that ship and have no test of their own, each against what speaks its protocol. */
@Execution(ExecutionMode.CONCURRENT)
class ShippedCardsTest {
    private static GearUnderTest gear(LinkType type, String card, String address, Map<String, List<Item>> lists) {
        return new GearUnderTest(type, Objects.requireNonNull(CardLibrary.shipped().get(card)), address, lists,
                StandInGear.KEYS, link -> link);
    }

    @Test
    void aHouseThatSpeaksJson() throws IOException {
        try (House house = new House(0);
                GearUnderTest gear = gear(new Mqtt(), "house-json", "127.0.0.1:" + house.port(), Map.of()).ready()) {
            soon(() -> Value.of(4.5).equals(gear.now("temperature/sensor")) && Value.of(false).equals(gear.now(
                    "on/plug")));
            assertThat(gear.done("on", "plug", "plug")).isEqualTo("sent");
            soon(() -> Value.of(true).equals(gear.now("on/plug")));
            assertThat(gear.done("level", "bulb", "bulb", "level", 100)).isEqualTo("sent");
            soon(() -> Value.of(100).equals(gear.now("level/bulb")) && Value.of(true).equals(gear.now("lit/bulb")));
            house.becomes("house/bulb", "{\"state\": \"OFF\", \"brightness\": 254}");
            soon(() -> Value.of(false).equals(gear.now("lit/bulb")));
        }
    }

    @Test
    void aRecorderAndALightingDeskOnOnePort() throws Exception {
        try (StandIn port = StandIn.of("machine-control");
                GearUnderTest recorder = gear(new Midi(), "machine-control", port.address(), Map.of()).ready();
                GearUnderTest desk = gear(new Midi(), "show-control", port.address(), Map.of()).ready()) {
            ShowPort far = (ShowPort) port.gear();
            assertThat(recorder.done("play")).isEqualTo("sent");
            soon(far::running);
            soon(() -> String.valueOf(recorder.now("time")).matches("00:00:\\d\\d:\\d\\d"));
            assertThat(recorder.done("stop")).isEqualTo("sent");
            soon(() -> !far.running());
            assertThat(desk.done("go", "cue", "12.5", "list", "2")).isEqualTo("sent");
            soon(() -> far.cue().equals("go 12.5/2"));
            assertThat(desk.done("fire", "macro", 7)).isEqualTo("sent");
            soon(() -> far.cue().equals("fire 7"));
            assertThat(desk.done("all-off")).isEqualTo("sent");
            soon(() -> far.cue().startsWith("all-off"));
        }
    }

    @Test
    void aComputerThatIsWoken() throws IOException {
        Map<String, List<Item>> lists = Map.of("computer", List.of(new Item("booth-pc", "Booth PC", Map.of("mac",
                "02:4A:00:00:00:07"))));
        try (Sleeper other = new Sleeper(0, "02:4A:00:00:00:08");
                Sleeper sleeper = new Sleeper(0, "02:4A:00:00:00:07");
                GearUnderTest gear = gear(new Line(), "wake-on-lan", "127.0.0.1:" + sleeper.port(), lists)) {
            soon(() -> gear.done("wake", "computer", "booth-pc").equals("sent"));
            soon(sleeper::awake);
            assertThat(other.awake()).isFalse();
        }
    }

    @Test
    void anyHttp() throws IOException {
        try (CameraHead head = new CameraHead(0);
                GearUnderTest gear = StandInGear.of(new Http(), "any-http", "127.0.0.1:" + head.port())) {
            soon(() -> gear.done("request", "method", "GET", "path", "/presets", "body", "").equals("sent"));
            soon(() -> String.valueOf(gear.now("answer")).contains("\"presets\""));
            assertThat(gear.done("request", "method", "GET", "path", "/nowhere", "body", "")).contains("404");
        }
    }

    @Test
    void anyWebSocket() throws IOException {
        try (Music music = new Music(0);
                GearUnderTest gear = new GearUnderTest(new WebSockets(), Objects.requireNonNull(CardLibrary.shipped()
                        .get("any-websocket")), "127.0.0.1:" + music.port(), Map.of(), StandInGear.KEYS,
                        link -> link
                                .withSetting("path", Value.of("/player")))
                        .ready()) {
            soon(() -> String.valueOf(gear.now("last")).contains("challenge"));
            assertThat(gear.done("send", "text", "{\"proof\": \"none\"}")).isEqualTo("sent");
            soon(() -> String.valueOf(gear.now("last")).contains("wrong password"));
        }
    }

    @Test
    void anyMidi() throws Exception {
        try (SoundDesk far = new SoundDesk(0)) {
            CableProvider.plug("Test Any", new InetSocketAddress("127.0.0.1", far.port()));
            try (GearUnderTest gear = gear(new Midi(), "any-midi", "Test Any", Map.of()).ready()) {
                assertThat(gear.done("control", "channel", 1, "number", 20, "value", 0)).isEqualTo("sent");
                soon(() -> !far.muted(0));
                assertThat(gear.done("note", "channel", 1, "number", 60, "velocity", 100)).isEqualTo("sent");
                assertThat(gear.done("sysex", "bytes", "7E 7F 06 01")).isEqualTo("sent");
                far.babble(new byte[]{(byte) 0xF0, 0x7D, 0x01, (byte) 0xF7});
                soon(() -> "7d01".equals(String.valueOf(gear.now("last"))));
                assertThat(gear.done("sysex", "bytes", "no bytes")).doesNotContain("sent");
            } finally {
                CableProvider.unplug("Test Any");
            }
        }
    }

    @Test
    void anyOsc() throws IOException {
        Map<String, List<Item>> lists = Map.of("message", List.of(new Item("live", "Scene", Map.of("address",
                "/studio/set/scene"))));
        try (Studio studio = new Studio(0);
                GearUnderTest gear = gear(new Osc(), "any-osc", "127.0.0.1:" + studio.port(), lists)) {
            soon(() -> gear.done("text", "message", "live", "text", "host-desk").equals("sent"));
            soon(() -> studio.scene().equals("host-desk"));
        }
    }
}
