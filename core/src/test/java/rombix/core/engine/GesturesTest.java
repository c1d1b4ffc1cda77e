package rombix.core.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.core.engine.TestDeck.PING;
import static rombix.core.engine.TestDeck.button;
import static rombix.core.engine.TestDeck.level;
import static rombix.core.engine.TestDeck.off;
import static rombix.core.engine.TestDeck.on;
import static rombix.core.engine.TestDeck.pause;
import static rombix.core.engine.TestDeck.state;

import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import rombix.core.board.Button;
import rombix.core.board.Button.Guard;
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
import rombix.core.value.Value;

/** What a hand does and what then runs: the default times are 500 ms for a long press, 300 ms for a double one. */
class GesturesTest {

    private static Button answering(Map<Gesture, Chain> on) {
        return button("b", new State("s", "s", Face.PLAIN, State.STAY, null, on, Map.of()));
    }

    private static Map<Gesture, Chain> on(Object... pairs) {
        Map<Gesture, Chain> all = new EnumMap<>(Gesture.class);
        for (int i = 0; i < pairs.length; i += 2) {
            all.put((Gesture) pairs[i], Chain.of((Step) pairs[i + 1]));
        }
        return all;
    }

    /** Hands as text: {@code p}ress, {@code r}elease, {@code l}et go by something else, or milliseconds. */
    private static void work(TestDeck t, String hands) {
        for (String h : hands.split(" ")) {
            switch (h) {
                case "p" -> t.press("b");
                case "r" -> t.release("b");
                case "l" -> t.post(new Event.LetGo());
                default -> t.pass(Long.parseLong(h));
            }
        }
    }

    static Stream<Arguments> cases() {
        Map<Gesture, Chain> both = on(Gesture.PRESS, TestDeck.on("a"), Gesture.LONG_PRESS, TestDeck.on("b"));
        Map<Gesture, Chain> twice = on(Gesture.PRESS, TestDeck.on("a"), Gesture.DOUBLE_PRESS, TestDeck.on("b"));
        Map<Gesture, Chain> all = on(Gesture.PRESS, TestDeck.on("a"), Gesture.DOUBLE_PRESS, TestDeck.on("b"),
                Gesture.LONG_PRESS, PING, Gesture.RELEASE, off("a"));
        Map<Gesture, Chain> held = on(Gesture.PRESS, TestDeck.on("a"), Gesture.HELD, PING, Gesture.RELEASE, off("a"));
        return Stream.of(Arguments.of("short with a long one", both, "p 100 r 1000", List.of("A on @100")),
                Arguments.of("long: the press does not run", both, "p 700 r 1000", List.of("B on @500")),
                Arguments.of("let go before it is known: nothing", both, "p 100 l 1000", List.of()),
                Arguments.of("single with a double one", twice, "p 50 r 1000", List.of("A on @300")),
                Arguments.of("double: the press does not run", twice, "p 50 r 100 p 50 r 1000", List.of("B on @150")),
                Arguments.of("too slow for a double", twice, "p 50 r 400 p 50 r 1000", List.of("A on @300",
                        "A on @750")),
                Arguments.of("held through the double's time is a press", twice, "p 400 r 1000", List.of("A on @300")),
                Arguments.of("all: single", all, "p 50 r 1000", List.of("A on @300", "A off @300")),
                Arguments.of("all: double", all, "p 50 r 100 p 50 r 1000", List.of("B on @150", "A off @200")),
                Arguments.of("all: long", all, "p 600 r 1000", List.of("Ping @500", "A off @600")),
                Arguments.of("all: held past the double's time, released before the long", all, "p 400 r 1000", List.of(
                        "A on @400", "A off @400")),
                Arguments.of("held repeats while it is held", held, "p 500 r 1000", List.of("A on @0", "Ping @200",
                        "Ping @400", "A off @500")),
                Arguments.of("a hold that is let go releases once", held, "p 100 l r l 1000", List.of("A on @0",
                        "A off @100")));
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("cases")
    void become(String law, Map<Gesture, Chain> on, String hands, List<String> lines) {
        TestDeck t = TestDeck.with(answering(on));
        work(t, hands);
        assertThat(t.lines()).as(law).containsExactlyElementsOf(lines);
    }

    /** Hold to talk and tap to toggle took a value, two chains and an if. */
    @Test
    void aTapTogglesAndAHoldLastsAsLongAsTheHand() {
        TestDeck t = TestDeck
                .with(button("b", state("off", TestDeck.A_OFF, Chain.of(TestDeck.on("a")), Chain.EMPTY), state("on",
                        TestDeck.A_ON, Chain.of(off("a")), Chain.EMPTY)).withSpringsBack(true));
        work(t, "p 100 r 1000");
        assertThat(t.lines()).as("a tap").containsExactly("A on @0");
        work(t, "p 700 r 1000");
        assertThat(t.lines()).as("held while open: closed meanwhile").containsExactly("A on @0", "A off @1100",
                "A on @1800");
        work(t, "p 100 r 1000 p 800 l 500");
        assertThat(t.lines()).as("a tap closes; a hold that something else ends closes again").endsWith("A off @2800",
                "A on @3900", "A off @4700");
    }

    static Stream<Arguments> guards() {
        return Stream.of(Arguments.of(Guard.Kind.HOLD, "p 500 r 500", List.of()), Arguments.of(Guard.Kind.HOLD,
                "p 900 r 10", List.of("A on @800", "A off @900")),
                Arguments.of(Guard.Kind.HOLD, "p 400 l 1000", List
                        .of()),
                Arguments.of(Guard.Kind.TWICE, "p 50 r 3000 p 50 r 3000", List.of()), Arguments.of(
                        Guard.Kind.TWICE, "p 50 r 500 p 50 r 3000", List.of("A on @550", "A off @600")),
                Arguments.of(Guard.Kind.TWICE, "p 50 r l p 50 r 3000", List.of()));
    }

    @ParameterizedTest(name = "{0}: {1}")
    @MethodSource("guards")
    void guardsKeepFromPressesByAccident(Guard.Kind kind, String hands, List<String> lines) {
        TestDeck t = TestDeck.with(answering(on(Gesture.PRESS, TestDeck.on("a"), Gesture.RELEASE, off("a"))).withGuard(
                new Guard(kind, 0)));
        work(t, hands);
        assertThat(t.lines()).containsExactlyElementsOf(lines);
    }

    @Test
    void aLongPressMayRunThePressToo() {
        TestDeck t = TestDeck.with(answering(on(Gesture.PRESS, TestDeck.on("a"), Gesture.LONG_PRESS, TestDeck.on(
                "b"))).withPressAlso(true));
        work(t, "p 700 r");
        assertThat(t.lines()).containsExactly("A on @0", "B on @500");
    }

    @Test
    void turningSaysHowFarAndWhichWay() {
        Step nudge = new GearStep.Nudge("gear", "level", Map.of(), "level", new Arg.Computed("{turn} * 5"), false,
                StepOptions.PLAIN, Map.of());
        Step fine = new GearStep.Nudge("gear", "level", Map.of(), "level", new Arg.Computed("{turn}"), false,
                StepOptions.PLAIN,
                Map.of());
        TestDeck t = TestDeck.with(answering(on(Gesture.TURN, nudge, Gesture.TURN_FINE, fine)));
        t.post(new Event.Came("gear", "level", Value.of(50)));
        t.post(new Event.Turned("b", 2, false, "test"));
        t.post(new Event.Turned("b", -3, true, "test"));
        assertThat(t.lines()).containsExactly("Level 60\u00a0% @0", "Level 57\u00a0% @0");
    }

    @Test
    void fastNudgesAddUpBeforeTheGearHasSaidSo() {
        TestDeck t = TestDeck.with(answering(on(Gesture.TURN, new GearStep.Nudge("gear", "level", Map.of(), "level",
                new Arg.Computed("{turn}"), false, StepOptions.PLAIN, Map.of()))));
        t.post(new Event.Came("gear", "level", Value.of(50)));
        t.obeys = false;
        for (int i = 0; i < 5; i++) {
            t.post(new Event.Turned("b", 1, false, "test"));
        }
        assertThat(t.lines()).last().isEqualTo("Level 55\u00a0% @0");
    }

    @Test
    void aStateFallsBackAfterItsTime() {
        State calm = state("calm", null, Chain.EMPTY, Chain.EMPTY);
        State loud = state("loud", null, Chain.EMPTY, Chain.EMPTY).withThen(State.STAY).withFallBack(
                new State.FallBack("calm", 3000));
        TestDeck t = TestDeck.with(button("b", calm, loud));
        t.click("b");
        t.pass(2999);
        assertThat(t.shows("b").state()).isEqualTo(1);
        t.pass(1);
        assertThat(t.shows("b").state()).isZero();
    }

    @Test
    void aRandomSuccessorIsAnotherState() {
        State[] states = new State[4];
        for (int i = 0; i < 4; i++) {
            states[i] = state("s" + i, null, Chain.EMPTY, Chain.EMPTY).withThen(State.RANDOM);
        }
        TestDeck t = TestDeck.with(button("b", states));
        int[] seen = new int[4];
        int before = 0;
        for (int i = 0; i < 400; i++) {
            t.click("b");
            int now = t.shows("b").state();
            assertThat(now).isNotEqualTo(before);
            seen[now]++;
            before = now;
        }
        assertThat(java.util.Arrays.stream(seen).min().orElse(0)).isGreaterThan(60);
    }

    @Test
    void aPressThatRestartsIsOnItsWayLikeTheFirst() {
        TestDeck t = TestDeck.with(button("b", state("off", TestDeck.A_OFF, Chain.of(TestDeck.on("a"), pause(500)),
                Chain.EMPTY), state("on", TestDeck.A_ON, Chain.EMPTY, Chain.EMPTY)));
        t.obeys = false;
        t.click("b");
        t.pass(100);
        t.click("b");
        assertThat(t.shows("b").onItsWay()).isEqualTo(1);
        t.post(new Event.Came("gear", "on/a", Value.of(true)));
        assertThat(t.shows("b")).isEqualTo(new Happening.Shows("b", 1, -1, false));
    }

    @Test
    void aGestureThatTheStateDoesNotAnswerIsOverAtOnce() {
        for (Gesture gesture : Gesture.values()) {
            TestDeck t = TestDeck.with(answering(Map.of()));
            t.post(new Event.Perform("b", gesture, "test"));
            assertThat(t.all(Happening.Rested.class)).as(gesture.id()).hasSize(1);
        }
    }

    @Test
    void goingLiveRunsTheStartChains() {
        TestDeck t = TestDeck.with(button("b", state(Chain.of(TestDeck.on("a")))).withOnStart(Chain.of(off("a"))));
        t.post(new Event.WentLive());
        assertThat(t.lines()).containsExactly("A off @0");
        assertThat(t.ran().getFirst().step()).isEqualTo("on-start/0");
    }

    /** Whatever hands do, and whatever else ends a hold: as many releases as presses that ran, and never two running. */
    @Property(tries = 300)
    void everyHoldEndsExactlyOnce(@ForAll @Size(max = 40) List<@IntRange(max = 7) Integer> hands) {
        TestDeck t = TestDeck.with(answering(on(Gesture.PRESS, level(1), Gesture.RELEASE, level(2), Gesture.LONG_PRESS,
                level(3))).withPressAlso(true), button("other", state(Chain.of(pause(10)))));
        for (int h : hands) {
            switch (h) {
                case 0, 1 -> t.press("b");
                case 2 -> t.release("b");
                case 3 -> t.post(new Event.LetGo());
                case 4 -> t.post(new Event.StopAll());
                case 5 -> t.pass(600);
                case 6 -> t.pass(40);
                default -> t.click("other");
            }
        }
        t.release("b");
        List<String> ran = t.lines().stream().map(l -> l.substring(6, 7)).filter(l -> !l.equals("3")).toList();
        for (int i = 0; i < ran.size(); i++) {
            assertThat(ran.get(i)).as("line %d of %s", i, ran).isEqualTo(i % 2 == 0 ? "1" : "2");
        }
        assertThat(ran.size() % 2).isZero();
    }

    private static int shown(TestDeck t) {
        return t.happened.stream().filter(Happening.Shows.class::isInstance).map(Happening.Shows.class::cast).toList()
                .getLast().state();
    }

    private static Button row(Button.Busy busy) {
        return new Button("b", "b", 0, 0, 3, 1, busy,
                List.of(state("one", null, Chain.of(TestDeck.on("a")), Chain.EMPTY), state(
                        "two", null, Chain.of(pause(100), TestDeck.on("b")), Chain.EMPTY),
                        state("three", null, Chain.of(PING),
                                Chain.EMPTY)),
                Map.of()).withControl(new Control.Row());
    }

    @Test
    void oneOfARowIsChosenAndShownWhicheverItIs() {
        TestDeck t = TestDeck.with(row(Button.Busy.RESTART));
        t.post(new Event.Chosen("b", 2, "mouse"));
        assertThat(t.lines()).containsExactly("Ping @0");
        assertThat(shown(t)).isEqualTo(2);
        t.post(new Event.Chosen("b", 1, "mouse"));
        t.post(new Event.Chosen("b", 0, "mouse"));
        t.pass(500);
        assertThat(t.lines()).as("the second one was stopped by the third").containsExactly("Ping @0", "A on @0");
        assertThat(shown(t)).isZero();
        t.post(new Event.Chosen("b", 7, "mouse"));
        assertThat(shown(t)).isZero();
    }

    @Test
    void aRowIsTurnedToItsNeighboursAndNoFurther() {
        TestDeck t = TestDeck.with(row(Button.Busy.OVERLAP));
        t.post(new Event.Turned("b", -1, false, "knob"));
        assertThat(t.lines()).isEmpty();
        t.post(new Event.Turned("b", 5, false, "knob"));
        assertThat(t.lines()).containsExactly("Ping @0");
        assertThat(shown(t)).isEqualTo(2);
    }
}
