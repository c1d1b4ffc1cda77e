package rombix.core.forecast;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.core.engine.TestDeck.level;
import static rombix.core.engine.TestDeck.off;
import static rombix.core.engine.TestDeck.on;
import static rombix.core.engine.TestDeck.pause;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import rombix.core.board.Rig;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.GearStep;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.engine.TestDeck;
import rombix.core.event.Known;
import rombix.core.value.Value;

class ShadowingTest {
    private static final long MILLI = 1_000_000L;
    private static final Rig RIG = TestDeck.rig(TestDeck.button("b", TestDeck.state(Chain.EMPTY)));
    private final Shadowing shadowing = new Shadowing(RIG);

    private void lamp(String lamp, boolean on, long atMillis) {
        shadowing.changed("gear", "on/" + lamp, Value.of(on), atMillis * MILLI);
    }

    private static Step fade(double to, long ms) {
        return new GearStep.Fade("gear", "level", Map.of(), "level", null, Arg.of(to), ms, GearStep.Fade.Curve.LINEAR,
                StepOptions.PLAIN, Map.of());
    }

    @Test
    void movesBecomeStepsWithTheirTiming() {
        lamp("a", true, 5000);
        lamp("b", true, 5030);
        lamp("a", false, 6512);
        assertThat(shadowing.steps()).containsExactly(on("a"), on("b"), pause(1500), off("a"));
    }

    @Test
    void theRideOfAFaderBecomesOneFade() {
        shadowing.at("gear", "level", Value.of(0));
        for (int i = 1; i <= 40; i++) {
            shadowing.changed("gear", "level", Value.of(i * 2 + (i % 3) * 0.5), i * 25 * MILLI);
        }
        List<Step> steps = shadowing.steps();
        assertThat(steps).hasSize(1);
        assertThat(steps.getFirst()).isEqualTo(fade(80.5, 1000));
    }

    @Test
    void aRideWithABendBecomesTwo() {
        shadowing.at("gear", "level", Value.of(0));
        for (int i = 1; i <= 40; i++) {
            shadowing.changed("gear", "level", Value.of(i <= 20 ? i * 4 : 80 - (i - 20) * 2), i * 25 * MILLI);
        }
        assertThat(shadowing.steps()).containsExactly(fade(80, 500), fade(40, 500));
    }

    @Test
    void whatIsDoneDuringARideStandsBesideIt() {
        shadowing.at("gear", "level", Value.of(0));
        for (int i = 1; i <= 40; i++) {
            shadowing.changed("gear", "level", Value.of(i), i * 50 * MILLI);
        }
        lamp("a", true, 1050);
        assertThat(shadowing.steps()).containsExactly(new Step.Together(List.of(Chain.of(fade(40, 2000)), Chain.of(
                pause(1050), on("a")))));
    }

    @Test
    void aSnapshotIsTheStepsThatBringItAbout() {
        Known known = new Known(Map.of("gear", Map.of("level", Value.of(42), "on/a", Value.of(true), "on/b", Value.of(
                false))), Map.of(), Map.of());
        Snapshot all = Snapshot.ofGear(RIG, known, List.of("gear"));
        assertThat(all.steps()).containsExactly(on("a"), off("b"), level(42));
        assertThat(Snapshot.of(RIG, known, List.of("gear:level")).steps()).containsExactly(level(42));
    }
}
