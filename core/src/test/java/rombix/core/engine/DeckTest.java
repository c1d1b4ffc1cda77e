package rombix.core.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.core.engine.TestDeck.A_OFF;
import static rombix.core.engine.TestDeck.A_ON;
import static rombix.core.engine.TestDeck.button;
import static rombix.core.engine.TestDeck.level;
import static rombix.core.engine.TestDeck.off;
import static rombix.core.engine.TestDeck.on;
import static rombix.core.engine.TestDeck.state;
import static rombix.core.engine.TestDeck.pause;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AutoClose;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rombix.core.Quiet;
import rombix.core.board.Button.Busy;
import rombix.core.board.Button;
import rombix.core.board.State;
import rombix.core.chain.Chain;
import rombix.core.chain.Step;
import rombix.core.engine.run.Telling;
import rombix.core.event.AsRun;
import rombix.core.event.Cause;
import rombix.core.event.Event;
import rombix.core.event.Happening;
import rombix.core.event.Status;
import rombix.core.event.Trace;
import rombix.core.time.SimulatedClock;
import rombix.core.value.Value;

class DeckTest {
    @AutoClose
    private final Quiet quiet = new Quiet(Telling.class);

    @Test
    void stepsRunAtTheirDueTimes() {
        TestDeck t = TestDeck.with(button("b", state(Chain.of(on("a"), pause(700), on("b"), pause(300), off("a")))));
        t.press("b");
        t.pass(2000);
        assertThat(t.lines()).containsExactly("A on @0", "B on @700", "A off @1000");
    }

    @Test
    void togetherEndsWithItsLastChain() {
        TestDeck t = TestDeck.with(button("b", state(Chain.of(
                new Step.Together(List.of(Chain.of(pause(500), on("a")), Chain.of(on("b"), pause(800)), Chain.EMPTY)),
                off("b")))));
        t.press("b");
        t.pass(2000);
        assertThat(t.lines()).containsExactly("B on @0", "A on @500", "B off @800");
    }

    @Test
    void anEmptyTogetherDoesNotHoldTheChainUp() {
        TestDeck t = TestDeck.with(button("b", state(Chain.of(new Step.Together(List.of()), on("a")))));
        t.press("b");
        assertThat(t.lines()).containsExactly("A on @0");
        assertThat(t.all(Happening.Rested.class)).isNotEmpty();
    }

    @Test
    void nestsFiveHundredDeepAndRunsTenThousandSteps() {
        Chain deep = Chain.of(on("a"));
        for (int i = 0; i < 500; i++) {
            deep = Chain.of(new Step.Together(List.of(deep)), pause(1));
        }
        List<Step> many = new ArrayList<>(List.of(new Step.Together(List.of(deep))));
        for (int i = 0; i < 10_000; i++) {
            many.add(level(i % 100));
        }
        TestDeck t = TestDeck.with(button("b", state(new Chain(many))));
        t.press("b");
        t.pass(1000);
        assertThat(t.ran()).hasSize(10_001);
        assertThat(t.ran().getLast().dueNanos()).isEqualTo(500_000_000L);
    }

    @Test
    void statesGoRoundInARing() {
        TestDeck t = TestDeck.with(button("b", state("x", null, Chain.of(on("a")), Chain.EMPTY),
                state("y", null, Chain.of(on("b")), Chain.EMPTY), state("z", null, Chain.EMPTY, Chain.EMPTY)));
        List<Integer> seen = new ArrayList<>();
        for (int i = 0; i < 7; i++) {
            seen.add(t.shows("b").state());
            t.click("b");
        }
        assertThat(seen).containsExactly(0, 1, 2, 0, 1, 2, 0);
        assertThat(t.lines()).containsExactly("A on @0", "B on @0", "A on @0", "B on @0", "A on @0");
    }

    @Test
    void aStateMayStayOrNameItsSuccessor() {
        State stays = state("x", null, Chain.EMPTY, Chain.EMPTY).withThen("y");
        State jumps = state("y", null, Chain.EMPTY, Chain.EMPTY).withThen(State.STAY);
        TestDeck t = TestDeck.with(button("b", stays, state("m", null, Chain.EMPTY, Chain.EMPTY), jumps));
        t.click("b");
        assertThat(t.shows("b").state()).isEqualTo(2);
        t.click("b");
        assertThat(t.shows("b").state()).isEqualTo(2);
    }

    @Test
    void aFollowingButtonShowsWhatTheGearSays() {
        TestDeck t = TestDeck.with(button("b", state("off", A_OFF, Chain.of(on("a")), Chain.EMPTY),
                state("on", A_ON, Chain.of(off("a")), Chain.EMPTY)));
        t.post(new Event.Came("gear", "on/a", Value.of(true)));
        assertThat(t.shows("b").state()).isEqualTo(1);
        t.click("b");
        assertThat(t.shows("b").state()).isZero();
        assertThat(t.lines()).containsExactly("A off @0");
        t.pass(5000);
        assertThat(t.faults()).isEmpty();
    }

    @Test
    void aChangeIsOnItsWayUntilTheGearSaysSo() {
        TestDeck t = TestDeck.with(button("b", state("off", A_OFF, Chain.of(on("a")), Chain.EMPTY),
                state("on", A_ON, Chain.EMPTY, Chain.EMPTY)));
        t.obeys = false;
        t.click("b");
        assertThat(t.shows("b")).isEqualTo(new Happening.Shows("b", 0, 1, false));
        t.pass(1500);
        t.post(new Event.Came("gear", "on/a", Value.of(true)));
        assertThat(t.shows("b")).isEqualTo(new Happening.Shows("b", 1, -1, false));
        t.pass(5000);
        assertThat(t.faults()).isEmpty();
    }

    @Test
    void aReadingThatDoesNotFollowIsSaidAfterTwoSecondsFromTheChainsEnd() {
        TestDeck t = TestDeck.with(button("b", state("off", A_OFF, Chain.of(on("a"), pause(1000)), Chain.EMPTY),
                state("on", A_ON, Chain.EMPTY, Chain.EMPTY)));
        t.obeys = false;
        t.click("b");
        t.pass(2999);
        assertThat(t.shows("b").onItsWay()).isEqualTo(1);
        assertThat(t.faults()).isEmpty();
        t.pass(2);
        assertThat(t.shows("b").onItsWay()).isEqualTo(-1);
        assertThat(t.faults()).singleElement().asString().contains("no change within 2 s", "Lamp A", "no");
    }

    @Test
    void aFaultShowsAtOnceAndGoesWithTheNextPress() {
        TestDeck t = TestDeck.with(button("b", state("off", A_OFF, Chain.of(on("a")), Chain.EMPTY),
                state("on", A_ON, Chain.EMPTY, Chain.EMPTY)));
        t.deaf.add("on");
        t.click("b");
        assertThat(t.faults()).containsExactly("did not hear");
        assertThat(t.shows("b").onItsWay()).isEqualTo(-1);
        t.deaf.clear();
        t.click("b");
        assertThat(t.all(Happening.Faulted.class).getLast().message()).isNull();
        assertThat(t.shows("b").state()).isEqualTo(1);
    }

    @Test
    void gearThatIsOffFaultsInPlainWordsAndTheChainGoesOn() {
        TestDeck t = TestDeck.with(button("b", state(Chain.of(on("a"), pause(10), on("b")))));
        t.post(new Event.Linked("gear", new Status(Status.Phase.OFF, Cause.OTHER, "no answer at 10.0.0.1:9")));
        t.press("b");
        t.pass(100);
        assertThat(t.ran()).extracting(AsRun::outcome).containsExactly(AsRun.Outcome.FAULT, AsRun.Outcome.FAULT);
        assertThat(t.faults()).first().isEqualTo("Gear: no answer at 10.0.0.1:9. " + Cause.OTHER.hint(List.of()));
        assertThat(t.all(Happening.Ended.class).getFirst().end()).isEqualTo(Happening.End.FAILED);
    }

    @Test
    void holdToTalkOpensOnPressAndClosesOnRelease() {
        TestDeck t = TestDeck.with(button("b", state("on", null, Chain.of(on("a")), Chain.of(off("a")))));
        t.press("b");
        t.pass(300);
        t.release("b");
        t.release("b");
        assertThat(t.lines()).containsExactly("A on @0", "A off @300");
    }

    @Test
    void whateverEndsAHoldRunsTheReleaseChainOnce() {
        List<Event> enders = List.of(new Event.LetGo(), new Event.StopAll(), new Event.Load(TestDeck.rig()));
        for (Event ender : enders) {
            TestDeck t = TestDeck.with(button("b", state("on", null, Chain.of(on("a")), Chain.of(off("a")))));
            t.press("b");
            t.post(ender);
            t.release("b");
            assertThat(t.lines()).as("%s", ender).containsExactly("A on @0", "A off @0");
        }
    }

    @Test
    void aReleaseStopsWhatThePressStillRuns() {
        TestDeck t = TestDeck.with(
                button("b", state("on", null, Chain.of(pause(500), on("a")), Chain.of(off("a")))));
        t.press("b");
        t.pass(100);
        t.release("b");
        t.pass(1000);
        assertThat(t.lines()).containsExactly("A off @100");
    }

    @ParameterizedTest
    @CsvSource({"RESTART, 'A on @0|A on @100|B on @600'", "IGNORE, 'A on @0|B on @500'",
            "QUEUE, 'A on @0|B on @500|A on @500|B on @1000'", "OVERLAP, 'A on @0|A on @100|B on @500|B on @600'",
            "STOP, 'A on @0'"})
    void aSecondPressFollowsTheBusyRule(Busy busy, String expected) {
        Button b = button("b", state(Chain.of(on("a"), pause(500), on("b")))).withBusy(busy);
        TestDeck t = TestDeck.with(b);
        t.click("b");
        t.pass(100);
        t.click("b");
        t.pass(3000);
        assertThat(String.join("|", t.lines())).isEqualTo(expected);
    }

    @Test
    void stopAllHaltsEveryChainAtOnceAndLeavesLevelsWhereTheyAre() {
        TestDeck t = TestDeck.with(button("b", state(Chain.of(level(10), pause(100), level(20)))),
                button("c", state(Chain.of(new Step.Together(List.of(Chain.of(pause(100), on("a")), Chain.of(pause(50),
                        on("b"))))))).withColumn(1));
        t.click("b");
        t.click("c");
        t.post(new Event.StopAll());
        assertThat(t.all(Happening.Ended.class)).extracting(Happening.Ended::end)
                .containsExactly(Happening.End.STOPPED, Happening.End.STOPPED);
        t.pass(1000);
        assertThat(t.lines()).containsExactly("Level 10\u00a0% @0");
        assertThat(t.deck.idle()).isTrue();
    }

    @Test
    void anEditWhileAChainRunsLetsItRunOn() {
        Button b = button("b", state(Chain.of(on("a"), pause(500), on("b"))));
        TestDeck t = TestDeck.with(b);
        t.click("b");
        t.post(new Event.Load(TestDeck.rig(b.withName("renamed"))));
        t.pass(1000);
        assertThat(t.lines()).containsExactly("A on @0", "B on @500");
        assertThat(t.all(Happening.Ended.class).getFirst().end()).isEqualTo(Happening.End.DONE);
    }

    /** Else a microphone that is held open stays open when its button is edited on air. */
    @Test
    void aHoldEndsAsItBeganThoughItsButtonIsEditedMeanwhile() {
        Button talk = button("b", state("on", null, Chain.of(on("a")), Chain.of(off("a"))));
        for (Button edited : List.of(button("b", state(Chain.of(on("b")))), button("b", state("on", null, Chain.of(on(
                "b")), Chain.of(off("b")))))) {
            TestDeck t = TestDeck.with(talk);
            t.press("b");
            t.post(new Event.Load(TestDeck.rig(edited)));
            t.post(new Event.Load(TestDeck.rig(edited.withName("edited twice"))));
            t.release("b");
            assertThat(t.lines()).containsExactly("A on @0", "A off @0");
            t.press("b");
            t.release("b");
            assertThat(t.lines()).as("the next hold is as edited").startsWith("A on @0", "A off @0", "B on @0");
        }
    }

    @Test
    void oneRunCanBeStoppedAlone() {
        TestDeck t = TestDeck.with(button("b", state(Chain.of(pause(100), on("a")))),
                button("c", state(Chain.of(pause(100), on("b")))).withColumn(1));
        t.click("b");
        t.click("c");
        t.post(new Event.StopRun(t.all(Happening.Started.class).getFirst().run()));
        t.pass(500);
        assertThat(t.lines()).containsExactly("B on @100");
    }

    @Test
    void whatIsToldByHandIsRunWithoutAButton() {
        TestDeck t = TestDeck.with();
        t.post(new Event.Told("gear", "level", java.util.Map.of("level", Value.of(250))));
        assertThat(t.ran()).singleElement().satisfies(l -> {
            assertThat(l.button()).isEmpty();
            assertThat(l.args()).containsEntry("level", Value.of(100));
        });
    }

    @Test
    void aReadingThatNeverArrivesIsTakenAsLastSent() {
        TestDeck t = TestDeck.with(button("b", state(Chain.of(level(40)))));
        t.obeys = false;
        t.click("b");
        assertThat(t.all(Happening.Came.class)).contains(new Happening.Came("gear", "level", Value.of(40)));
    }

    @Test
    void aWatcherThatFailsDoesNotStopTheDeck() {
        SimulatedClock clock = new SimulatedClock();
        Deck deck = new Deck(clock, new java.util.Random(1), (_, _) -> {
        }, _ -> {
            throw new IllegalStateException("on purpose");
        }, Trace.NONE);
        deck.take(new Event.Load(TestDeck.rig(button("b", state(Chain.of(pause(1)))))), 0);
        deck.take(new Event.Pressed("b", "test"), 0);
        assertThat(deck.advance()).isEqualTo(1_000_000);
    }
}
