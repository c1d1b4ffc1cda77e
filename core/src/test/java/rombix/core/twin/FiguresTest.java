package rombix.core.twin;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Figures as people read them. */
class FiguresTest {
    @ParameterizedTest
    @CsvSource({"700, 0.7 s", "12000, 12 s", "120000, 2 min", "65000, 1:05 min", "3600000, 1 h",
            "72600000, 20 h 10 min",
            "3629000, 1 h"})
    void aSpanIsSaidInItsLargestUnits(double millis, String words) {
        assertThat(Figures.span(millis).replace('\u00a0', ' ')).isEqualTo(words);
    }
}
