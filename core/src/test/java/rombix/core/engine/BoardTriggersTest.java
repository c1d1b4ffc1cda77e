package rombix.core.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.core.engine.TestDeck.PING;
import static rombix.core.engine.TestDeck.button;
import static rombix.core.engine.TestDeck.off;
import static rombix.core.engine.TestDeck.on;
import static rombix.core.engine.TestDeck.state;

import java.time.Duration;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import rombix.core.board.Schedule;
import rombix.core.board.Trigger;
import rombix.core.board.Trigger.When.What;
import rombix.core.chain.Chain;
import rombix.core.chain.Comparison;
import rombix.core.chain.Condition;
import rombix.core.chain.DeckStep;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.event.Cause;
import rombix.core.event.Event;
import rombix.core.event.Happening;
import rombix.core.event.Status;
import rombix.core.value.Value;

/** Clocks, readings and what happens: the deck's clock begins at midnight, a Thursday. */
class BoardTriggersTest {
    private static final long MINUTE = 60_000;

    private static TestDeck deck(Trigger trigger, Step... steps) {
        TestDeck t = TestDeck.with(button("b", state(Chain.of(steps))).withTriggers(List.of(trigger)));
        t.post(new Event.Arm(true));
        return t;
    }

    private static TestDeck clock(String at, boolean late) {
        return deck(new Trigger.Clock(Schedule.of(at), late), PING);
    }

    /** When it pressed, in minutes. */
    private static List<Long> minutes(TestDeck t) {
        return t.all(Happening.Started.class).stream().map(s -> s.atNanos() / 1_000_000 / MINUTE).toList();
    }

    private static TestDeck passed(TestDeck t, long minutes) {
        t.pass(minutes * MINUTE);
        return t;
    }

    @Test
    void clocksPressOnTime() {
        assertThat(minutes(passed(clock("00:30", false), 40 * 60))).containsExactly(30L, 24 * 60 + 30L);
        assertThat(minutes(passed(clock("Fri,Sat 01:00", false), 6 * 24 * 60))).containsExactly(25 * 60L, 49 * 60L);
        assertThat(minutes(passed(clock("2026-01-01T02:15", true), 48 * 60))).containsExactly(135L);
        assertThat(minutes(passed(clock("every 20 min", false), 65))).containsExactly(20L, 40L, 60L);
    }

    @Test
    void aClockIsExactToTheMillisecond() {
        TestDeck t = passed(clock("00:30", false), 40);
        assertThat(t.all(Happening.Started.class).getFirst().atNanos() / 1_000_000).isEqualTo(30 * MINUTE);
    }

    /** A key on a gear that said the same each time pressed its button once, and then never again. */
    @Test
    void aMomentPressesEachTimeThoughItsValueIsAsBefore() {
        TestDeck t = deck(new Trigger.Becomes(TestDeck.A_ON), PING);
        for (int i = 0; i < 3; i++) {
            t.post(new Event.Came("gear", "on/a", Value.of(true), true));
        }
        assertThat(t.all(Happening.Started.class)).hasSize(3);
        t.post(new Event.Came("gear", "on/a", Value.of(true)));
        assertThat(t.all(Happening.Started.class)).as("how it is, once more").hasSize(3);
    }

    /** A chat that voted “yes” four times in a row counted one vote. */
    @Test
    void eachArrivalCountsWhereATriggerIsForEachTime() {
        TestDeck t = deck(new Trigger.Becomes(TestDeck.A_ON, true, Map.of()), PING);
        for (int i = 0; i < 4; i++) {
            t.post(new Event.Came("gear", "on/a", Value.of(true)));
        }
        t.post(new Event.Came("gear", "on/a", Value.of(false)));
        assertThat(t.all(Happening.Started.class)).hasSize(4);
    }

    @Test
    void whatWasSaidAndItsPartsAreKnownToTheChain() {
        Trigger vote = new Trigger.Becomes(new Condition.OnReading("gear", "says", Comparison.pattern(
                "^!(vote) (?<name>\\w+)")), true, Map.of());
        TestDeck t = deck(vote, new DeckStep.Say("{says}, {part1}: {name}",
                StepOptions.PLAIN, Map.of()));
        t.post(new Event.Came("gear", "says", Value.of("!vote gulls")));
        t.post(new Event.Came("gear", "says", Value.of("hello")));
        t.post(new Event.Came("gear", "says", Value.of("!vote gulls")));
        t.post(new Event.Came("gear", "says", Value.of("!vote herons")));
        assertThat(t.all(Happening.Said.class)).extracting(Happening.Said::text).containsExactly(
                "!vote gulls, vote: gulls", "!vote gulls, vote: gulls", "!vote herons, vote: herons");
    }

    @Test
    void aTriggerOverSeveralPressesWhenTheLastOfThemBecomesSo() {
        Condition both = new Condition.All(List.of(TestDeck.A_ON, new Condition.OnReading("gear", "level", Comparison
                .above(50))));
        TestDeck t = deck(new Trigger.Becomes(both), PING);
        t.post(new Event.Came("gear", "level", Value.of(10)));
        t.post(new Event.Came("gear", "on/a", Value.of(true)));
        assertThat(t.all(Happening.Started.class)).isEmpty();
        t.post(new Event.Came("gear", "level", Value.of(60)));
        t.post(new Event.Came("gear", "level", Value.of(70)));
        assertThat(t.all(Happening.Started.class)).hasSize(1);
    }

    @Test
    void aTimeOfDayPressesAsItBegins() {
        TestDeck t = passed(deck(new Trigger.Becomes(new Condition.Daytime("00:10", "00:20")), PING), 40);
        assertThat(minutes(t)).containsExactly(10L);
    }

    @Test
    void nothingPressesUntilItIsArmedNorWhatPassedBefore() {
        TestDeck t = TestDeck.with(button("b", state(Chain.of(PING))).withTriggers(List.of(new Trigger.Clock(Schedule
                .of("00:10"), true))));
        passed(t, 20);
        t.post(new Event.Arm(true));
        passed(t, 20);
        assertThat(minutes(t)).isEmpty();
    }

    @Test
    void aClockThatIsSetBackAnHourDoesNotPressAgain() {
        TestDeck t = passed(clock("00:30", false), 45);
        t.clock.set(Duration.ofHours(-1));
        passed(t, 120);
        assertThat(minutes(t)).containsExactly(30L);
    }

    @Test
    void whatComesAtIntervalsGoesOnWhenTheClockIsSetBack() {
        TestDeck t = passed(clock("every 20 min", false), 45);
        t.clock.set(Duration.ofHours(-1));
        passed(t, 60);
        assertThat(minutes(t)).containsExactly(20L, 40L, 60L, 80L, 100L);
    }

    @Test
    void aTimeThatWasSleptThroughIsMissedOrMadeUpForAsItsTriggerSays() {
        for (boolean late : new boolean[]{false, true}) {
            TestDeck t = passed(clock("00:30", late), 29);
            t.clock.set(Duration.ofMinutes(10)); // Asleep: the time of day went on, the machine's did not.
            passed(t, 1);
            assertThat(minutes(t)).hasSize(late ? 1 : 0);
            assertThat(t.faults()).hasSize(late ? 0 : 1);
        }
    }

    @Test
    void ofManyTimesThatWereSleptThroughOneIsMadeUpFor() {
        TestDeck t = passed(clock("every 5 min", true), 1);
        t.clock.set(Duration.ofHours(8).plusMinutes(1));
        passed(t, 1);
        assertThat(minutes(t)).hasSize(1);
    }

    @Test
    void aReadingPressesWhenItBecomesSoAndNotWhenItIs() {
        TestDeck t = deck(new Trigger.Becomes(TestDeck.A_ON), PING);
        t.post(new Event.Came("gear", "on/a", Value.of(true)));
        t.post(new Event.Came("gear", "on/a", Value.of(true)));
        assertThat(minutes(t)).hasSize(1);
        t.post(new Event.Came("gear", "on/a", Value.of(false)));
        t.pass(20);
        t.post(new Event.Came("gear", "on/a", Value.of(true)));
        assertThat(minutes(t)).hasSize(2);
        t.post(new Event.Arm(false));
        t.post(new Event.Came("gear", "on/a", Value.of(false)));
        t.post(new Event.Came("gear", "on/a", Value.of(true)));
        assertThat(minutes(t)).hasSize(2);
    }

    @Test
    void aReadingThatIsFirstHeardDoesNotPress() {
        TestDeck t = deck(
                new Trigger.Becomes(new Condition.OnReading("gear", "level", Comparison.above(50))),
                PING);
        t.post(new Event.Came("gear", "level", Value.of(80)));
        assertThat(minutes(t)).isEmpty();
        t.post(new Event.Came("gear", "level", Value.of(20)));
        t.post(new Event.Came("gear", "level", Value.of(51)));
        assertThat(minutes(t)).hasSize(1);
    }

    @Test
    void aTriggerThatPressesItselfIsStoppedAndSaysSo() {
        TestDeck t = deck(new Trigger.Becomes(TestDeck.A_ON), off("a"), on("a"));
        t.post(new Event.Came("gear", "on/a", Value.of(true)));
        t.pass(100);
        assertThat(minutes(t)).hasSize(1);
        assertThat(t.faults()).anyMatch(f -> f.contains("its own trigger"));
    }

    @Test
    void gearThatIsLostAndComesBackPresses() {
        TestDeck lost = deck(new Trigger.When(What.GEAR_LOST, "gear"), PING);
        TestDeck back = deck(new Trigger.When(What.GEAR_BACK, null), PING);
        for (TestDeck t : List.of(lost, back)) {
            t.post(new Event.Linked("gear", new Status(Status.Phase.OFF, Cause.OTHER, "off")));
            t.post(new Event.Linked("gear", new Status(Status.Phase.CONNECTING, Cause.CONNECTING)));
            t.post(new Event.Linked("gear", new Status(Status.Phase.OFF, Cause.OTHER, "off")));
        }
        assertThat(minutes(lost)).hasSize(1);
        assertThat(minutes(back)).isEmpty();
        back.post(new Event.Linked("gear", new Status(Status.Phase.READY, Cause.READY)));
        assertThat(minutes(back)).hasSize(1);
    }

    @Test
    void thatTheBoardIsOpenedCountsInEveryMode() {
        TestDeck t = TestDeck.with(button("b", state(Chain.of(PING))).withTriggers(List.of(new Trigger.When(
                What.BOARD_OPENED, null))), button("c", state(Chain.of(PING))).withTriggers(List.of(
                        new Trigger.When(
                                What.WENT_LIVE, null))));
        t.post(new Event.Opened());
        assertThat(t.all(Happening.Started.class)).singleElement().satisfies(s -> {
            assertThat(s.button()).isEqualTo("b");
            assertThat(s.source()).isEqualTo("the board is opened");
        });
        t.post(new Event.Arm(true));
        t.post(new Event.WentLive());
        assertThat(t.all(Happening.Started.class)).hasSize(2);
    }

    @Test
    void editingTheBoardForgetsNoTime() {
        TestDeck t = passed(clock("00:30", false), 29);
        t.post(new Event.Load(TestDeck.rig(button("b", state(Chain.of(PING, PING))).withTriggers(List.of(
                new Trigger.Clock(Schedule.of("00:30"), false))))));
        passed(t, 5);
        assertThat(minutes(t)).containsExactly(30L);
    }
}
