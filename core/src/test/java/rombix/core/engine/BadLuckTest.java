package rombix.core.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.core.engine.TestDeck.PING;
import static rombix.core.engine.TestDeck.button;
import static rombix.core.engine.TestDeck.level;
import static rombix.core.engine.TestDeck.off;
import static rombix.core.engine.TestDeck.on;
import static rombix.core.engine.TestDeck.pause;
import static rombix.core.engine.TestDeck.state;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rombix.core.board.Button;
import rombix.core.board.Face;
import rombix.core.board.State;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.DeckStep;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.event.Cause;
import rombix.core.event.Event;
import rombix.core.event.Happening;
import rombix.core.event.Status;

/** What becomes of a deck when things go wrong around it; the clock's own bad luck is in {@link ArmedTest}. */
class BadLuckTest {
    private static final StepOptions PLAIN = StepOptions.PLAIN;

    /** How long a chain takes was reckoned once for each way to it: of those there were as many as sand. */
    @Test
    @Timeout(20)
    void aButtonThatUsesItselfManyTimesSideBySideDoesNotHoldTheLoading() {
        List<Chain> wide = new ArrayList<>();
        for (int i = 0; i < 12; i++) {
            wide.add(Chain.of(new DeckStep.Use("b", null, Gesture.PRESS, null, Map.of(), PLAIN, Map.of())));
        }
        TestDeck t = TestDeck.with(button("b", state(Chain.of(new Step.Together(wide)))), button("c", state(Chain.of(on(
                "a")))));
        t.post(new Event.Pressed("c", "test"));
        assertThat(t.sent()).anyMatch(s -> s.startsWith("/set/a"));
    }

    @ParameterizedTest
    @CsvSource({"RESTART, 2, 1", "IGNORE, 1, 1", "QUEUE, 1, 2", "OVERLAP, 2, 2", "STOP, 1, 0"})
    void ofTwoPressesInOneMillisecondEachIsHeldToTheBusyRule(Button.Busy busy, int firstSteps, int lastSteps) {
        TestDeck t = TestDeck.with(button("b", state(Chain.of(on("a"), pause(50), PING))).withBusy(busy));
        for (String by : new String[]{"mouse", "MIDI"}) {
            t.post(new Event.Pressed("b", by));
            t.post(new Event.Released("b", by));
        }
        assertThat(t.sent().stream().filter(s -> s.startsWith("/set/a"))).hasSize(firstSteps);
        t.pass(500);
        assertThat(t.sent().stream().filter(s -> s.startsWith("/ping"))).hasSize(lastSteps);
        assertThat(t.deck.idle()).isTrue();
    }

    @Test
    void twoHandsOnOneButtonLetGoOfItTwiceAndItIsReleasedOnceEach() {
        TestDeck t = TestDeck.with(button("b", state("s", null, Chain.of(on("a")), Chain.of(off("a")))));
        t.post(new Event.Pressed("b", "mouse"));
        t.post(new Event.Pressed("b", "MIDI"));
        t.post(new Event.Released("b", "mouse"));
        t.post(new Event.LetGo("b", "MIDI gone"));
        assertThat(t.sent()).extracting(s -> s.substring(0, s.indexOf(' '))).containsExactly("/set/a[yes]",
                "/set/a[no]", "/set/a[yes]", "/set/a[no]");
    }

    @Test
    void aControllerThatIsGoneDuringAHoldRunsTheReleaseAndNothingThatWasUndecided() {
        Map<Gesture, Chain> answers = new EnumMap<>(Gesture.class);
        answers.put(Gesture.PRESS, Chain.of(on("a")));
        answers.put(Gesture.LONG_PRESS, Chain.of(PING));
        Button undecided = button("b", new State("s", "s", Face.PLAIN, State.STAY, null, answers, Map.of()));
        TestDeck t = TestDeck.with(undecided, button("c", state("s", null, Chain.of(on("b")), Chain.of(off("b")))));
        t.post(new Event.Pressed("b", "MIDI"));
        t.post(new Event.Pressed("c", "MIDI"));
        t.pass(100);
        t.post(new Event.LetGo("b", "MIDI gone"));
        t.post(new Event.LetGo("c", "MIDI gone"));
        t.pass(2000);
        assertThat(t.sent()).extracting(s -> s.substring(0, s.indexOf(' '))).containsExactly("/set/b[yes]",
                "/set/b[no]");
    }

    @Test
    void gearThatDiesInMidChainFailsItsStepsInPlainWordsAndTheChainGoesOn() {
        TestDeck t = TestDeck.running(on("a"), pause(100), on("b"), pause(100),
                new DeckStep.Say("still here", PLAIN, Map
                        .of()),
                new GearStep.Fade("gear", "level", Map.of(), "level", Arg.of(0), Arg.of(100), 1000,
                        GearStep.Fade.Curve.LINEAR, PLAIN, Map.of()));
        t.press("b");
        t.pass(50);
        t.post(new Event.Linked("gear", new Status(Status.Phase.OFF, Cause.OTHER, "no answer at 127.0.0.1:1")));
        t.pass(5000);
        assertThat(t.sent()).containsExactly("/set/a[yes] @0");
        assertThat(t.faults()).isNotEmpty().allSatisfy(f -> assertThat(f).isEqualTo(
                "Gear: no answer at 127.0.0.1:1. " + Cause.OTHER.hint(List.of())));
        assertThat(t.all(Happening.Said.class)).hasSize(1);
        assertThat(t.deck.idle()).isTrue();
    }

    @Test
    void whatFollowsAFadeFromAnUnknownLevelComesNoSoonerThanTheFadeIsOver() {
        TestDeck t = TestDeck.running(new GearStep.Fade("gear", "level", Map.of(), "level", null, Arg.of(80), 1000,
                GearStep.Fade.Curve.LINEAR, PLAIN, Map.of()), TestDeck.PING);
        t.press("b");
        t.pass(3000);
        assertThat(t.sent()).containsExactly("/level[80] @0", "/ping[] @1000");
        assertThat(t.happened).filteredOn(Happening.Ran.class::isInstance).extracting(h -> ((Happening.Ran) h).line()
                .lateMicros()).allMatch(late -> late >= 0);
    }

    @Test
    void aChainIsSettledOnceAllThatItSentHasGoneOut() {
        TestDeck t = TestDeck.running(TestDeck.PING);
        t.press("b");
        t.pass(100);
        assertThat(t.happened.stream().map(h -> h.getClass().getSimpleName()).filter(List.of("Started", "Ran", "Ended",
                "Settled")::contains)).startsWith("Started").endsWith("Settled").contains("Ran", "Ended");
    }

    @Test
    void gearThatDiesInMidFadeEndsItAndOneThatComesBackIsNotFlooded() {
        TestDeck t = TestDeck
                .running(new GearStep.Fade("gear", "level", Map.of(), "level", Arg.of(0), Arg.of(100), 1000,
                        GearStep.Fade.Curve.LINEAR, PLAIN, Map.of()));
        t.press("b");
        t.pass(300);
        t.post(new Event.Linked("gear", new Status(Status.Phase.OFF, Cause.OTHER, "off")));
        int before = t.sent().size();
        t.pass(400);
        assertThat(t.sent()).hasSize(before);
        t.post(new Event.Linked("gear", new Status(Status.Phase.READY, Cause.READY)));
        t.pass(1000);
        assertThat(t.sent()).as("where it should be by now, and on to its end").hasSizeBetween(before + 10, before
                + 17).last().asString().startsWith("/level[100]");
    }

    /** The machine sleeps for a minute, and its clock went on. */
    private static void sleepAMinute(TestDeck t) {
        t.clock.advance(60_000_000_000L);
        t.deck.advance();
    }

    @Test
    void afterAMinuteAsleepWhatWasDueIsDoneOnceAndInOrder() {
        TestDeck t = TestDeck.running(pause(1000), on("a"), pause(1000), off("a"), pause(1000), PING);
        t.press("b");
        sleepAMinute(t);
        assertThat(t.sent()).extracting(s -> s.substring(0, s.indexOf(' '))).containsExactly("/set/a[yes]",
                "/set/a[no]", "/ping[]");
    }

    @Test
    void afterAMinuteAsleepBeatsThatWereMissedAreLeftOut() {
        TestDeck t = TestDeck.running(new Step.Repeat(null, null, 200L, "count", Chain.of(PING), PLAIN, Map.of()));
        t.press("b");
        t.pass(1000);
        int before = t.sent().size();
        sleepAMinute(t);
        assertThat(t.sent().size() - before).isLessThanOrEqualTo(2);
        t.pass(1000);
        assertThat(t.sent().size() - before).isBetween(5, 7);
    }

    @Test
    void afterAMinuteAsleepAFadeIsAtItsEndWithoutAllThatLiesBetween() {
        TestDeck t = TestDeck
                .running(new GearStep.Fade("gear", "level", Map.of(), "level", Arg.of(0), Arg.of(100), 90_000,
                        GearStep.Fade.Curve.LINEAR, PLAIN, Map.of()));
        t.press("b");
        t.pass(1000);
        int before = t.sent().size();
        sleepAMinute(t);
        assertThat(t.sent().size() - before).isLessThanOrEqualTo(2);
        t.pass(40_000);
        assertThat(t.sent()).last().asString().startsWith("/level[100]");
    }

    @Test
    void aHoldThatRepeatsDoesNotComeInABurstAfterAMinuteAsleep() {
        Map<Gesture, Chain> answers = new EnumMap<>(Gesture.class);
        answers.put(Gesture.HELD, Chain.of(level(5)));
        TestDeck t = TestDeck.with(button("b", new State("s", "s", Face.PLAIN, State.STAY, null, answers, Map.of())));
        t.press("b");
        t.pass(1000);
        int before = t.sent().size();
        sleepAMinute(t);
        assertThat(t.sent().size() - before).isLessThanOrEqualTo(2);
        t.release("b");
    }

    @Test
    void aPressOfAButtonThatIsGoneDoesNothing() {
        TestDeck t = TestDeck.with(button("b", state(Chain.of(PING))));
        for (Event e : List.of(new Event.Pressed("x", "MIDI"), new Event.Released("x", "MIDI"), new Event.Moved("x", 0,
                1, "MIDI"), new Event.Turned("x", 1, false, "MIDI"), new Event.LetGo("x", "gone"))) {
            t.post(e);
        }
        assertThat(t.sent()).isEmpty();
        t.press("b");
        assertThat(t.sent()).hasSize(1);
    }
}
