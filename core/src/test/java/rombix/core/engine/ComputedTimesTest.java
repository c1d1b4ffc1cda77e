package rombix.core.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.core.engine.TestDeck.PING;
import static rombix.core.engine.TestDeck.button;
import static rombix.core.engine.TestDeck.on;
import static rombix.core.engine.TestDeck.state;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import rombix.core.board.Board.BoardValue;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.Condition;
import rombix.core.chain.GearStep;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.event.Event;
import rombix.core.event.Happening;
import rombix.core.value.Value;

/** Times that formulas give when their step is due. */
class ComputedTimesTest {
    private static StepOptions times(String name, String formula) {
        return StepOptions.PLAIN.withTimes(Map.of(name, formula));
    }

    /** A deck with a value {@code n}, 2 at first, and one button. */
    private static TestDeck deck(Step... steps) {
        TestDeck t = TestDeck.playing(TestDeck.rig(b -> b.withValues(List.of(new BoardValue("n", "N", Value.of(2)))),
                button("b", state(Chain.of(steps)))));
        t.post(new Event.Came("gear", "level", Value.of(3)));
        t.press("b");
        return t;
    }

    /** When the chain ended, in milliseconds; -1 while it runs. */
    private static long ended(TestDeck t) {
        return t.all(Happening.Ended.class).stream().mapToLong(e -> e.atNanos() / 1_000_000).findFirst().orElse(-1);
    }

    @Test
    void aWaitIsAsLongAsAReadingSaysAndIsCountedDown() {
        TestDeck t = deck(new Step.Wait(100).withHow(times("ms", "{gear:level} - 0.5")));
        assertThat(t.all(Happening.Lasts.class)).singleElement().satisfies(l -> assertThat(l.nanos()).isEqualTo(
                2_500_000_000L));
        t.pass(5000);
        assertThat(ended(t)).isEqualTo(2500);
    }

    @Test
    void aWaitUntilATimeOfDayThatAValueHolds() {
        TestDeck t = deck(new Step.Wait(0, null, "12:00", null, null, times("clock", "\"0:0\" + {n}"), Map.of()));
        t.pass(10 * 60_000);
        assertThat(ended(t)).as("two minutes past midnight, where the clock begins").isEqualTo(120_000);
    }

    @Test
    void aFadeAForAWhileATimeoutAndABeat() {
        TestDeck fade = deck(new GearStep.Fade("gear", "level", Map.of(), "level", Arg.of(0), Arg.of(100), 100,
                GearStep.Fade.Curve.LINEAR, times("ms", "{n}"), Map.of()));
        fade.pass(5000);
        assertThat(ended(fade)).isEqualTo(2000);
        TestDeck until = deck(new Step.Wait(0, null, null, TestDeck.A_ON, 100L, times("timeout", "{n} * 2"), Map.of()));
        until.pass(3000);
        assertThat(until.all(Happening.Faulted.class)).isEmpty();
        until.pass(2000);
        assertThat(until.all(Happening.Faulted.class)).singleElement().extracting(Happening.Faulted::message).asString()
                .contains("didn't happen in time");
        TestDeck beat = deck(new Step.Repeat(Arg.of(3), null, null, "i", Chain.of(PING), times("every", "{n} / 4"), Map
                .of()));
        beat.pass(5000);
        assertThat(ended(beat)).isBetween(1000L, 1500L);
        TestDeck back = deck(new Step.ForAWhile(Chain.of(on("a")), 100, times("ms", "{n}"), Map.of()));
        back.pass(1900);
        assertThat(back.sent()).hasSize(1);
        back.pass(200);
        assertThat(back.sent()).hasSize(2);
    }

    @Test
    void whatIsNoTimeIsAFault() {
        TestDeck t = deck(new Step.Wait(100).withHow(times("ms", "\"soon\"")), PING);
        assertThat(t.all(Happening.Faulted.class)).singleElement().extracting(Happening.Faulted::message).asString()
                .contains("isn't a number of seconds");
        assertThat(t.all(Happening.Ended.class)).as("the chain goes on").hasSize(1);
    }

    @Test
    void aConditionOverTimeIsStillAskedAsItComes() {
        Condition late = new Condition.Daytime("00:01", null);
        TestDeck t = deck(new Step.Wait(0, null, null, late, null, StepOptions.PLAIN, Map.of()));
        t.pass(90_000);
        assertThat(ended(t)).isBetween(60_000L, 61_000L);
    }
}
