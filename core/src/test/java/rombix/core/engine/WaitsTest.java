package rombix.core.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.core.engine.TestDeck.level;
import static rombix.core.engine.TestDeck.on;

import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.Comparison;
import rombix.core.chain.Condition;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.engine.op.Op;
import rombix.core.engine.run.StepStart;
import rombix.core.event.AsRun;
import rombix.core.event.Event;
import rombix.core.value.Value;

/** Waits: until a clock time, a random time, until a reading is so. */
class WaitsTest {
    /** Nothing says so when a second has passed. */
    @Test
    void aWaitForATimeOfDayIsOverWhenItHasCome() {
        long now = new TestDeck().clock.wall().toLocalTime().toSecondOfDay();
        TestDeck t = TestDeck.running(new Step.Wait(0, null, null, new Condition.Computed("NOW() >= " + (now + 5)),
                null, PLAIN, Map.of()), on("a"));
        t.click("b");
        t.pass(3000);
        assertThat(t.lines()).isEmpty();
        t.pass(3000);
        assertThat(t.lines()).hasSize(1);
    }

    private static final StepOptions PLAIN = StepOptions.PLAIN;

    @ParameterizedTest
    @CsvSource({"2026-06-01T20:00:00, 21:30, 5400", "2026-06-01T22:00:00, 21:30, 84600",
            "2026-06-01T21:30:00, 21:30, 86400", "2026-06-01T21:29:59, 21:30:15, 16",
            // The night on which clocks go from two to three, and the one on which they go back.
            "2026-03-29T01:30:00, 03:30, 3600", "2026-03-29T01:30:00, 02:30, 3600",
            "2026-10-25T01:30:00, 03:30, 10800"})
    void waitsUntilAClockTime(String now, String time, long seconds) {
        ZonedDateTime wall = java.time.LocalDateTime.parse(now).atZone(ZoneId.of("Europe/Berlin"));
        String full = time.length() == 5 ? time + ":00" : time;
        assertThat(StepStart.untilClock(wall, new Op.WaitClock(java.time.LocalTime.parse(full))) / 1_000_000_000L)
                .isEqualTo(seconds);
    }

    @Test
    void randomWaitsStayBetweenTheirEnds() {
        List<Long> lengths = new ArrayList<>();
        TestDeck t = TestDeck.running(new Step.Repeat(Arg.of(500), null, null, "count", Chain.of(on("a"), new Step.Wait(
                100, 300L, null, null, null, PLAIN, Map.of())), PLAIN, Map.of()));
        t.press("b");
        t.pass(200_000);
        List<AsRun> ran = t.ran();
        for (int i = 1; i < ran.size(); i++) {
            lengths.add((ran.get(i).dueNanos() - ran.get(i - 1).dueNanos()) / 1_000_000);
        }
        assertThat(lengths).allMatch(l -> l >= 100 && l <= 300);
        assertThat(lengths.stream().mapToLong(l -> l).average().orElse(0)).isBetween(190.0, 210.0);
        assertThat(lengths.stream().distinct().count()).isGreaterThan(100);
    }

    @Test
    void aWaitForANumberAsksAReading() {
        TestDeck t = TestDeck
                .running(new Step.Wait(0, null, null,
                        new Condition.OnReading("gear", "level", new Comparison(null, 50.0, null, null, null)), null,
                        PLAIN, Map.of()), on("b"));
        t.press("b");
        t.post(new Event.Came("gear", "level", Value.of(50)));
        t.pass(100);
        assertThat(t.lines()).isEmpty();
        t.post(new Event.Came("gear", "level", Value.of(51)));
        assertThat(t.lines()).containsExactly("B on @100");
    }
}
