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
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AutoClose;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import rombix.core.Quiet;
import rombix.core.chain.Chain;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.edit.Edits;
import rombix.core.engine.run.Orders;
import rombix.core.event.Cause;
import rombix.core.event.Event;
import rombix.core.event.Happening;
import rombix.core.event.Status;
import rombix.core.event.Trace;
import rombix.core.time.SimulatedClock;

/** Whatever ends, holds end: each with its release, once, and with what it has to put back. */
class EndingTest {
    @AutoClose
    private final Quiet quiet = new Quiet(Orders.class);

    private final List<Long> over = new ArrayList<>();

    private void end(TestDeck t) {
        t.post(new Event.End(() -> over.add(t.clock.nanos() / 1_000_000)));
    }

    @Test
    void aHoldAtTheEndOfAShowIsReleasedOnce() {
        TestDeck t = TestDeck.with(button("b", state("s", null, Chain.of(on("a")), Chain.of(off("a")))));
        t.post(new Event.Pressed("b", "mouse"));
        t.pass(50);
        end(t);
        t.pass(3000);
        assertThat(t.sent()).containsExactly("/set/a[yes] @0", "/set/a[no] @50");
        assertThat(over).containsExactly(50L);
    }

    @Test
    void aReleaseThatIsOnItsWayAtTheEndIsHeardOut() {
        TestDeck t = TestDeck.with(button("b", state("s", null, Chain.of(on("a")), Chain.of(pause(500), off("a")))));
        t.post(new Event.Pressed("b", "mouse"));
        t.pass(50);
        t.post(new Event.Released("b", "mouse"));
        t.pass(50);
        end(t);
        t.pass(3000);
        assertThat(t.sent()).containsExactly("/set/a[yes] @0", "/set/a[no] @550");
        assertThat(over).containsExactly(550L);
    }

    @Test
    void whatAlwaysRunsAndWhatIsPutBackGoOutAtTheEnd() {
        Step held = new Step.ForAWhile(Chain.of(level(80)), 10_000, StepOptions.PLAIN, Map.of());
        TestDeck t = TestDeck.with(button("b", state(new Chain(List.of(held), List.of(PING)))));
        t.post(new Event.Came("gear", "level", rombix.core.value.Value.of(20)));
        t.press("b");
        t.pass(100);
        end(t);
        t.pass(3000);
        assertThat(t.sent()).containsExactlyInAnyOrder("/level[80] @0", "/level[20] @100", "/ping[] @100");
        assertThat(over).containsExactly(100L);
    }

    @Test
    void aReleaseThatTakesTooLongDoesNotKeepTheShowFromEnding() {
        TestDeck t = TestDeck.with(button("b", state("s", null, Chain.of(on("a")), Chain.of(pause(60_000), off("a")))));
        t.post(new Event.Pressed("b", "mouse"));
        t.pass(50);
        end(t);
        t.pass(5000);
        assertThat(over).containsExactly(2050L);
    }

    @Test
    void aHeldButtonThatIsDeletedIsReleased() {
        TestDeck t = TestDeck.with(button("b", state("s", null, Chain.of(on("a")), Chain.of(off("a"), pause(100),
                PING))));
        t.post(new Event.Pressed("b", "mouse"));
        t.pass(50);
        t.post(new Event.Load(TestDeck.rig()));
        t.pass(1000);
        assertThat(t.sent()).containsExactly("/set/a[yes] @0", "/set/a[no] @50", "/ping[] @150");
    }

    @Timeout(30)
    @RepeatedTest(50)
    void aConductorThatEndsRightAfterAHoldBeganOrEndedHasReleasedItOnce() {
        AtomicInteger released = new AtomicInteger();
        Conductor conductor = new Conductor(ConductorTest.CLOCK, new Random(1), post -> (ticket, order) -> {
            if (order.command().id().equals("off")) {
                released.incrementAndGet();
            }
            post.accept(new Event.OrderDone(ticket, 0, null));
        }, _ -> {
        });
        conductor.post(new Event.Load(TestDeck.rig(button("b", state("s", null, Chain.of(on("a")), Chain.of(off(
                "a")))))));
        conductor.post(new Event.Linked("gear", new Status(Status.Phase.READY, Cause.READY)));
        conductor.post(new Event.Pressed("b", "mouse"));
        conductor.post(new Event.LetGo());
        conductor.end();
        conductor.close();
        assertThat(released).hasValue(1);
    }

    @Test
    void aStepThatThrowsIsAFaultWithAPlaceAndItsRunEnds() {
        List<Happening> told = new ArrayList<>();
        Deck[] deck = new Deck[1];
        SimulatedClock clock = new SimulatedClock();
        deck[0] = new Deck(clock, new Random(1), (ticket, _) -> {
            throw new IllegalStateException("Topic name [a/#] must not contain multi level wildcard character (#).");
        }, told::add, Trace.NONE);
        deck[0].take(new Event.Load(TestDeck.rig(b -> Edits.chain(b, "b", 0, Gesture.PRESS, _ -> Chain.of(PING, on(
                "a"))), button("b", state(Chain.EMPTY)))), 0);
        deck[0].take(new Event.Linked("gear", new Status(Status.Phase.READY, Cause.READY)), 0);
        deck[0].take(new Event.Perform("b", Gesture.PRESS, "test"), 0);
        deck[0].advance();
        assertThat(told).filteredOn(Happening.Faulted.class::isInstance).extracting(h -> ((Happening.Faulted) h)
                .message()).first().asString().contains("must not contain").startsWith("Gear: ");
        assertThat(told).filteredOn(Happening.Ended.class::isInstance).hasSize(1);
        assertThat(deck[0].idle()).isTrue();
    }

    @Test
    void aDeckWhoseStepsOverflowTheStackGoesOn() {
        List<Happening> told = new ArrayList<>();
        SimulatedClock clock = new SimulatedClock();
        AtomicInteger calls = new AtomicInteger();
        Deck deck = new Deck(clock, new Random(1), (_, _) -> {
            if (calls.incrementAndGet() == 1) {
                throw new StackOverflowError();
            }
        }, told::add, Trace.NONE);
        deck.take(new Event.Load(TestDeck.rig(button("b", state(Chain.of(PING))))), 0);
        deck.take(new Event.Linked("gear", new Status(Status.Phase.READY, Cause.READY)), 0);
        deck.take(new Event.Perform("b", Gesture.PRESS, "test"), 0);
        deck.take(new Event.Perform("b", Gesture.PRESS, "test"), 0);
        assertThat(calls).hasValue(2);
        assertThat(told).filteredOn(Happening.Faulted.class::isInstance).extracting(h -> ((Happening.Faulted) h)
                .message()).contains("Gear: its steps or formula are nested too deeply");
    }
}
