package rombix.core.board;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.ZonedDateTime;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class ScheduleTest {

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "21:30 | 2026-03-10T20:00Z[Europe/London] | 2026-03-10T21:30Z[Europe/London]",
            "21:30 | 2026-03-10T21:30Z[Europe/London] | 2026-03-11T21:30Z[Europe/London]",
            "Mon,Fri 08:00 | 2026-03-10T20:00Z[Europe/London] | 2026-03-13T08:00Z[Europe/London]",
            "every 45 min | 2026-03-10T23:30Z[Europe/London] | 2026-03-11T00:00Z[Europe/London]",
            "every 15 min | 2026-03-10T20:07Z[Europe/London] | 2026-03-10T20:15Z[Europe/London]",
            // The clocks go forward at 01:00 on the 29th of March, and back at 02:00 on the 25th of October.
            "01:30 | 2026-03-28T20:00Z[Europe/London] | 2026-03-29T02:30+01:00[Europe/London]",
            "01:30 | 2026-10-25T00:00+01:00[Europe/London] | 2026-10-25T01:30+01:00[Europe/London]",
            "01:30 | 2026-10-25T01:40+01:00[Europe/London] | 2026-10-26T01:30Z[Europe/London]"})
    void theNextTimeIs(String schedule, String moment, String next) {
        assertThat(Schedule.of(schedule).after(ZonedDateTime.parse(moment))).contains(ZonedDateTime.parse(next));
    }

    @Test
    void onceIsOnce() {
        ZonedDateTime at = ZonedDateTime.parse("2026-03-10T20:00Z");
        assertThat(Schedule.of("2026-03-10T20:00").after(at)).isEmpty();
        assertThat(Schedule.of("2026-03-10T20:00").after(at.minusNanos(1))).contains(at);
    }

    @ParameterizedTest
    @ValueSource(strings = {"21:30", "Fri,Sat 09:05", "2026-12-24T21:30", "every 15 min"})
    void itIsWrittenAsItIsRead(String text) {
        assertThat(Schedule.of(text).text()).isEqualTo(text);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "25:00", "Foo 10:00", "every 0 min", "every 2000 min", "2026-13-01T10:00", "at noon"})
    void whatIsNoTimeIsSaidToBeNone(String text) {
        assertThatThrownBy(() -> Schedule.of(text)).isInstanceOf(IllegalArgumentException.class);
    }
}
