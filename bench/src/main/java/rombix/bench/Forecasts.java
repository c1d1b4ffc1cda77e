package rombix.bench;

import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import rombix.bench.measure.BenchGear;
import rombix.bench.measure.Figure;
import rombix.bench.measure.Measured;
import rombix.core.board.Rig;
import rombix.core.chain.Chain;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.event.Known;
import rombix.core.forecast.Forecast;
import rombix.core.forecast.Forecaster;

/** A thousand runs of a forecast, with chance; and whether its time grows as the steps do. */
final class Forecasts implements Measured {
    private static final int RUNS = 1000;
    private static final int ROUNDS = 8;
    private static final double SECOND_MILLIS = 1000;
    private static final ZonedDateTime NOW = ZonedDateTime.of(2026, 6, 1, 21, 0, 0, 0, ZoneOffset.UTC);

    @Override
    public List<Figure> measure() {
        double fifty = Double.MAX_VALUE;
        double twoHundred = Double.MAX_VALUE;
        for (int i = 0; i < ROUNDS; i++) {
            fifty = Math.min(fifty, time(50));
            twoHundred = Math.min(twoHundred, time(200));
        }
        return List.of(Figure.of("forecast", fifty, SECOND_MILLIS, "ms", 1), Figure.of("forecast-linear", twoHundred,
                4 * fifty, "ms", 1.25));
    }

    /** Milliseconds for a thousand runs of so many steps: waits by chance, commands, and picks among them. */
    private static double time(int steps) {
        List<Step> all = new ArrayList<>();
        for (int i = 0; i < steps / 5; i++) {
            all.add(new Step.Wait(10, 300L, null, null, null, StepOptions.PLAIN, Map.of()));
            all.add(BenchGear.go(0, i));
            all.add(BenchGear.go(1, i));
            all.add(new Step.Pick(Step.Pick.Way.RANDOM, List.of(new Step.Choice("a", 2, Chain.of(BenchGear.go(0, 1))),
                    new Step.Choice("b", 1, Chain.of(BenchGear.go(1, 2)))), StepOptions.PLAIN, Map.of()));
        }
        Rig rig = BenchGear.osc(List.of("127.0.0.1:9", "127.0.0.1:9"), new Chain(all));
        long start = System.nanoTime();
        Forecast f = Forecaster.of(rig, Known.NOTHING, NOW, "b", new Chain(all), "press", RUNS, 1);
        double millis = (System.nanoTime() - start) / 1e6;
        if (f.runs() != RUNS) {
            throw new IllegalStateException("it ran " + f.runs() + " times");
        }
        return millis;
    }
}
