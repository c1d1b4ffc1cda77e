package rombix.core.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.core.engine.TestDeck.level;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.TreeSet;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.Step.Pick.Way;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.event.Event;
import rombix.core.event.Happening;
import rombix.core.event.Known;
import rombix.core.event.Trace;
import rombix.core.time.SimulatedClock;

/** Chance that people believe. */
class ChanceTest {

    /** What a pick of choices with these weights gives, so many times in a row. */
    private static List<Integer> picked(Way way, double[] weights, int times, long seed) {
        List<Step.Choice> choices = new ArrayList<>();
        for (int i = 0; i < weights.length; i++) {
            choices.add(new Step.Choice(null, weights[i], Chain.of(level(i))));
        }
        Step pick = new Step.Pick(way, choices, StepOptions.PLAIN, Map.of());
        List<Integer> picked = new ArrayList<>();
        SimulatedClock clock = new SimulatedClock();
        Deck deck = Deck.onTwins(clock, new SplittableRandom(seed), h -> {
            if (h instanceof Happening.Picked p) {
                picked.add(p.choice());
            }
        }, Trace.NONE);
        deck.begin(TestDeck.rig(TestDeck.button("b", TestDeck.state(Chain.of(new Step.Repeat(Arg.of(times), null, null,
                "count", Chain.of(pick), StepOptions.PLAIN, Map.of()))))), Known.NOTHING);
        deck.take(new Event.Pressed("b", "test"), 0);
        return picked;
    }

    private static double[] even(int n) {
        return IntStream.range(0, n).mapToDouble(_ -> 1).toArray();
    }

    /** The chi-squared statistic stays below the 0.1 % point for the degrees of freedom at hand. */
    private static void fits(List<Integer> picked, double[] weights, double limit) {
        double sum = java.util.Arrays.stream(weights).sum();
        double chi = 0;
        for (int i = 0; i < weights.length; i++) {
            int choice = i;
            double expected = picked.size() * weights[i] / sum;
            double seen = picked.stream().filter(p -> p == choice).count();
            chi += (seen - expected) * (seen - expected) / expected;
        }
        assertThat(chi).isLessThan(limit);
    }

    @Test
    void weightsCount() {
        fits(picked(Way.RANDOM, new double[]{6, 3, 1}, 20_000, 3), new double[]{6, 3, 1}, 13.8);
        fits(picked(Way.RANDOM, even(4), 20_000, 4), even(4), 16.3);
    }

    @Property(tries = 50)
    void neverTheSameTwiceRunning(@ForAll @IntRange(min = 2, max = 6) int n, @ForAll long seed) {
        List<Integer> picked = picked(Way.NO_REPEAT, even(n), 500, seed);
        for (int i = 1; i < picked.size(); i++) {
            assertThat(picked.get(i)).isNotEqualTo(picked.get(i - 1));
        }
        assertThat(new TreeSet<>(picked)).hasSize(n);
    }

    @Property(tries = 50)
    void shuffledTakesAllBeforeAnyAgainAndNeverRepeatsAcrossTheSeam(@ForAll @IntRange(min = 1, max = 8) int n,
            @ForAll long seed) {
        List<Integer> picked = picked(Way.SHUFFLED, even(n), n * 20, seed);
        for (int round = 0; round < 20; round++) {
            assertThat(new TreeSet<>(picked.subList(round * n, (round + 1) * n))).hasSize(n);
            if (round > 0 && n > 1) {
                assertThat(picked.get(round * n)).isNotEqualTo(picked.get(round * n - 1));
            }
        }
    }

    @Test
    void shuffledOrdersAreAllAsLikely() {
        List<Integer> firsts = new ArrayList<>();
        List<Integer> picked = picked(Way.SHUFFLED, even(4), 40_000, 9);
        for (int i = 0; i < picked.size(); i += 4) {
            firsts.add(picked.get(i));
        }
        fits(firsts, even(4), 16.3);
    }

    @Property(tries = 20)
    void inTurnGoesRound(@ForAll @IntRange(min = 1, max = 6) int n) {
        assertThat(picked(Way.IN_TURN, even(n), 3 * n, 1)).isEqualTo(IntStream.range(0, 3 * n).map(i -> i % n).boxed()
                .toList());
    }

    @Test
    void theSameSeedPicksTheSame() {
        assertThat(picked(Way.RANDOM, even(5), 100, 42)).isEqualTo(picked(Way.RANDOM, even(5), 100, 42)).isNotEqualTo(
                picked(Way.RANDOM, even(5), 100, 43));
    }
}
