package rombix.core.time;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.time.ZonedDateTime;
import org.junit.jupiter.api.Test;

class FastClockTest {
    private final SimulatedClock base = new SimulatedClock();
    private final FastClock fast = new FastClock(base);

    @Test
    void itGoesFasterFromNowOnAndNeverJumps() {
        ZonedDateTime start = fast.wall();
        base.advance(1_000);
        assertThat(fast.nanos()).isEqualTo(1_000);
        fast.factor(20);
        assertThat(fast.nanos()).isEqualTo(1_000);
        base.advance(1_000);
        assertThat(fast.nanos()).isEqualTo(21_000);
        fast.factor(0.5);
        base.advance(1_000);
        assertThat(fast.nanos()).isEqualTo(21_500);
        assertThat(Duration.between(start, fast.wall())).isEqualTo(Duration.ofNanos(21_500));
    }

    @Test
    void whatItIsTakesLessOfTheMachinesTime() {
        fast.factor(5);
        assertThat(fast.real(1_000)).isEqualTo(200);
        assertThatThrownBy(() -> fast.factor(0)).isInstanceOf(IllegalArgumentException.class);
    }
}
