package rombix.core.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import net.jqwik.api.constraints.LongRange;
import rombix.core.chain.Chain;
import rombix.core.chain.GearStep;
import rombix.core.chain.Step;

class DueTimesLawTest {

    /** However late each step is run, each is due when the waits before it say: lateness never adds up. */
    @Property(tries = 200)
    void dueTimesNeverDrift(@ForAll("chains") Chain chain, @ForAll @LongRange(min = 0, max = 5_000_000) long late) {
        TestDeck t = TestDeck.with(TestDeck.button("b", TestDeck.state(chain)));
        t.press("b");
        t.pass(60_000, late);
        List<Long> expected = new ArrayList<>();
        expect(chain, 0, expected);
        expected.sort(null);
        assertThat(t.ran().stream().map(l -> l.dueNanos() / 1_000_000).sorted().toList()).isEqualTo(expected);
        assertThat(t.deck.idle()).isTrue();
    }

    /** What a chain means, told in the simplest way. */
    private static long expect(Chain chain, long start, List<Long> due) {
        long now = start;
        for (Step step : chain.steps()) {
            switch (step) {
                case GearStep.Do _ -> due.add(now);
                case Step.Wait w -> now += w.ms();
                case Step.Together together -> {
                    long end = now;
                    for (Chain c : together.chains()) {
                        end = Math.max(end, expect(c, now, due));
                    }
                    now = end;
                }
                default -> throw new AssertionError(step);
            }
        }
        return now;
    }

    @Provide
    Arbitrary<Chain> chains() {
        return chain(3);
    }

    private static Arbitrary<Chain> chain(int depth) {
        Arbitrary<Step> simple = Arbitraries.oneOf(Arbitraries.integers().between(0, 100).map(TestDeck::level),
                Arbitraries.longs().between(0, 400).map(Step.Wait::new));
        Arbitrary<Step> step = depth == 0
                ? simple
                : Arbitraries.frequencyOf(net.jqwik.api.Tuple.of(4, simple),
                        net.jqwik.api.Tuple.of(1, chain(depth - 1).list().ofMaxSize(3).map(Step.Together::new)));
        return step.list().ofMaxSize(6).map(Chain::new);
    }
}
