package rombix.core.twin;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import org.junit.jupiter.api.Test;

class ScaleTest {
    private static final Scale DECIBELS = new Scale(-60, 10, "dB");

    @Property
    void aPlaceAndItsLevelAreEachOthers(@ForAll @DoubleRange(min = 0, max = 1) double place) {
        for (Scale s : new Scale[]{DECIBELS, new Scale(-96, 0, "dB"), new Scale(0, 100, "%"), new Scale(-30, 30,
                "°")}) {
            assertThat(s.position(s.value(place))).isCloseTo(place, within(1e-6));
        }
    }

    @Property
    void higherIsMore(@ForAll @DoubleRange(min = 0, max = 0.98) double place) {
        assertThat(DECIBELS.value(place + 0.01)).isGreaterThan(DECIBELS.value(place));
    }

    @Test
    void decibelsHaveTheirRoomNearTheTop() {
        assertThat(DECIBELS.value(0)).isEqualTo(-60);
        assertThat(DECIBELS.value(1)).isEqualTo(10);
        assertThat(DECIBELS.position(0)).isBetween(0.7, 0.8);
        assertThat(DECIBELS.position(-25)).isLessThan(0.3);
        assertThat(new Scale(0, 100, "%").value(0.25)).isEqualTo(25);
    }

    @Test
    void aLevelIsShownAndMovedNoFinerThanItsGearHas() {
        Scale kelvin = new Scale(2700, 6500, "K", 50.0);
        assertThat(kelvin.spoken(5699.2)).isEqualTo("5700\u00a0K");
        assertThat(kelvin.setting(0.7893)).isEqualTo(5700);
        assertThat(kelvin.detent() % 50).isZero();
        assertThat(new Scale(0, 100, "%", 1.0).spoken(76.4)).isEqualTo("76\u00a0%");
        assertThat(new Scale(-60, 10, "dB", 0.5).spoken(-15.9)).isEqualTo("\u221216\u00a0dB");
        assertThat(new Scale(-60, 10, "dB", 0.5).spoken(-15.6)).isEqualTo("\u221215.5\u00a0dB");
        assertThat(new Scale(-60, 10, "dB", 0.5).setting(1)).isEqualTo(10);
    }
}
