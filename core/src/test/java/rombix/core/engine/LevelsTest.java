package rombix.core.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.core.engine.TestDeck.button;
import static rombix.core.engine.TestDeck.level;
import static rombix.core.engine.TestDeck.state;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import rombix.core.board.Button;
import rombix.core.board.Control.Axis;
import rombix.core.board.Control;
import rombix.core.board.Rig;
import rombix.core.chain.Chain;
import rombix.core.chain.Gesture;
import rombix.core.edit.Edits;
import rombix.core.event.Cause;
import rombix.core.event.Event;
import rombix.core.event.Happening;
import rombix.core.event.Status;
import rombix.core.event.Trace;
import rombix.core.store.BoardFile;
import rombix.core.time.SimulatedClock;
import rombix.core.twin.Order;
import rombix.core.value.Value;

/** Dials, faders and pads: what goes out, how often, and what is told of it. The gear's level goes from 0 to 100. */
class LevelsTest {
    private static final Axis LEVEL = new Axis("gear", "level");

    private static TestDeck deck(Control control, Chain press) {
        return TestDeck.with(button("b", state(press)).withControl(control));
    }

    private static void move(TestDeck t, double to) {
        t.post(new Event.Moved("b", 0, to, "hand"));
    }

    @Test
    void aFaderGoesWhereTheHandIsAndStopsAtTheEnds() {
        TestDeck t = deck(new Control.Fader(LEVEL), Chain.EMPTY);
        move(t, 30);
        t.pass(100);
        move(t, 130);
        assertThat(t.sent()).containsExactly("/level[30] @0", "/level[100] @100");
    }

    @Test
    void aFloodGoesOutAtTheRateOfTheProtocolAndEndsWhereTheHandDid() {
        TestDeck t = deck(new Control.Fader(LEVEL), Chain.EMPTY);
        for (int ms = 0; ms < 100; ms++) {
            for (int i = 0; i < 100; i++) {
                move(t, ms + i / 100.0);
            }
            t.pass(1);
        }
        t.pass(100);
        assertThat(t.sent()).hasSize(6).last().isEqualTo("/level[99.99] @100");
    }

    @Test
    void oneLineIsToldOfAWholeRide() {
        TestDeck t = deck(new Control.Fader(LEVEL), Chain.EMPTY);
        for (int i = 0; i < 50; i++) {
            move(t, i);
            t.pass(10);
        }
        assertThat(t.ran()).isEmpty();
        t.pass(1000);
        assertThat(t.ran()).singleElement().satisfies(l -> {
            assertThat(l.title()).isEqualTo("Level 49\u00a0%");
            assertThat(l.button()).isEqualTo("b");
        });
    }

    @Test
    void aDialMovesItsLevelByDetentsCoarseAndFine() {
        TestDeck t = deck(new Control.Dial(LEVEL, 10, 1), Chain.EMPTY);
        t.post(new Event.Came("gear", "level", Value.of(50)));
        t.post(new Event.Turned("b", 2, false, "hand"));
        t.pass(100);
        t.post(new Event.Turned("b", -3, true, "hand"));
        assertThat(t.sent()).containsExactly("/level[70] @0", "/level[67] @100");
    }

    @Test
    void turnsBetweenTwoSendingsAddUp() {
        TestDeck t = deck(new Control.Dial(LEVEL, 1, 0), Chain.EMPTY);
        t.post(new Event.Came("gear", "level", Value.of(50)));
        for (int i = 0; i < 9; i++) {
            t.post(new Event.Turned("b", 1, false, "hand"));
        }
        t.pass(50);
        assertThat(t.sent()).containsExactly("/level[51] @0", "/level[59] @20");
    }

    @Test
    void aFaderOnAnEncoderGoesByAFortiethOfItsWay() {
        TestDeck t = deck(new Control.Fader(LEVEL), Chain.EMPTY);
        t.post(new Event.Came("gear", "level", Value.of(50)));
        t.post(new Event.Turned("b", 2, false, "MIDI"));
        t.pass(100);
        t.post(new Event.Turned("b", -1, true, "MIDI"));
        assertThat(t.sent()).containsExactly("/level[55] @0", "/level[54.75] @100");
    }

    @Test
    void whatIsPushedIsNotTurned() {
        TestDeck t = deck(null, Chain.EMPTY);
        t.post(new Event.Turned("b", 2, false, "MIDI"));
        move(t, 5);
        assertThat(t.sent()).isEmpty();
        assertThat(t.faults()).isEmpty();
    }

    @Test
    void aDialWhoseStateHasAChainForTheTurnRunsThat() {
        Button b = button("b", state(Chain.EMPTY).withChain(Gesture.TURN, Chain.of(level(7))));
        TestDeck t = TestDeck.with(b.withControl(new Control.Dial(LEVEL, 10, 1)));
        t.post(new Event.Came("gear", "level", Value.of(50)));
        t.post(new Event.Turned("b", 1, false, "hand"));
        assertThat(t.sent()).containsExactly("/level[7] @0");
    }

    @Test
    void aDialOnGearThatNeverReportsStartsFromTheLowEnd() {
        TestDeck t = deck(new Control.Dial(LEVEL, 10, 0), Chain.EMPTY);
        t.post(new Event.Turned("b", 1, false, "hand"));
        assertThat(t.sent()).containsExactly("/level[10] @0");
        assertThat(t.faults()).isEmpty();
    }

    @Test
    void aLevelThatItsGearReportsAndHasNotYetCannotBeTurnedAndSaysSo() throws Exception {
        Rig demo = BoardFile.read(Path.of("../demo/star-night.json"));
        List<Order> sent = new ArrayList<>();
        List<Happening> happened = new ArrayList<>();
        Deck deck = new Deck(new SimulatedClock(), new Random(1), (_, o) -> sent.add(o), happened::add, Trace.NONE);
        deck.take(new Event.Load(demo.with(Edits.button(demo.board(), "gate", b -> b.withControl(new Control.Dial(
                new Control.Axis("desk", "level/host"), 0, 0))))), 0);
        deck.take(new Event.Turned("gate", 1, false, "hand"), 0);
        assertThat(sent).isEmpty();
        assertThat(happened).anyMatch(h -> h instanceof Happening.Faulted f && f.message() != null && f.message()
                .contains("is unknown"));
    }

    @Test
    void aPadSpringsBackHoweverItsHoldEnds() {
        for (Event end : new Event[]{new Event.Released("b", "hand"), new Event.LetGo(), new Event.StopAll()}) {
            TestDeck t = deck(new Control.Pad(LEVEL, LEVEL, true), Chain.EMPTY);
            t.post(new Event.Pressed("b", "hand"));
            move(t, 90);
            t.pass(100);
            t.post(end);
            assertThat(t.sent()).as(end.toString()).contains("/level[90] @0", "/level[50] @100");
        }
    }

    @Test
    void gearThatIsOffIsToldOfOnceARide() {
        TestDeck t = deck(new Control.Fader(LEVEL), Chain.EMPTY);
        t.post(new Event.Linked("gear", new Status(Status.Phase.OFF, Cause.OTHER, "off")));
        for (int i = 0; i < 10; i++) {
            move(t, i);
            t.pass(30);
        }
        assertThat(t.sent()).isEmpty();
        assertThat(t.ran()).hasSize(1);
        t.post(new Event.Linked("gear", new Status(Status.Phase.READY, Cause.READY)));
        move(t, 40);
        assertThat(t.happened.stream().filter(Happening.Faulted.class::isInstance).toList()).last()
                .isEqualTo(new Happening.Faulted("b", null, null));
    }
}
