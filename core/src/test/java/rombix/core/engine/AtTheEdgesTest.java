package rombix.core.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.core.engine.TestDeck.A_OFF;
import static rombix.core.engine.TestDeck.A_ON;
import static rombix.core.engine.TestDeck.PING;
import static rombix.core.engine.TestDeck.button;
import static rombix.core.engine.TestDeck.off;
import static rombix.core.engine.TestDeck.on;
import static rombix.core.engine.TestDeck.pause;
import static rombix.core.engine.TestDeck.state;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import rombix.core.board.Board.NamedChain;
import rombix.core.board.Button;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.DeckStep;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions.Fail;
import rombix.core.chain.StepOptions;
import rombix.core.event.AsRun;
import rombix.core.event.Event;
import rombix.core.event.Happening;
import rombix.core.value.Value;

/** Presses without a hand, faults that are over, and faces that expect nothing. */
class AtTheEdgesTest {
    private static final Button TALK = button("b", state("s", null, Chain.of(on("a"), pause(5000)), Chain.of(off(
            "a"))));

    /** A press from a script, a clock or a program change left the microphone open. */
    @Test
    void aPressWithoutAHandIsReleased() {
        TestDeck t = TestDeck.with(TALK);
        t.post(new Event.Perform("b", Gesture.PRESS, "a clock"));
        assertThat(t.shows("b").held()).isTrue();
        assertThat(t.all(Happening.Rested.class)).isEmpty();
        t.pass(10_000);
        assertThat(t.lines()).containsExactly("A on @0", "A off @100");
        assertThat(t.shows("b").held()).isFalse();
        assertThat(t.all(Happening.Rested.class)).hasSize(1);
    }

    @Test
    void itHoldsForAsLongAsItIsToldAndAHandThatPressesMeanwhileHasTheHold() {
        TestDeck t = TestDeck.with(TALK);
        t.post(new Event.Perform("b", Gesture.PRESS, "script", 2000));
        t.pass(1990);
        assertThat(t.lines()).containsExactly("A on @0");
        t.pass(20);
        assertThat(t.lines()).endsWith("A off @2000");
        t.post(new Event.Perform("b", Gesture.PRESS, "script", 2000));
        t.pass(500);
        t.press("b");
        t.pass(3000);
        assertThat(t.shows("b").held()).as("the hand has it now").isTrue();
        t.release("b");
        assertThat(t.shows("b").held()).isFalse();
    }

    @Test
    void aPressOfAButtonWithoutARelease() {
        TestDeck t = TestDeck.running(on("a"));
        t.post(new Event.Perform("b", Gesture.PRESS, "script"));
        assertThat(t.lines()).containsExactly("A on @0");
        assertThat(t.all(Happening.Rested.class)).hasSize(1);
    }

    private static Step ping(Fail fail, Chain instead) {
        return PING.withHow(new StepOptions(false, null, null, fail, 2, 500, instead));
    }

    /** A retry that succeeded left FAULT on the face. */
    @Test
    void aRetryThatSucceedsTakesTheFaultOffTheFace() {
        TestDeck t = TestDeck.running(ping(Fail.RETRY, null), on("a"));
        t.deaf.add("ping");
        t.press("b");
        t.pass(100);
        assertThat(t.all(Happening.Faulted.class).getLast().message()).isNotNull();
        t.deaf.clear();
        t.pass(1000);
        assertThat(t.all(Happening.Faulted.class).getLast().message()).isNull();
        assertThat(t.all(Happening.Ended.class).getLast().end()).isEqualTo(Happening.End.DONE);
    }

    @Test
    void aFaultOfAnotherStepStaysOnTheFace() {
        TestDeck t = TestDeck.running(PING, pause(10), ping(Fail.RETRY, null));
        t.deaf.add("ping");
        t.press("b");
        t.pass(100);
        t.deaf.clear();
        t.pass(1000);
        assertThat(t.all(Happening.Faulted.class).getLast().message()).isNotNull();
    }

    /** What was to run instead was passed over where the step was tried again. */
    @Test
    void insteadRunsWhenTheTriesAreUsedUp() {
        TestDeck t = TestDeck.running(ping(Fail.RETRY, Chain.of(on("b"))), on("a"));
        t.deaf.add("ping");
        t.press("b");
        t.pass(10_000);
        assertThat(t.lines()).containsExactly("Ping @0", "Ping @500", "Ping @1500", "B on @1500", "A on @1500");
    }

    /** A button that follows a reading said “did not follow” after a press that could not change that reading. */
    @ParameterizedTest
    @ValueSource(booleans = {true, false})
    void aPressThatCannotChangeWhatIsFollowedAwaitsNothing(boolean nothing) {
        Chain press = nothing ? Chain.EMPTY : Chain.of(on("b"));
        TestDeck t = TestDeck.with(button("b", state("off", A_OFF, press, Chain.EMPTY), state("on", A_ON, press,
                Chain.EMPTY)));
        t.click("b");
        assertThat(t.shows("b").onItsWay()).isEqualTo(-1);
        t.pass(10_000);
        assertThat(t.faults()).isEmpty();
    }

    @Test
    void aPressThatMayChangeItIsAwaitedWhateverTheStepIs() {
        for (Step step : List.of(on("a"), PING,
                new Step.Repeat(new Arg.Constant(Value.of(1)), null, null, "n", Chain.of(
                        on("a")), StepOptions.PLAIN, Map.of()))) {
            TestDeck t = TestDeck.with(button("b", state("off", A_OFF, Chain.of(step), Chain.EMPTY), state("on", A_ON,
                    Chain.EMPTY, Chain.EMPTY)));
            t.obeys = false;
            t.click("b");
            assertThat(t.shows("b").onItsWay()).as(step.toString()).isEqualTo(1);
        }
    }

    /** The fault of a chain that others use was told with the names of its arguments in place of their values. */
    @Test
    void aFaultOfASharedChainKnowsWhatItsArgumentsWere() {
        Step nudge = new GearStep.Nudge("gear", "level", Map.of(), "level", new Arg.Computed("{by}"), false,
                StepOptions.PLAIN, Map.of());
        Step use = new DeckStep.Use(null, null, Gesture.PRESS, "shared", Map.of("by", Arg.of(5)), StepOptions.PLAIN, Map
                .of());
        TestDeck t = TestDeck.playing(TestDeck.rig(b -> b.withChains(List.of(new NamedChain("shared", "Shared", List.of(
                "by"), Chain.of(nudge)))), button("b", state(Chain.of(use)))));
        t.press("b");
        AsRun line = t.ran().getLast();
        assertThat(line.outcome()).isEqualTo(AsRun.Outcome.FAULT);
        assertThat(line.args()).containsEntry("by", Value.of(5));
    }
}
