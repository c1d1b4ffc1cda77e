package rombix.links.line;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.links.link.GearUnderTest.soon;

import java.io.IOException;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ExecutionMode;
import rombix.core.event.Status.Phase;
import rombix.core.value.Value;
import rombix.links.link.GearUnderTest;
import rombix.links.link.StandInGear;
import rombix.standins.Projector;

/** A text line over TCP with a login, replies, errors and polls, as the projector speaks it. */
@Execution(ExecutionMode.CONCURRENT)
class ProjectorTest {
    private Projector projector;
    private GearUnderTest gear;

    @BeforeEach
    void open() throws IOException {
        projector = new Projector(0, 30);
        gear = StandInGear.of(new Line(), "projector", "127.0.0.1:" + projector.port()).ready();
    }

    @AfterEach
    void close() throws IOException {
        gear.close();
        projector.close();
    }

    @Test
    void itsLampIsSeenGettingWarm() {
        soon(() -> Value.of("OFF").equals(gear.now("power")));
        assertThat(gear.done("on")).isEqualTo("sent");
        soon(() -> Value.of(true).equals(gear.now("on")));
        soon(() -> Value.of(1205).equals(gear.now("hours")) || Value.of(1204).equals(gear.now("hours")));
        assertThat(gear.done("input", "input", "TRAILER")).isEqualTo("sent");
        assertThat(projector.input()).isEqualTo("TRAILER");
        soon(() -> Value.of("TRAILER").equals(gear.now("input")));
    }

    @Test
    void whatItRefusesIsToldInItsOwnWords() {
        assertThat(gear.done("input", "input", "DECK")).isEqualTo("Gear: refused: not while the lamp is off");
    }

    @Test
    void itComesBackAfterItHungUp() throws IOException {
        projector.hangUp();
        soon(() -> gear.status().phase() == Phase.OFF);
        gear.ready();
        assertThat(gear.done("shut")).isEqualTo("sent");
        assertThat(projector.shutter()).isTrue();
    }

    @Test
    void oneThatDoesNotAnswerAnyMoreIsLeft() {
        projector.freeze(true);
        assertThat(gear.done("shut")).isEqualTo("Gear: didn't respond");
        soon(() -> gear.status().phase() == Phase.OFF);
        assertThat(gear.status().words()).isEqualTo("it no longer responds");
        projector.freeze(false);
        gear.ready();
    }

    @Test
    void aWrongPasswordIsTold() {
        try (GearUnderTest other = StandInGear.of(new Line(), "projector", "127.0.0.1:" + projector.port(),
                link -> link.withSecret("wrong"))) {
            soon(() -> other.status().phase() == Phase.OFF);
            assertThat(other.status().words()).isEqualTo("refused: wrong password");
        }
    }

    @Test
    void aConnectionForEachOrderIsClosedBehindIt() {
        try (GearUnderTest other = StandInGear.of(new Line(), "projector", "127.0.0.1:" + projector.port(),
                link -> link.withSecret(rombix.standins.DemoLogin.SECRET).withSetting(Line.KEPT, Value.of(Line.EACH)))
                .ready()) {
            assertThat(other.done("shut")).isEqualTo("sent");
            soon(() -> Value.of(true).equals(other.now("shut")));
            assertThat(other.done("open")).isEqualTo("sent");
            assertThat(projector.shutter()).isFalse();
        }
    }

    @Test
    void anOrderThatIsOnItsWayWhenTheLinkIsClosedIsAnswered() {
        projector.freeze(true);
        long order = gear.send("shut");
        gear.close();
        assertThat(gear.answer(order)).isIn("Gear: was closed", "Gear: the connection was lost");
    }
}
