package rombix.links.line;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.links.link.GearUnderTest.soon;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import rombix.core.event.Status.Phase;
import rombix.core.value.Value;
import rombix.links.link.GearUnderTest;
import rombix.links.link.StandInGear;
import rombix.standins.RelayBox;

/** A text line over a serial port: a pseudo-terminal where this system has one. */
class RelayBoxTest {
    @Test
    void relaysAreSwitchedAndTellWhatIsDoneByHand() throws IOException {
        try (RelayBox box = new RelayBox(null, 0);
                GearUnderTest gear = StandInGear.of(new Line(), "relay-box", box.address(), link -> link).ready()) {
            assertThat(gear.done("on", "relay", "2")).isEqualTo("sent");
            assertThat(box.on(2)).isTrue();
            soon(() -> Value.of(true).equals(gear.now("on/2")) && Value.of(false).equals(gear.now("on/4")));
            box.turn(4, true);
            soon(() -> Value.of(true).equals(gear.now("on/4")));
        }
    }

    @Test
    void aPortThatIsNotThereIsTold() {
        try (GearUnderTest gear = StandInGear.of(new Line(), "relay-box", "/dev/larkmoor-nothing", link -> link)) {
            soon(() -> gear.status().phase() == Phase.OFF);
            assertThat(gear.status().words()).isEqualTo("there is no serial port “/dev/larkmoor-nothing”");
        }
    }

    @Test
    void bytesThatAreNoneFailTheStepAndLeaveTheConnectionAlone() throws IOException {
        try (RelayBox box = new RelayBox(null, 0);
                GearUnderTest gear = StandInGear
                        .of(new Line(), "any-line", box.address(), l -> l.withSetting(Line.ENDING,
                                Value.of("LF")))
                        .ready()) {
            assertThat(gear.done("bytes", "bytes", "xyz"))
                    .isEqualTo("Gear: “xyz” isn't a sequence of hexadecimal bytes");
            assertThat(gear.done("line", "text", "SET 3 ON")).isEqualTo("sent");
            soon(() -> box.on(3) && Value.of("DONE").equals(gear.now("last")));
            assertThat(gear.status().phase()).isEqualTo(Phase.READY);
            assertThat(gear.done("bytes", "bytes", "53 45 54 20 34 20 4f 4e 0a")).isEqualTo("sent");
            soon(() -> box.on(4));
        }
    }

    /** As many serial ports as there are cores held all that links run on: none of them became ready. */
    @Test
    void manySerialPortsLeaveEachOtherRoom() throws IOException {
        List<AutoCloseable> open = new ArrayList<>();
        try {
            List<GearUnderTest> all = new ArrayList<>();
            for (int i = 0; i <= Runtime.getRuntime().availableProcessors(); i++) {
                RelayBox box = new RelayBox(null, 0);
                open.add(box);
                GearUnderTest gear = StandInGear.of(new Line(), "relay-box", box.address(), link -> link);
                open.add(gear);
                all.add(gear);
            }
            all.forEach(GearUnderTest::ready);
        } finally {
            for (AutoCloseable one : open.reversed()) {
                try {
                    one.close();
                } catch (Exception e) {
                    throw new IllegalStateException(e);
                }
            }
        }
    }
}
