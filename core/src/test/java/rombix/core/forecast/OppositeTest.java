package rombix.core.forecast;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.core.engine.TestDeck.PING;
import static rombix.core.engine.TestDeck.level;
import static rombix.core.engine.TestDeck.off;
import static rombix.core.engine.TestDeck.on;
import static rombix.core.engine.TestDeck.pause;

import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.Test;
import rombix.core.board.Board.BoardValue;
import rombix.core.board.Rig;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.DeckStep;
import rombix.core.chain.GearStep;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.engine.TestDeck;
import rombix.core.event.Known;
import rombix.core.value.Value;

class OppositeTest {
    private static final Known KNOWN = new Known(Map.of("gear", Map.of("level", Value.of(10), "on/a", Value.of(false),
            "on/b", Value.of(false))), Map.of(), Map.of());
    private static final Rig RIG = TestDeck.rig(b -> b.withValues(List.of(new BoardValue("n", "N", Value.of(3)))),
            TestDeck.button("b", TestDeck.state(Chain.EMPTY)));

    private static Opposite opposite(Step... steps) {
        return Opposite.of(RIG, KNOWN, Chain.of(steps), "press");
    }

    private static Step fade(Arg from, double to) {
        return new GearStep.Fade("gear", "level", Map.of(), "level", from, Arg.of(to), 800, GearStep.Fade.Curve.S_CURVE,
                StepOptions.PLAIN, Map.of());
    }

    @Test
    void stepsAreReversedAndEachReplacedByWhatUndoesIt() {
        assertThat(opposite(on("a"), pause(700), level(60), level(80)).chain()).isEqualTo(Chain.of(level(60), level(
                10), pause(700), off("a")));
    }

    @Test
    void fadesGoBackNudgesTurnRoundAndValuesReturn() {
        Step nudge = new GearStep.Nudge("gear", "level", Map.of(), "level", Arg.of(5), false, StepOptions.PLAIN,
                Map.of());
        Step back = new GearStep.Nudge("gear", "level", Map.of(), "level", Arg.of(-5), false, StepOptions.PLAIN,
                Map.of());
        Step set = new DeckStep.Set("n", Arg.of(9), StepOptions.PLAIN, Map.of());
        assertThat(opposite(fade(null, 70), nudge, set).chain()).isEqualTo(Chain.of(new DeckStep.Set("n", Arg.of(3),
                StepOptions.PLAIN, Map.of()), back, fade(null, 10)));
    }

    @Test
    void whatHasNoOppositeIsListed() {
        Step say = new DeckStep.Say("hello", StepOptions.PLAIN, Map.of());
        Step maybe = on("b").withHow(new StepOptions(false, null, new rombix.core.chain.Condition.Computed("1 == 1"),
                StepOptions.Fail.GO_ON, 0, 0, null));
        Opposite o = opposite(PING, say, new Step.Pick(Step.Pick.Way.RANDOM, List.of(new Step.Choice(null, 1, Chain.of(
                on("a")))), StepOptions.PLAIN, Map.of()), maybe, on("a"));
        assertThat(o.chain()).isEqualTo(Chain.of(off("a")));
        assertThat(o.left()).extracting(Opposite.Left::step).containsExactly("press/0", "press/1", "press/2",
                "press/3");
        assertThat(o.left()).extracting(Opposite.Left::why).allMatch(w -> !w.isBlank());
    }

    @Test
    void whatWasNotKnownBeforeIsListed() {
        Opposite o = Opposite.of(RIG, Known.NOTHING, Chain.of(level(60), on("a")), "press");
        assertThat(o.chain()).isEqualTo(Chain.of(off("a")));
        assertThat(o.left().getFirst().why()).isEqualTo("its previous state isn't known");
    }

    @Property(tries = 300)
    void theOppositeOfTheOppositeIsTheChain(@ForAll("reversible") Chain chain) {
        Opposite once = Opposite.of(RIG, KNOWN, chain, "press");
        assertThat(once.left()).isEmpty();
        Opposite twice = Opposite.of(RIG, after(KNOWN, chain), once.chain(), "press");
        assertThat(twice.chain()).isEqualTo(chain);
    }

    @Property(tries = 200)
    void theChainAndThenItsOppositeLeavesEverythingAsItWas(@ForAll("reversible") Chain chain) {
        List<Step> both = new ArrayList<>(chain.steps());
        both.addAll(Opposite.of(RIG, KNOWN, chain, "press").chain().steps());
        assertThat(after(KNOWN, new Chain(both)).readings()).isEqualTo(KNOWN.readings());
    }

    /** What is known once a chain has run on twins. */
    private static Known after(Known known, Chain chain) {
        Forecast f = Forecaster.of(RIG, known, ZonedDateTime.of(2026, 1, 1, 0, 0, 0, 0, ZoneOffset.UTC), "b", chain,
                "press", 1, 1);
        Map<String, Value> gear = new java.util.HashMap<>(known.readings().get("gear"));
        f.changes().forEach(c -> gear.put(c.reading(), c.after().getFirst().value()));
        return new Known(Map.of("gear", gear), Map.of(), Map.of());
    }

    /** Chains in which every step changes something, so that nothing is lost. */
    @Provide
    Arbitrary<Chain> reversible() {
        return Arbitraries.integers().between(0, 5).list().ofMaxSize(12).map(kinds -> {
            List<Step> steps = new ArrayList<>();
            boolean a = false;
            boolean b = false;
            int level = 10;
            for (int kind : kinds) {
                switch (kind) {
                    case 0, 1 -> {
                        steps.add(a ? off("a") : on("a"));
                        a = !a;
                    }
                    case 2 -> {
                        steps.add(b ? off("b") : on("b"));
                        b = !b;
                    }
                    case 3 -> {
                        level = (level + 37) % 101;
                        steps.add(level(level));
                    }
                    case 4 -> {
                        level = (level + 11) % 101;
                        steps.add(fade(null, level));
                    }
                    default -> steps.add(pause(100));
                }
            }
            return new Chain(steps);
        });
    }
}
