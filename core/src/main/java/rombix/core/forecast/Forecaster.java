package rombix.core.forecast;

import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.random.RandomGenerator;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Rig;
import rombix.core.chain.Chain;
import rombix.core.chain.DeckStep;
import rombix.core.engine.Deck;
import rombix.core.event.AsRun;
import rombix.core.event.Event;
import rombix.core.event.Happening;
import rombix.core.event.Known;
import rombix.core.event.Trace;
import rombix.core.forecast.Forecast.Change;
import rombix.core.forecast.Forecast.Clash;
import rombix.core.forecast.Forecast.Fault;
import rombix.core.forecast.Forecast.Odds;
import rombix.core.forecast.Forecast.Off;
import rombix.core.forecast.Forecast.Outcome;
import rombix.core.forecast.Forecast.Span;
import rombix.core.forecast.Forecast.StepTime;
import rombix.core.time.SimulatedClock;
import rombix.core.twin.Order;
import rombix.core.value.Value;

/**
 * Forecasts chains with the engine itself, on twins. Questions are answered with their usual answer, or by chance where
 * they have none. Not safe for use by several threads.
 */
public final class Forecaster {
    /** After so many steps of one run, a chain is taken to be endless. */
    public static final int MAX_STEPS = 20_000;
    private static final long DAY_NANOS = 86_400_000_000_000L;
    private static final double MILLION = 1e6;

    private final Rig rig;
    private final Known known;
    private final ZonedDateTime wall;

    private final Map<String, Times> times = new LinkedHashMap<>();
    private final Map<String, Map<Integer, Counted>> picks = new LinkedHashMap<>();
    private final Map<Reading, Map<Value, Integer>> after = new LinkedHashMap<>();
    private final Map<String, Clash> clashes = new LinkedHashMap<>();
    private final Map<String, Off> off = new LinkedHashMap<>();
    private final Map<String, Counted> faults = new LinkedHashMap<>();
    private final Tally length = new Tally();
    private boolean endless;

    private record Reading(String gear, String reading) {
    }

    private static final class Counted {
        private final String name;
        private int count;

        Counted(String name) {
            this.name = name;
        }
    }

    /** The least, the sum and the most of some figures. */
    private static final class Tally {
        private double least = Double.POSITIVE_INFINITY;
        private double most = Double.NEGATIVE_INFINITY;
        private double sum;
        private int count;

        void add(double x) {
            least = Math.min(least, x);
            most = Math.max(most, x);
            sum += x;
            count++;
        }

        Span span() {
            return count == 0 ? new Span(0, 0, 0) : new Span(least, sum / count, most);
        }
    }

    /** One step's times: those of the present run, and of all runs that are over. */
    private static final class Times {
        private final Tally start = new Tally();
        private final Tally end = new Tally();
        private int ran;
        private double firstStart = Double.NaN;
        private double lastEnd = Double.NaN;

        void runOver() {
            if (!Double.isNaN(firstStart)) {
                start.add(firstStart);
                end.add(Double.isNaN(lastEnd) ? firstStart : lastEnd);
                firstStart = Double.NaN;
                lastEnd = Double.NaN;
            }
        }
    }

    /** Chance that knows whether it was asked. */
    private static final class Asked implements RandomGenerator {
        private final SplittableRandom random;
        private boolean asked;

        Asked(long seed) {
            random = new SplittableRandom(seed);
        }

        @Override
        public long nextLong() {
            asked = true;
            return random.nextLong();
        }
    }

    /**
     * @param known what is known of the gear now
     * @param wall the time of day at the press
     */
    public Forecaster(Rig rig, Known known, ZonedDateTime wall) {
        this.rig = rig;
        this.known = known;
        this.wall = wall;
    }

    /**
     * Forecasts a chain, as it would run for a button.
     *
     * @param name what the places of its steps begin with
     * @param most how many runs at most; a chain without chance is run once
     */
    public static Forecast of(Rig rig, Known known, ZonedDateTime wall, String button, Chain chain, String name,
            int most, long seed) {
        Forecaster forecaster = new Forecaster(rig, known, wall);
        int runs = 0;
        boolean chance = true;
        while (runs < most && chance && !(forecaster.endless && runs > 0)) {
            chance = forecaster.run(runs++, button, chain, name, seed);
        }
        return forecaster.summed(runs);
    }

    /** One run; says whether chance had a part in it. */
    private boolean run(int index, String button, Chain chain, String name, long seed) {
        SimulatedClock clock = new SimulatedClock(wall);
        Asked chance = new Asked(seed * 0x9E3779B97F4A7C15L + index);
        Once once = new Once(chance);
        Deck deck = Deck.onTwins(clock, chance, once, once);
        once.deck = deck;
        deck.begin(rig, known);
        deck.take(new Event.Try(button, chain, name), 0);
        long wait = deck.advance();
        while (wait != Long.MAX_VALUE && !once.tooLong && clock.nanos() + wait <= DAY_NANOS) {
            clock.advance(wait);
            wait = deck.advance();
        }
        if (wait != Long.MAX_VALUE && !deck.idle()) {
            endless = true;
        }
        length.add(once.last / MILLION);
        times.values().forEach(Times::runOver);
        once.readings.forEach((reading, value) -> after.computeIfAbsent(reading, _ -> new LinkedHashMap<>())
                .merge(value, 1, Integer::sum));
        return chance.asked;
    }

    /** Watches one run. */
    private final class Once implements Trace, java.util.function.Consumer<Happening> {
        private final RandomGenerator chance;
        private final Map<Reading, Value> readings = new HashMap<>();
        private final Map<Reading, String> setAt = new HashMap<>();
        private long setAtNanos = Long.MIN_VALUE;
        private @Nullable Deck deck;
        private int steps;
        private long last;
        private boolean tooLong;

        Once(RandomGenerator chance) {
            this.chance = chance;
        }

        @Override
        public void began(long run, String step, long dueNanos) {
            Times t = times.computeIfAbsent(step, _ -> new Times());
            if (Double.isNaN(t.firstStart)) {
                t.firstStart = dueNanos / MILLION;
            }
            t.ran++;
            last = Math.max(last, dueNanos);
            tooLong = ++steps > MAX_STEPS;
        }

        @Override
        public void ended(long run, String step, long dueNanos, boolean failed) {
            Times t = times.computeIfAbsent(step, _ -> new Times());
            t.lastEnd = dueNanos / MILLION;
            last = Math.max(last, dueNanos);
        }

        @Override
        public void sent(long run, String step, Order order, long dueNanos) {
            if (dueNanos != setAtNanos) {
                setAtNanos = dueNanos;
                setAt.clear();
            }
            for (String reading : order.changes().keySet()) {
                String other = setAt.put(new Reading(order.gear(), reading), step);
                if (other != null && !other.equals(step)) {
                    clashes.putIfAbsent(other + " " + step + " " + reading, new Clash(order.gear(), reading, other,
                            step, dueNanos / MILLION));
                }
            }
        }

        @Override
        public void unknownAgain(String gear, String reading) {
            readings.remove(new Reading(gear, reading)); // At the press it will be known, and put back.
        }

        @Override
        public void accept(Happening happening) {
            switch (happening) {
                case Happening.Came c -> readings.put(new Reading(c.gear(), c.reading()), c.value());
                case Happening.Picked p -> {
                    picks.computeIfAbsent(p.step(), _ -> new LinkedHashMap<>())
                            .computeIfAbsent(p.choice(), _ -> new Counted(p.name())).count++;
                }
                case Happening.Asked a -> answer(a);
                case Happening.Ran r when r.line().outcome() == AsRun.Outcome.FAULT -> {
                    AsRun line = r.line();
                    if (!line.gear().isEmpty() && !known.statuses().getOrDefault(line.gear(),
                            rombix.core.event.Status.TWIN).sends()) {
                        off.putIfAbsent(line.step(), new Off(line.step(), line.gear(), line.message()));
                    } else {
                        faults.computeIfAbsent(line.step() + "\n" + line.message(),
                                _ -> new Counted(line.step())).count++;
                    }
                }
                default -> {
                    // The rest changes nothing that is forecast.
                }
            }
        }

        private void answer(Happening.Asked a) {
            Value preset = a.preset();
            Value answer = preset != null
                    ? preset
                    : a.kind() == DeckStep.Ask.AnswerType.TEXT || a.kind() == DeckStep.Ask.AnswerType.SECRET
                            ? Value.of("")
                            : Value.of(a.options().isEmpty() ? 0 : chance.nextInt(a.options().size()));
            if (deck != null) {
                deck.take(new Event.Reply(a.question(), answer), a.atNanos());
            }
        }
    }

    private Forecast summed(int runs) {
        List<StepTime> steps = new ArrayList<>();
        times.forEach((step, t) -> steps.add(new StepTime(step, (double) t.start.count / runs,
                (double) t.ran / Math.max(1, t.start.count), t.start.span(), t.end.span())));
        steps.sort(Comparator.comparingDouble(s -> s.start().least()));
        List<Change> changes = new ArrayList<>();
        after.forEach((r, values) -> {
            Value before = known.readings().getOrDefault(r.gear(), Map.of()).get(r.reading());
            List<Outcome> outcomes = new ArrayList<>();
            int counted = 0;
            for (Map.Entry<Value, Integer> v : values.entrySet()) {
                outcomes.add(new Outcome(v.getKey(), (double) v.getValue() / runs));
                counted += v.getValue();
            }
            if (counted < runs && before != null) {
                double same = (double) (runs - counted) / runs;
                outcomes.removeIf(o -> o.value().equals(before));
                outcomes.add(new Outcome(before, same + (double) values.getOrDefault(before, 0) / runs));
            }
            outcomes.sort(Comparator.comparingDouble(Outcome::share).reversed());
            if (outcomes.size() > 1 || !outcomes.getFirst().value().equals(before)) {
                changes.add(new Change(r.gear(), r.reading(), before, outcomes));
            }
        });
        List<Odds> odds = new ArrayList<>();
        picks.forEach((step, choices) -> {
            double all = choices.values().stream().mapToInt(c -> c.count).sum();
            choices.entrySet().stream().sorted(Map.Entry.comparingByKey()).forEach(c -> odds.add(new Odds(step, c
                    .getKey(), c.getValue().name, c.getValue().count / all)));
        });
        List<Fault> failing = faults.entrySet().stream().map(e -> new Fault(e.getValue().name,
                e.getKey().substring(e.getKey().indexOf('\n') + 1), Math.min(1, (double) e.getValue().count / runs)))
                .toList();
        return new Forecast(runs, length.span(), steps, changes, odds, List.copyOf(clashes.values()),
                List.copyOf(off.values()), failing, endless);
    }
}
