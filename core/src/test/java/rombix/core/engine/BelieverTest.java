package rombix.core.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.PriorityQueue;
import java.util.function.LongConsumer;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import net.jqwik.api.Tuple;
import rombix.core.board.Board.BoardValue;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.DeckStep;
import rombix.core.chain.GearStep;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.event.Happening;
import rombix.core.event.Known;
import rombix.core.value.Value;

/** The engine believes what a tiny model says: random chains run the same on both, line by line. */
class BelieverTest {

    /** Chains as functions that are handed what comes next. Times are milliseconds. */
    private static final class Model {
        private record Later(long at, long order, LongConsumer what) {
        }

        private final PriorityQueue<Later> queue = new PriorityQueue<>(Comparator.comparingLong(Later::at)
                .thenComparingLong(Later::order));
        private final List<String> lines = new ArrayList<>();
        private final Map<Step, Integer> turns = new IdentityHashMap<>();
        private long order;
        private int n;

        List<String> run(Chain chain) {
            chain(chain, 0, 0, 0, _ -> {
            });
            for (Later l = queue.poll(); l != null; l = queue.poll()) {
                l.what().accept(l.at());
            }
            return lines;
        }

        private void later(long at, LongConsumer what) {
            queue.add(new Later(at, order++, what));
        }

        private void chain(Chain chain, int i, int count, long now, LongConsumer then) {
            if (i == chain.steps().size()) {
                then.accept(now);
                return;
            }
            LongConsumer next = end -> chain(chain, i + 1, count, end, then);
            switch (chain.steps().get(i)) {
                case GearStep.Do d -> {
                    String formula = ((Arg.Computed) d.args().get("level")).formula();
                    int level = formula.equals("{n}")
                            ? n
                            : formula.equals("{count}") ? count : Integer.parseInt(formula);
                    lines.add("Level " + Math.min(100, level) + "\u00a0% @" + now);
                    next.accept(now);
                }
                case Step.Wait w -> later(now + w.ms(), next);
                case DeckStep.Set _ -> {
                    n++;
                    next.accept(now);
                }
                case Step.If f -> chain(n % 2 == 0 ? f.then() : f.otherwise(), 0, count, now, next);
                case Step.Pick p -> {
                    int turn = turns.merge(p, 1, Integer::sum) - 1;
                    chain(p.choices().get(turn % p.choices().size()).chain(), 0, count, now, next);
                }
                case Step.Together t -> {
                    int[] left = {t.chains().size()};
                    long[] last = {now};
                    if (left[0] == 0) {
                        next.accept(now);
                    }
                    for (Chain c : t.chains()) {
                        chain(c, 0, count, now, end -> {
                            last[0] = Math.max(last[0], end);
                            if (--left[0] == 0) {
                                next.accept(last[0]);
                            }
                        });
                    }
                }
                case Step.Repeat r -> round(r, 0, now, now, count, next);
                default -> throw new AssertionError(chain);
            }
        }

        private void round(Step.Repeat r, int round, long start, long now, int outer, LongConsumer then) {
            int times = (int) ((Arg.Constant) r.times()).value().asNumber();
            if (round == times) {
                then.accept(now);
                return;
            }
            chain(r.chain(), 0, round, now, end -> {
                long due = r.every() == null ? end : start + (round + 1) * r.every();
                if (due > end && round + 1 < times) {
                    later(due, at -> round(r, round + 1, start, at, outer, then));
                } else {
                    round(r, round + 1, start, end, outer, then);
                }
            });
        }
    }

    @Property(tries = 500)
    void runsAsTheModelSays(@ForAll("chains") Chain chain) {
        TestDeck t = TestDeck.playing(TestDeck.rig(b -> b.withValues(List.of(new BoardValue("n", "N", Value.of(0)))),
                TestDeck.button("b", TestDeck.state(chain))));
        t.press("b");
        t.pass(3_600_000);
        assertThat(t.deck.idle()).isTrue();
        assertThat(t.lines()).isEqualTo(new Model().run(chain));
    }

    /** And so does the forecast, which is the same engine on another clock. */
    @Property(tries = 100)
    void isForecastAsItRuns(@ForAll("chains") Chain chain) {
        TestDeck t = TestDeck.playing(TestDeck.rig(b -> b.withValues(List.of(new BoardValue("n", "N", Value.of(0)))),
                TestDeck.button("b", TestDeck.state(chain))));
        Map<String, Value> said = new HashMap<>();
        t.all(Happening.Came.class).forEach(c -> said.put(c.reading(), c.value()));
        Known known = new Known(Map.of("gear", said), Map.of(), Map.of("n", Value.of(0)));
        var forecast = rombix.core.forecast.Forecaster.of(TestDeck.rig(b -> b.withValues(List.of(new BoardValue("n",
                "N", Value.of(0)))), TestDeck.button("b", TestDeck.state(chain))), known, t.clock.wall(), "b",
                chain, "press", 10, 1);
        t.press("b");
        t.pass(3_600_000);
        Map<String, Long> first = new HashMap<>();
        t.ran().forEach(l -> first.putIfAbsent(l.step(), l.dueNanos() / 1_000_000));
        forecast.steps().stream().filter(s -> first.containsKey(s.step())).forEach(s -> assertThat((long) s.start()
                .least()).isEqualTo(first.get(s.step())));
        assertThat(forecast.steps().stream().map(s -> s.step())).containsAll(first.keySet());
        t.ran().stream().filter(l -> l.command().equals("level")).reduce((_, b) -> b).ifPresent(last -> {
            Value after = t.all(Happening.Came.class).getLast().value();
            forecast.changes().forEach(c -> assertThat(c.after().getFirst().value()).isEqualTo(after));
        });
    }

    @Provide
    Arbitrary<Chain> chains() {
        return chain(3);
    }

    private static Arbitrary<Chain> chain(int depth) {
        Arbitrary<Step> doing = Arbitraries.of("{n}", "{count}", "7", "30")
                .map(f -> new GearStep.Do("gear", "level", Map.of(
                        "level", new Arg.Computed(f)), null, StepOptions.PLAIN, Map.of()));
        // A count is known only within a repeat; there is always one around.
        Arbitrary<Step> simple = Arbitraries.oneOf(doing, Arbitraries.longs().between(0, 40).map(w -> new Step.Wait(w
                * 10)),
                Arbitraries.just(1).map(_ -> new DeckStep.Set("n", new Arg.Computed("{n} + 1"), StepOptions.PLAIN,
                        Map
                                .of())));
        if (depth == 0) {
            return simple.list().ofMaxSize(4).map(Chain::new);
        }
        Arbitrary<Chain> inner = chain(depth - 1);
        Arbitrary<Step> nested = Arbitraries.oneOf(inner.list().ofMaxSize(3).map(Step.Together::new),
                inner.list().ofMinSize(1).ofMaxSize(3).map(cs -> new Step.Pick(Step.Pick.Way.IN_TURN, cs.stream().map(
                        c -> new Step.Choice(null, 1, c)).toList(), StepOptions.PLAIN, Map.of())),
                inner.list().ofSize(2)
                        .map(cs -> new Step.If(new rombix.core.chain.Condition.Computed("{n} % 2 == 0"), cs.get(0), cs
                                .get(1), StepOptions.PLAIN, Map.of())),
                Arbitraries.integers().between(0, 3)
                        .flatMap(times -> Arbitraries.of(-1L, 50L, 200L).flatMap(every -> inner
                                .map(c -> new Step.Repeat(Arg.of(times), null, every < 0
                                        ? null
                                        : every, "count", c, StepOptions.PLAIN, Map.of())))));
        Arbitrary<Chain> steps = Arbitraries.frequencyOf(Tuple.of(3, simple), Tuple.of(2, nested)).list().ofMaxSize(5)
                .map(Chain::new);
        return depth < 3
                ? steps
                : steps.map(
                        c -> Chain.of(new Step.Repeat(Arg.of(1), null, null, "count", c, StepOptions.PLAIN, Map.of())));
    }
}
