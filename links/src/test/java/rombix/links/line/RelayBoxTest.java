package rombix.links.line;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.links.link.GearUnderTest.soon;

import java.io.IOException;
import org.junit.jupiter.api.Test;
import rombix.core.engine.Status.Phase;
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
            assertThat(gear.status().words()).isEqualTo("no serial port “/dev/larkmoor-nothing” is here");
        }
    }
}
