package rombix.core.trust;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.params.provider.Arguments.arguments;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Rig;
import rombix.core.board.Schedule;
import rombix.core.board.State;
import rombix.core.board.Trigger;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.Condition;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.edit.Edits;
import rombix.core.edit.GearEdits;
import rombix.core.store.BoardFile;
import rombix.core.twin.Order;
import rombix.core.twin.Twin;
import rombix.core.value.Value;

/** Boards that hide a program where nobody looks, with the card that ships. */
class HostileBoardsTest {
    private static final String EVIL = "/tmp/evil";
    private static final Step RUN = new GearStep.Do("computer", "run", Map.of("program", Value.of(EVIL)));
    private static final Condition NEVER = new Condition.Computed("1 > 2");
    private static Rig demo;

    @BeforeAll
    static void read() throws Exception {
        demo = BoardFile.read(Path.of("../demo/star-night.json"));
    }

    private static Arguments door(String name, UnaryOperator<Board> edit) {
        return arguments(name, edit);
    }

    private static UnaryOperator<Board> button(UnaryOperator<Button> edit) {
        return b -> Edits.button(b, "next-cue", edit);
    }

    private static UnaryOperator<Board> press(Step... steps) {
        return b -> Edits.chain(b, "next-cue", 0, Gesture.PRESS, _ -> Chain.of(steps));
    }

    private static UnaryOperator<Board> on(Gesture gesture) {
        return b -> Edits.chain(b, "next-cue", 0, gesture, _ -> Chain.of(RUN));
    }

    private static Step wait(StepOptions how) {
        return new Step.Wait(1).withHow(how);
    }

    static Stream<Arguments> doors() {
        UnaryOperator<Board> named = b -> Edits.namedChain(Edits.addNamedChain(b, "Tidy up"), "tidy-up", _ -> Chain.of(
                RUN));
        return Stream.of(door("in the part of a chain that always runs", b -> Edits.chain(b, "next-cue", 0,
                Gesture.PRESS, _ -> new Chain(List.of(), List.of(RUN)))),
                door("in place of a step that fails", press(wait(StepOptions.PLAIN.withFail(StepOptions.Fail.INSTEAD)
                        .withInstead(Chain.of(RUN))))),
                door("under a condition that never holds", press(new Step.If(NEVER, Chain.of(RUN), Chain.EMPTY,
                        StepOptions.PLAIN, Map.of()))),
                door("in a step that is switched off", press(RUN.withHow(StepOptions.PLAIN.withOff(true)))),
                door("for a choice that hardly ever comes", press(new Step.Pick(Step.Pick.Way.RANDOM, List.of(
                        new Step.Choice("a", 1e9, Chain.EMPTY), new Step.Choice("b", 1e-9, Chain.of(RUN))),
                        StepOptions.PLAIN, Map.of()))),
                door("thirty chains deep", press(deep(30))),
                door("in a chain with a name that nothing uses", named),
                door("in a state that nobody has seen", button(n -> n.withStates(List.of(n.states().getFirst(), State
                        .named("two").withOn(Map.of(Gesture.PRESS, Chain.of(RUN))))))),
                door("when the board goes live", button(n -> n.withOnStart(Chain.of(RUN)))),
                door("by the clock", b -> on(Gesture.PRESS).apply(button(n -> n.withTriggers(List.of(
                        new Trigger.Clock(Schedule.of("every 1 min"), true)))).apply(b))),
                door("when the board is opened", b -> on(Gesture.PRESS).apply(button(n -> n.withTriggers(List.of(
                        new Trigger.When(Trigger.When.What.BOARD_OPENED, null)))).apply(b))),
                door("with a fine turn", on(Gesture.TURN_FINE)), door("while it is held", on(Gesture.HELD)));
    }

    private static Step deep(int depth) {
        return depth == 0
                ? RUN
                : new Step.ForAWhile(Chain.of(deep(depth - 1)), 10, StepOptions.PLAIN, Map.of());
    }

    /** The demo board at this computer itself. */
    private static Board here() {
        return GearEdits.change(demo.board(), "computer", g -> g.withLink(g.link().reached(g.link().protocol(),
                "here")));
    }

    private static Order run(Rig rig) {
        Twin twin = rig.twin("computer").orElseThrow();
        return twin.order(twin.card().command("run").orElseThrow(), Map.of("program", Value.of(EVIL)),
                Twin.Readings.NONE);
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("doors")
    void aProgramIsAskedForWhereverItStandsAndRunsOnlyWithLeave(String name, UnaryOperator<Board> edit) {
        Rig rig = demo.with(edit.apply(here()));
        assertThat(Asks.of(rig, Set.of())).anyMatch(a -> a.kind() == Ask.Kind.WORKS_HERE && a.words().contains(EVIL));
        Order order = run(rig);
        assertThat(Grants.of(rig).allow("computer", order.packets().getFirst())).isTrue();
        assertThat(Grants.NONE.allow("computer", order.packets().getFirst())).isFalse();
        assertThat(Grants.of(demo.with(here())).allow("computer", order.packets().getFirst())).isFalse();
    }

    /** What a formula gives is known only when its step runs: so the formula itself is what is asked for. */
    @Test
    void aProgramThatAFormulaNamesIsAskedForAsTheFormula() {
        Step computed = new GearStep.Do("computer", "run", Map.of("program", new Arg.Computed("\"/tmp/ev\" + \"il\"")),
                null, StepOptions.PLAIN, Map.of());
        Rig rig = demo.with(press(computed).apply(here()));
        assertThat(Asks.of(rig, Set.of())).anyMatch(a -> a.kind() == Ask.Kind.WORKS_HERE && a.words().contains(
                "= \"/tmp/ev\" + \"il\""));
        assertThat(Grants.of(demo.with(here())).allow("computer", run(rig).packets().getFirst())).isFalse();
    }

    /** A board asked for a password, and told it to a host of its own. */
    @Test
    void aSecretIsAskedForWithTheHostThatItGoesTo() {
        Rig rig = demo.with(GearEdits.change(demo.board(), "house", g -> g.withLink(g.link().reached(g.link()
                .protocol(), "evil.example:1883").withSecret("bank"))));
        assertThat(Asks.of(rig, Set.of())).anyMatch(a -> a.kind() == Ask.Kind.REACHES && a.words().contains("bank")
                && a.words().contains("evil.example:1883"));
    }
}
