package rombix.links.dmx;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rombix.core.board.Rig;
import rombix.core.chain.GearStep.Fade.Curve;
import rombix.core.event.Glide;
import rombix.core.store.BadFile;
import rombix.core.store.BoardFile;
import rombix.core.twin.Ramp;
import rombix.core.twin.Twin;
import rombix.core.value.Value;

/** Levels that move by themselves, in the figures of the wire, on a clock of the test's own. */
class MovingTest {
    private static final long SECOND = 1_000_000_000L;
    private final byte[] levels = new byte[512];
    private final Moving moving = new Moving();

    private static Ramp ramp() throws BadFile {
        Rig rig = BoardFile.read(Path.of("../demo/star-night.json"));
        Twin lamps = rig.twin("lamps").orElseThrow();
        var level = lamps.card().command("level").orElseThrow();
        return lamps.ramp(level, level.param("level").orElseThrow(), Map.of("lamp", Value.of("desk-key")),
                Twin.Readings.NONE);
    }

    private Glide glide(double from, double to, Curve curve) throws BadFile {
        Glide glide = new Glide(ramp(), from, to, 0, SECOND, curve);
        moving.add(glide, 7, from * 2.55, to * 2.55);
        return glide;
    }

    private int at(double seconds) {
        moving.move((long) (seconds * SECOND), levels);
        return levels[7] & 0xFF;
    }

    @ParameterizedTest
    @CsvSource({"LINEAR, 64, 128, 191", "S_CURVE, 40, 128, 215", "EQUAL_POWER, 98, 180, 236"})
    void levelsFollowTheirCurvesAndArriveExactly(Curve curve, int quarter, int half, int max) throws BadFile {
        glide(0, 100, curve);
        assertThat(at(0)).isZero();
        assertThat(at(0.25)).isEqualTo(quarter);
        assertThat(at(0.5)).isEqualTo(half);
        assertThat(at(0.75)).isEqualTo(max);
        assertThat(at(1)).isEqualTo(255);
        assertThat(moving.isEmpty()).isTrue();
    }

    @Test
    void decibelsAreEvenInDecibels() throws BadFile {
        Glide glide = glide(1, 100, Curve.DECIBEL);
        assertThat(glide.at(SECOND / 2)).isCloseTo(10, org.assertj.core.data.Offset.offset(1e-9));
        assertThat(at(1)).isEqualTo(255);
    }

    @Test
    void aLevelThatIsHeldStaysAndTheOthersGoOn() throws BadFile {
        Glide first = glide(0, 100, Curve.LINEAR);
        Glide second = new Glide(ramp(), 100, 0, 0, SECOND, Curve.LINEAR);
        moving.add(second, 8, 255, 0);
        assertThat(at(0.5)).isEqualTo(128);
        assertThat(moving.has(first)).isTrue();
        moving.remove(first);
        assertThat(at(0.75)).isEqualTo(128);
        assertThat(levels[8] & 0xFF).isEqualTo(64);
        moving.removeSlot(8);
        assertThat(moving.isEmpty()).isTrue();
    }

    @Test
    void manyLevelsMoveAtOnce() throws BadFile {
        Ramp ramp = ramp();
        for (int slot = 0; slot < 512; slot++) {
            moving.add(new Glide(ramp, 0, 100, 0, SECOND * (1 + slot % 2), Curve.LINEAR), slot, 0, 255);
        }
        moving.move(SECOND, levels);
        for (int slot = 0; slot < 512; slot++) {
            assertThat(levels[slot] & 0xFF).isEqualTo(slot % 2 == 0 ? 255 : 128);
        }
        moving.move(2 * SECOND, levels);
        assertThat(moving.isEmpty()).isTrue();
    }
}
