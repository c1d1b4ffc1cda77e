package rombix.core.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.core.engine.TestDeck.PING;
import static rombix.core.engine.TestDeck.level;
import static rombix.core.engine.TestDeck.off;
import static rombix.core.engine.TestDeck.on;
import static rombix.core.engine.TestDeck.pause;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import rombix.core.chain.Chain;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions.Fail;
import rombix.core.chain.StepOptions;
import rombix.core.event.Cause;
import rombix.core.event.Event;
import rombix.core.event.Status;
import rombix.core.value.Value;

/** What becomes of a chain when a step of it fails, and when it is stopped. */
class FailureTest {

    private static Step ping(Fail fail, Chain instead) {
        return PING.withHow(new StepOptions(false, null, null, fail, 2, 500, instead));
    }

    private static TestDeck deaf(Step... steps) {
        TestDeck t = TestDeck.running(steps);
        t.deaf.add("ping");
        return t;
    }

    @Test
    void aFaultIsShownAndTheChainGoesOn() {
        TestDeck t = deaf(PING, on("a"));
        t.press("b");
        assertThat(t.lines()).containsExactlyInAnyOrder("Ping @0", "A on @0");
        assertThat(t.faults()).containsExactly("did not hear");
    }

    @Test
    void aStepMayStopItsChain() {
        TestDeck t = deaf(ping(Fail.STOP, null), on("a"));
        t.press("b");
        t.pass(1000);
        assertThat(t.lines()).containsExactly("Ping @0");
        assertThat(t.deck.idle()).isTrue();
    }

    @Test
    void aStepMayBeTriedAgainEachTimeLater() {
        TestDeck t = deaf(ping(Fail.RETRY, null), on("a"));
        t.press("b");
        t.pass(10_000);
        assertThat(t.lines()).containsExactly("Ping @0", "Ping @500", "Ping @1500", "A on @1500");
        t.deaf.clear();
        t.press("b");
        t.pass(10_000);
        assertThat(t.lines().subList(4, 6)).containsExactly("Ping @10000", "A on @10000");
    }

    @Test
    void anotherChainMayRunInstead() {
        TestDeck t = deaf(ping(Fail.INSTEAD, Chain.of(on("b"), pause(100))), on("a"));
        t.press("b");
        t.pass(1000);
        assertThat(t.lines()).containsExactly("Ping @0", "B on @0", "A on @100");
        assertThat(t.ran().get(1).step()).isEqualTo("press/0/instead/0");
    }

    @Test
    void aGearThatIsOffFailsAtOnceWithAReasonAndAHint() {
        TestDeck t = TestDeck.running(ping(Fail.INSTEAD, Chain.EMPTY), on("a"));
        t.post(new Event.Linked("gear", new Status(Status.Phase.OFF, Cause.OTHER, "no answer")));
        t.press("b");
        assertThat(t.faults().getFirst()).isEqualTo("Gear: no answer. " + Cause.OTHER.hint(List.of()));
        assertThat(t.deck.idle()).isTrue();
    }

    @Test
    void theAlwaysPartRunsHoweverTheChainEnds() {
        Chain chain = new Chain(List.of(on("a"), pause(500)), List.of(off("a"), pause(100), PING));
        TestDeck t = TestDeck.with(TestDeck.button("b", TestDeck.state(chain)));
        t.press("b");
        t.pass(1000);
        assertThat(t.lines()).containsExactly("A on @0", "A off @500", "Ping @600");
        t.press("b");
        t.pass(200);
        t.post(new Event.StopAll());
        t.pass(1000);
        assertThat(t.lines().subList(3, 6)).containsExactly("A on @1000", "A off @1200", "Ping @1300");
        assertThat(t.deck.idle()).isTrue();
    }

    @Test
    void stopAllEndsEverythingAtOnceAndRunsWhatMustAlwaysRun() {
        Chain inner = new Chain(List.of(pause(60_000), on("b")), List.of(off("b")));
        Chain outer = new Chain(List.of(new Step.Together(List.of(inner, Chain.of(pause(60_000))))), List.of(off("a")));
        TestDeck t = TestDeck.with(TestDeck.button("b", TestDeck.state("s", null, outer, Chain.of(PING))));
        t.press("b");
        t.pass(100);
        t.post(new Event.StopAll());
        assertThat(t.lines()).containsExactlyInAnyOrder("B off @100", "A off @100", "Ping @100");
        assertThat(t.deck.advance()).isEqualTo(Long.MAX_VALUE);
    }

    @Test
    void aStepMayWaitForTheGearToShowIt() {
        Step asks = new GearStep.Do("gear", "on", Map.of("lamp", rombix.core.chain.Arg.of("a")), 800L,
                StepOptions.PLAIN, Map
                        .of());
        TestDeck t = TestDeck.running(asks, on("b"));
        t.obeys = false;
        t.press("b");
        t.pass(300);
        assertThat(t.lines()).containsExactly("A on @0");
        t.post(new Event.Came("gear", "on/a", Value.of(true)));
        assertThat(t.lines()).containsExactly("A on @0", "B on @300");
        t.post(new Event.Came("gear", "on/a", Value.of(false)));
        t.press("b");
        t.pass(1000);
        assertThat(t.faults()).last().asString().contains("didn't confirm it within 0.8");
        assertThat(t.lines()).last().isEqualTo("B on @1100");
    }

    @Test
    void chainsOfTenThousandStepsAndFiveHundredLevelsOfEveryKindRun() {
        Chain deep = Chain.of(on("a"));
        for (int i = 0; i < 500; i++) {
            Chain inner = deep;
            deep = Chain.of(switch (i % 5) {
                case 0 -> new Step.Together(List.of(inner));
                case 1 ->
                    new Step.Pick(Step.Pick.Way.SHUFFLED, List.of(new Step.Choice(null, 1, inner)), StepOptions.PLAIN,
                            Map.of());
                case 2 ->
                    new Step.Repeat(rombix.core.chain.Arg.of(1), null, null, "count", inner, StepOptions.PLAIN, Map
                            .of());
                case 3 -> new Step.If(new rombix.core.chain.Condition.Computed("1 == 1"), inner, Chain.EMPTY,
                        StepOptions.PLAIN,
                        Map.of());
                default -> new Step.ForAWhile(inner, 1, StepOptions.PLAIN, Map.of());
            });
        }
        List<Step> many = new java.util.ArrayList<>(deep.steps());
        for (int i = 0; i < 10_000; i++) {
            many.add(level(i % 100));
        }
        TestDeck t = TestDeck.with(TestDeck.button("b", TestDeck.state(new Chain(many))));
        t.post(new Event.Perform("b", Gesture.PRESS, "test"));
        t.pass(1000);
        assertThat(t.ran().stream().filter(l -> l.command().equals("level")).count()).isEqualTo(10_000);
        assertThat(t.deck.idle()).isTrue();
        assertThat(t.faults()).isEmpty();
    }

    @Test
    void aCommandThatWaitsHoldsItsChainUntilItIsDoneOrHasFailed() {
        TestDeck t = TestDeck.running(new GearStep.Do("gear", "look", Map.of()), on("a"));
        for (String fault : new String[]{null, "isn't on the screen"}) {
            t.looking.clear();
            int before = t.lines().size();
            t.press("b");
            t.pass(5000);
            assertThat(t.lines()).hasSize(before);
            t.post(new Event.OrderDone(t.looking.getFirst(), t.clock.nanos(), fault));
            assertThat(t.lines().getLast()).startsWith("A on @");
        }
        assertThat(t.faults()).containsExactly("isn't on the screen");
    }
}
