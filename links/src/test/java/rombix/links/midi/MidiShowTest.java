package rombix.links.midi;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.links.link.GearUnderTest.soon;

import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.file.Path;
import java.util.HexFormat;
import java.util.concurrent.CompletableFuture;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.parallel.ResourceLock;
import rombix.core.card.Card;
import rombix.core.store.BadFile;
import rombix.core.store.CardLibrary;
import rombix.core.value.Value;
import rombix.links.link.GearUnderTest;
import rombix.links.link.StandInGear;
import rombix.standins.midi.CableProvider;

/** What is more than notes and controls, through a port of the platform, as bytes at its far end. */
@ResourceLock("MIDI ports")
class MidiShowTest {
    private static final String CARD = """
            {"card": 2, "id": "show", "title": "Show",
             "readings": [
              {"id": "bend", "type": "number", "arrives": {"midi": {"from": "bend 1", "value": {"from": [-100, 100], "to": [0, 16383]}}}},
              {"id": "cue", "type": "text", "arrives": {"midi": {"from": "msc 127 lighting go"}}},
              {"id": "dump", "type": "number", "arrives": {"midi": {"from": "sysex", "pattern": "^7d01", "byte": 2, "bits": [0, 3]}}}],
             "commands": [
              {"id": "bend", "params": [{"id": "to", "type": "number", "min": -100, "max": 100}], "send": {"midi": [{"to": "bend 1", "args": [{"of": "to", "from": [-100, 100], "to": [0, 16383]}]}]}},
              {"id": "go", "params": [{"id": "cue", "type": "text"}, {"id": "list", "type": "text", "default": ""}], "send": {"midi": [{"to": "msc 127 lighting go", "args": ["{cue}", "{list}"]}]}},
              {"id": "dump", "params": [{"id": "n", "type": "number"}], "send": {"midi": [{"to": "sysex", "args": ["7d 01", {"of": "n", "format": "%02x"}]}]}},
              {"id": "beat", "params": [{"id": "bpm", "type": "number"}], "send": {"midi": [{"to": "clock", "args": ["{bpm}"]}]}}]}
            """;
    private ServerSocket far;
    private GearUnderTest gear;
    private Socket cable;

    @BeforeEach
    void open() throws IOException, BadFile {
        far = new ServerSocket();
        far.bind(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0));
        CableProvider.plug(CableProvider.PADS, new InetSocketAddress(far.getInetAddress(), far.getLocalPort()));
        Card card = CardLibrary.read(Path.of("show.json"), CARD);
        CompletableFuture<Socket> plugged = CompletableFuture.supplyAsync(() -> {
            try {
                return far.accept();
            } catch (IOException e) {
                throw new java.io.UncheckedIOException(e);
            }
        });
        gear = StandInGear.of(new Midi(), card, CableProvider.PADS, link -> link).ready();
        cable = plugged.join();
    }

    @AfterEach
    void close() throws IOException {
        gear.close();
        cable.close();
        far.close();
    }

    private String next(int bytes) throws IOException {
        InputStream in = cable.getInputStream();
        return HexFormat.of().formatHex(in.readNBytes(bytes));
    }

    private void say(String bytes) throws IOException {
        cable.getOutputStream().write(HexFormat.of().parseHex(bytes));
    }

    @Test
    void bendsCuesAndDumpsGoOut() throws IOException {
        assertThat(gear.done("bend", "to", 0)).isEqualTo("sent");
        assertThat(next(3)).isEqualTo("e00040");
        assertThat(gear.done("go", "cue", "12.5")).isEqualTo("sent");
        assertThat(next(11)).isEqualTo("f07f7f02010131322e35f7");
        assertThat(gear.done("dump", "n", 10)).isEqualTo("sent");
        assertThat(next(5)).isEqualTo("f07d010af7");
        assertThat(gear.done("go", "cue", "one")).contains("numbers such as 12.5, not “one”");
    }

    @Test
    void andComeInAsReadings() throws IOException {
        say("e00000");
        soon(() -> Value.of(-100).equals(gear.now("bend")));
        say("f07f7f02010131342e3100" + "32f7");
        soon(() -> Value.of("14.1").equals(gear.now("cue")));
        say("f07d017af7");
        soon(() -> Value.of(10).equals(gear.now("dump")));
    }

    @Test
    void aClockTicksForAsLongAsThereAreBeats() throws IOException {
        assertThat(gear.done("beat", "bpm", 300)).isEqualTo("sent");
        assertThat(next(12)).isEqualTo("f8".repeat(12));
        assertThat(gear.done("beat", "bpm", 0)).isEqualTo("sent");
    }
}
