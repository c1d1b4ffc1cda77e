package rombix.core.traffic;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import rombix.core.board.Rig;
import rombix.core.event.Gears;
import rombix.core.store.BoardFile;
import rombix.core.time.SimulatedClock;
import rombix.core.traffic.TrafficPacket.Fate;
import rombix.core.twin.Order;
import rombix.core.twin.ReceivedReading;
import rombix.core.twin.Twin;
import rombix.core.value.Value;

class TrafficTest {
    private final Traffic traffic = new Traffic(new SimulatedClock());
    private Rig rig;
    private Twin desk;

    @BeforeEach
    void demo() throws Exception {
        rig = BoardFile.read(Path.of("../demo/star-night.json"));
        desk = rig.twin("desk").orElseThrow();
    }

    private Order mute() {
        return desk.order(desk.card().command("mute").orElseThrow(), Map.of("channel", Value.of("host")),
                Twin.Readings.NONE);
    }

    private List<TrafficPacket> all() {
        return Objects.requireNonNull(traffic.look(-1)).packets();
    }

    @Test
    void anOrderIsFollowedToItsEnd() {
        traffic.out(7, mute());
        assertThat(all()).singleElement().satisfies(p -> assertThat(p.fate()).isEqualTo(Fate.SENT));
        traffic.done(7, null);
        assertThat(all()).singleElement().satisfies(p -> {
            assertThat(p.fate()).isEqualTo(Fate.DONE);
            assertThat(p.result()).matches("done in [\\d.]+ ms");
            assertThat(new PacketWords(rig, _ -> Twin.Readings.NONE).words(p)).isEqualTo("Mute Host");
        });
        traffic.out(8, mute());
        traffic.done(8, "Sound desk: was closed");
        assertThat(all().getLast().result()).isEqualTo("failed: Sound desk: was closed");
        assertThat(traffic.counts("desk").out()).isEqualTo(2);
        assertThat(traffic.counts("desk").millis()).isNotNegative();
    }

    @Test
    void whatComesIsReadOrNotAndWhyItWasIgnoredStays() {
        PacketWords words = new PacketWords(rig, _ -> Twin.Readings.NONE);
        traffic.in("desk", "control 1 20", List.of(Value.of(127)), desk.land("control 1 20", List.of(Value.of(127))),
                false);
        traffic.in("desk", "control 9 9", List.of(Value.of(1)), List.of(), false);
        traffic.in("desk", "control 1 20", List.of(Value.of(200)), List.of(new ReceivedReading("mute/host", null,
                "brought “200”")), false);
        traffic.ignored("desk", "a packet that is no MIDI");
        assertThat(all()).extracting(TrafficPacket::fate).containsExactly(Fate.LANDED, Fate.UNREAD, Fate.IGNORED,
                Fate.IGNORED);
        assertThat(words.words(all().getFirst())).isNotEmpty();
        assertThat(words.line(all().get(2))).contains("Sound desk", "control 1 20 200", "ignored: “mute/host” brought");
        for (int i = 0; i < 5000; i++) {
            traffic.in("desk", "note 1 1", List.of(Value.of(i)), List.of(), false);
        }
        assertThat(all()).as("the last ones").hasSize(4096).noneMatch(p -> p.fate() == Fate.IGNORED);
        assertThat(traffic.ignoredOf("desk")).hasSize(2);
    }

    @Test
    void whatIsVeryLongIsNotKeptAsAWhole() {
        traffic.in("camera", "/still", List.of(Value.of("x".repeat(1_000_000)), Value.of(200)), List.of(), false);
        assertThat(all().getFirst().raw().length()).isLessThan(20_000);
        assertThat(all().getFirst().args().getLast()).isEqualTo(Value.of(200));
    }

    @Test
    void nobodyIsToldTwiceWhatHasNotChanged() {
        traffic.out(Gears.NO_ANSWER, mute());
        Traffic.Look look = Objects.requireNonNull(traffic.look(-1));
        assertThat(traffic.look(look.changes())).isNull();
        traffic.done(99, null);
        assertThat(traffic.look(look.changes())).as("an answer to nothing").isNull();
    }
}
