package rombix.core.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.core.engine.TestDeck.button;
import static rombix.core.engine.TestDeck.off;
import static rombix.core.engine.TestDeck.on;

import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import rombix.core.board.Button;
import rombix.core.board.Control;
import rombix.core.board.Face;
import rombix.core.board.State;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.event.Event;
import rombix.core.event.Happening;

/** Pointer fields, wheel strips and key pads, by hand and by a stick. */
class StrokesTest {
    private static Step level(String formula) {
        return new GearStep.Do("gear", "level", Map.of(), null, StepOptions.PLAIN, Map.of()).withArg("level",
                new Arg.Computed(formula));
    }

    private static State state(String id, Map<Gesture, Chain> on) {
        return new State(id, id, Face.PLAIN, State.STAY, null, new EnumMap<>(on), Map.of());
    }

    private static TestDeck sliding(Control control, String formula) {
        return TestDeck.with(button("b", state("on", Map.of(Gesture.TURN, Chain.of(level(formula)), Gesture.PRESS, Chain
                .of(on("a")), Gesture.RELEASE, Chain.of(off("a"))))).withControl(control));
    }

    private static Button pad(boolean eight) {
        Control.KeyPad control = new Control.KeyPad(eight);
        List<State> ways = control.ways().stream().map(way -> state(way.replace(' ', '-'), Map.of(Gesture.PRESS, Chain
                .of(way.startsWith("up") ? on("a") : on("b")), Gesture.RELEASE,
                Chain.of(way.startsWith("up")
                        ? off("a")
                        : off("b")))))
                .toList();
        return button("b", ways.toArray(State[]::new)).withControl(control);
    }

    private static List<String> sent(TestDeck t) {
        return t.sent().stream().map(s -> s.replaceAll(" @.*", "")).toList();
    }

    @Test
    void slidingRunsTheTurnChainWithItsWayTimesThePaceAndTellsNothing() {
        TestDeck t = sliding(new Control.PointerField(2, false), "{across} + 10 * {up}");
        int told = t.ran().size();
        t.post(new Event.Stroked("b", 3, 4, "mouse"));
        assertThat(sent(t)).containsExactly("/level[86]");
        assertThat(t.ran()).hasSize(told);
        assertThat(t.happened).noneMatch(h -> h instanceof Happening.Started);
    }

    @Test
    void whatGoesWrongWhileSlidingIsToldOnTheButton() {
        TestDeck t = sliding(new Control.PointerField(1, false), "{nothing} + 1");
        t.post(new Event.Stroked("b", 3, 4, "mouse"));
        assertThat(t.happened).anyMatch(h -> h instanceof Happening.Faulted f && f.message() != null);
    }

    @Test
    void aStickThatIsHeldOverKeepsMovingUntilItIsBackInTheMiddle() {
        TestDeck t = sliding(new Control.PointerField(1, false), "ABS({across})");
        t.post(new Event.Moved("b", 0, 1, "stick"));
        t.pass(1000);
        int moved = t.sent().size();
        assertThat(moved).isBetween(55, 62);
        double way = t.sent().stream().mapToDouble(s -> Double.parseDouble(s.replaceAll(".*\\[(.*)].*", "$1"))).sum();
        assertThat(way).isBetween(860.0, 930.0);
        t.post(new Event.Moved("b", 0, 0.02, "stick"));
        t.pass(1000);
        assertThat(t.sent()).hasSizeBetween(moved, moved + 1);
    }

    @Test
    void aStickThatIsPulledOutStopsMoving() {
        TestDeck t = sliding(new Control.WheelStrip(true), "ABS({up})");
        t.post(new Event.Moved("b", 1, -1, "stick"));
        t.pass(500);
        int moved = t.sent().size();
        assertThat(moved).isPositive();
        t.post(new Event.LetGo("b", "unplugged"));
        t.pass(1000);
        assertThat(t.sent()).hasSize(moved);
    }

    @Test
    void aWayIsHeldAsLongAsTheHandIsThereAndADiagonalHoldsBoth() {
        TestDeck t = TestDeck.with(pad(false));
        t.post(new Event.Held("b", Set.of(0), "mouse"));
        assertThat(sent(t)).containsExactly("/set/a[yes]");
        t.post(new Event.Held("b", Set.of(0, 1), "mouse"));
        assertThat(sent(t)).containsExactly("/set/a[yes]", "/set/b[yes]");
        t.post(new Event.Held("b", Set.of(1), "mouse"));
        assertThat(sent(t)).containsExactly("/set/a[yes]", "/set/b[yes]", "/set/a[no]");
        t.post(new Event.Held("b", Set.of(), "mouse"));
        assertThat(sent(t)).containsExactly("/set/a[yes]", "/set/b[yes]", "/set/a[no]", "/set/b[no]");
    }

    @Test
    void whateverEndsTheHoldLetsGoOfEachWayOnce() {
        TestDeck t = TestDeck.with(pad(false));
        t.post(new Event.Held("b", Set.of(0, 1), "mouse"));
        t.post(new Event.StopAll());
        t.post(new Event.LetGo());
        assertThat(sent(t)).containsExactlyInAnyOrder("/set/a[yes]", "/set/b[yes]", "/set/a[no]", "/set/b[no]");
    }

    @Test
    void aStickPressesTheWaysThatItPointsTo() {
        TestDeck t = TestDeck.with(pad(false));
        t.post(new Event.Moved("b", 1, 0.7, "stick"));
        assertThat(sent(t)).containsExactly("/set/a[yes]");
        t.post(new Event.Moved("b", 1, 0.45, "stick"));
        assertThat(sent(t)).as("a little back is still held").hasSize(1);
        t.post(new Event.Moved("b", 1, 0.1, "stick"));
        assertThat(sent(t)).containsExactly("/set/a[yes]", "/set/a[no]");
    }

    @Test
    void eightWaysHaveTheirDiagonalsForThemselves() {
        Control.KeyPad eight = new Control.KeyPad(true);
        assertThat(eight.toward(1, 1)).containsExactly(1);
        assertThat(eight.toward(-1, 1)).containsExactly(7);
        assertThat(eight.toward(0, -1)).containsExactly(4);
        assertThat(new Control.KeyPad(false).toward(-1, -1)).containsExactlyInAnyOrder(2, 3);
    }
}
