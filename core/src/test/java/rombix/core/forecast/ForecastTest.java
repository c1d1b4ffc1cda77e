package rombix.core.forecast;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static rombix.core.engine.TestDeck.level;
import static rombix.core.engine.TestDeck.off;
import static rombix.core.engine.TestDeck.on;
import static rombix.core.engine.TestDeck.pause;

import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import rombix.core.board.Rig;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.DeckStep;
import rombix.core.chain.GearStep;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.engine.TestDeck;
import rombix.core.event.Cause;
import rombix.core.event.Known;
import rombix.core.event.Status;
import rombix.core.value.Value;

class ForecastTest {
    private static final ZonedDateTime NOW = ZonedDateTime.of(2026, 6, 1, 21, 0, 0, 0, ZoneOffset.UTC);
    private static final Known KNOWN = new Known(Map.of("gear", Map.of("level", Value.of(10), "on/a", Value.of(false))),
            Map.of(), Map.of());

    private static Forecast forecast(Known known, int runs, Step... steps) {
        Chain chain = Chain.of(steps);
        Rig rig = TestDeck.rig(TestDeck.button("b", TestDeck.state(chain)));
        return Forecaster.of(rig, known, NOW, "b", chain, "press", runs, 5);
    }

    private static Step pick(double heavy, Chain one, Chain other) {
        return new Step.Pick(Step.Pick.Way.RANDOM, List.of(new Step.Choice("one", heavy, one), new Step.Choice("other",
                1, other)), StepOptions.PLAIN, Map.of());
    }

    @Test
    void saysWhenEachStepRunsAndWhatWillDiffer() {
        Forecast f = forecast(KNOWN, 100, on("a"), pause(700), level(60), level(10));
        assertThat(f.runs()).isEqualTo(1);
        assertThat(f.length()).isEqualTo(new Forecast.Span(700, 700, 700));
        assertThat(f.steps()).extracting(Forecast.StepTime::step).containsExactly("press/0", "press/1", "press/2",
                "press/3");
        assertThat(f.steps().get(1).start().least()).isZero();
        assertThat(f.steps().get(1).end().most()).isEqualTo(700);
        assertThat(f.changes()).containsExactly(new Forecast.Change("gear", "on/a", Value.of(false), List.of(
                new Forecast.Outcome(Value.of(true), 1))));
    }

    @Test
    void saysTheOddsWhereThereIsChance() {
        Forecast f = forecast(KNOWN, 4000, pick(3, Chain.of(on("a")), Chain.of(pause(1000), level(60))));
        assertThat(f.runs()).isEqualTo(4000);
        assertThat(f.odds()).extracting(Forecast.Odds::name).containsExactly("one", "other");
        assertThat(f.odds().getFirst().share()).isCloseTo(0.75, within(0.03));
        assertThat(f.length().least()).isZero();
        assertThat(f.length().most()).isEqualTo(1000);
        assertThat(f.length().expected()).isCloseTo(250, within(30.0));
        Forecast.Change lamp = f.changes().stream().filter(c -> c.reading().equals("on/a")).findFirst().orElseThrow();
        assertThat(lamp.after()).extracting(Forecast.Outcome::value).containsExactly(Value.of(true), Value.of(false));
        assertThat(lamp.after().getFirst().share() + lamp.after().getLast().share()).isCloseTo(1, within(1e-9));
        assertThat(f.steps().stream().filter(s -> s.step().equals("press/0/1/1")).findFirst().orElseThrow().share())
                .isCloseTo(0.25, within(0.03));
    }

    @Test
    void findsTwoStepsThatSetOneReadingAtTheSameMoment() {
        Forecast f = forecast(KNOWN, 1, new Step.Together(List.of(Chain.of(pause(200), level(30)), Chain.of(pause(200),
                level(40)))), level(50));
        assertThat(f.clashes()).contains(new Forecast.Clash("gear", "level", "press/0/0/1", "press/0/1/1", 200));
        assertThat(forecast(KNOWN, 1, level(30), pause(1), level(40)).clashes()).isEmpty();
    }

    @Test
    void saysWhichStepsHaveNoGear() {
        Known off = new Known(Map.of(), Map.of("gear", new Status(Status.Phase.OFF, Cause.OTHER, "no answer")),
                Map.of());
        Forecast f = forecast(off, 1, on("a"), pause(10), off("a"));
        assertThat(f.off()).extracting(Forecast.Off::step).containsExactly("press/0", "press/2");
        assertThat(f.changes()).isEmpty();
        assertThat(f.faults()).isEmpty();
    }

    @Test
    void saysWhatFailsAndThatAChainIsEndless() {
        Forecast f = forecast(KNOWN, 3, new GearStep.Do("gear", "level", Map.of("level", new Arg.Computed("1 +")), null,
                StepOptions.PLAIN, Map.of()));
        assertThat(f.faults().getFirst().why()).contains("formula");
        Forecast endless = forecast(KNOWN, 50, new Step.Repeat(null, null, 1000L, "count", Chain.of(on("a")),
                StepOptions.PLAIN, Map.of()));
        assertThat(endless.endless()).isTrue();
        assertThat(endless.runs()).isEqualTo(1);
    }

    @Test
    void takesTheUsualAnswerAndThePresentTime() {
        Step ask = new DeckStep.Ask("Which?", DeckStep.Ask.AnswerType.CHOICE,
                List.of(new Step.Choice("A", 1, Chain.of(on("a"))),
                        new Step.Choice("B", 1, Chain.of(on("b")))),
                null, Value.of(1), null, StepOptions.PLAIN, Map.of());
        Forecast f = forecast(KNOWN, 1, ask, new Step.Wait(0, null, "21:30", null, null, StepOptions.PLAIN, Map.of()));
        assertThat(f.changes()).extracting(Forecast.Change::reading).containsExactly("on/b");
        assertThat(f.length().most()).isEqualTo(30 * 60_000);
    }

    @Test
    void theSameSeedGivesTheSameForecast() {
        Step step = pick(1, Chain.of(on("a")), Chain.of(new Step.Wait(0, 500L, null, null, null, StepOptions.PLAIN, Map
                .of())));
        assertThat(forecast(KNOWN, 50, step)).isEqualTo(forecast(KNOWN, 50, step));
    }

    /** Where nobody knows how the gear is, what is on for a while stayed on in the forecast. */
    @Test
    void whatIsOnForAWhileIsPutBackThoughNobodyKnowsToWhat() {
        Step awhile = new Step.ForAWhile(Chain.of(on("a"), level(60)), 5000, StepOptions.PLAIN, Map.of());
        assertThat(forecast(Known.NOTHING, 1, awhile).changes()).isEmpty();
        assertThat(forecast(Known.NOTHING, 1, awhile, on("b")).changes()).extracting(Forecast.Change::reading)
                .containsExactly("on/b");
    }

    @Test
    void aButtonThatAnotherUsesIsInTheStateThatItIsIn() {
        Rig rig = TestDeck.rig(TestDeck.button("b", TestDeck.state(Chain.of(new DeckStep.Use("c", null,
                rombix.core.chain.Gesture.PRESS, null, Map.of(), StepOptions.PLAIN, Map.of())))), TestDeck.button("c",
                        TestDeck.state("one", null, Chain.of(on("a")), Chain.EMPTY),
                        TestDeck.state("two", null, Chain.of(
                                on("b")), Chain.EMPTY)));
        Known second = new Known(Map.of(), Map.of(), Map.of(), Map.of("c", 1));
        assertThat(Forecaster.of(rig, second, NOW, "b", rig.button("b").orElseThrow().states().getFirst().chain(
                rombix.core.chain.Gesture.PRESS), "press", 1, 5).changes()).extracting(Forecast.Change::reading)
                .containsExactly("on/b");
    }
}
