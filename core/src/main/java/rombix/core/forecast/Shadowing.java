package rombix.core.forecast;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import rombix.core.board.Rig;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.GearStep;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.twin.Twin;
import rombix.core.value.Value;

/**
 * Writes steps while the operator works the gear by hand: what was changed, when, and tidied, so that the ride of a
 * fader becomes one fade, or as many as it has bends. One thread's.
 */
public final class Shadowing {
    private static final long MILLION = 1_000_000L;
    /** Longer than this without a change, and the next one is a new move. */
    private static final long RIDE_GAP_MILLIS = 400;
    private static final long GRAIN_MILLIS = 50;
    /** How far a ride may be from a straight line, as a share of its range. */
    private static final double STRAIGHT = 0.04;

    private final Rig rig;
    private final Map<String, List<Moved>> moves = new LinkedHashMap<>();
    private final Map<String, Value> before = new LinkedHashMap<>();

    private record Moved(long atMillis, Value value) {
    }

    /** A step, when it begins, and how long it takes. */
    private record Timed(long startMillis, long millis, Step step) {
        long end() {
            return startMillis + millis;
        }
    }

    public Shadowing(Rig rig) {
        this.rig = rig;
    }

    /** What a reading is when shadowing begins. */
    public void at(String gear, String reading, Value value) {
        before.put(gear + ":" + reading, value);
    }

    /** A reading has changed. */
    public void changed(String gear, String reading, Value value, long atNanos) {
        moves.computeIfAbsent(gear + ":" + reading, _ -> new ArrayList<>()).add(new Moved(atNanos / MILLION, value));
    }

    /** The steps so far; what no command can bring about, as a temperature, is left out. */
    public List<Step> steps() {
        List<Timed> timed = new ArrayList<>();
        moves.forEach((name, of) -> {
            int colon = name.indexOf(':');
            Twin twin = rig.twins().get(name.substring(0, colon));
            if (twin != null) {
                rides(of).forEach(ride -> steps(twin, name.substring(colon + 1), before.get(name), of, ride, timed));
            }
        });
        timed.sort(Comparator.comparingLong(Timed::startMillis));
        return inOrder(timed);
    }

    /** Changes of one reading, cut where it rested. */
    private static List<List<Moved>> rides(List<Moved> all) {
        List<List<Moved>> rides = new ArrayList<>();
        for (Moved m : all) {
            if (rides.isEmpty() || m.atMillis() - rides.getLast().getLast().atMillis() > RIDE_GAP_MILLIS
                    || Double.isNaN(m.value().asNumber()) || !(m.value() instanceof Value.Num)) {
                rides.add(new ArrayList<>());
            }
            rides.getLast().add(m);
        }
        return rides;
    }

    private static void steps(Twin twin, String reading, @org.jspecify.annotations.Nullable Value start,
            List<Moved> all, List<Moved> ride, List<Timed> to) {
        Moved last = ride.getLast();
        Twin.Call call = twin.toReach(reading, last.value()).orElse(null);
        if (call == null) {
            return;
        }
        String moving = call.moving();
        if (ride.size() < 3 || moving == null || !(last.value() instanceof Value.Num)) {
            to.add(new Timed(last.atMillis(), 0, new GearStep.Do(twin.gear(), call.command().id(), call.args())));
            return;
        }
        int first = all.indexOf(ride.getFirst());
        Value from = first > 0 ? all.get(first - 1).value() : start == null ? ride.getFirst().value() : start;
        List<Moved> path = new ArrayList<>(ride);
        if (!path.getFirst().value().equals(from)) {
            // It left its place one report before the first.
            long apart = Math.min(GRAIN_MILLIS, path.get(1).atMillis() - path.get(0).atMillis());
            path.addFirst(new Moved(path.getFirst().atMillis() - apart, from));
        }
        double low = path.stream().mapToDouble(m -> m.value().asNumber()).min().orElse(0);
        double high = path.stream().mapToDouble(m -> m.value().asNumber()).max().orElse(0);
        List<Moved> bends = new ArrayList<>(List.of(path.getFirst()));
        bend(path, 0, path.size() - 1, (high - low) * STRAIGHT, bends);
        Map<String, Arg> with = new LinkedHashMap<>();
        call.args().forEach((k, v) -> {
            if (!k.equals(moving)) {
                with.put(k, Arg.of(v));
            }
        });
        for (int i = 1; i < bends.size(); i++) {
            long at = bends.get(i - 1).atMillis();
            long millis = Math.max(GRAIN_MILLIS, rounded(bends.get(i).atMillis() - at));
            to.add(new Timed(at, millis, new GearStep.Fade(twin.gear(), call.command().id(), with, moving, null,
                    Arg.of(bends.get(i).value()), millis, GearStep.Fade.Curve.LINEAR, StepOptions.PLAIN, Map.of())));
        }
    }

    /** Adds the ends of the straight pieces that a path is made of, by halving it at its farthest point. */
    private static void bend(List<Moved> path, int from, int to, double tolerance, List<Moved> bends) {
        Moved a = path.get(from);
        Moved b = path.get(to);
        double farthest = tolerance;
        int at = -1;
        for (int i = from + 1; i < to; i++) {
            double share = b.atMillis() == a.atMillis()
                    ? 0
                    : (double) (path.get(i).atMillis() - a.atMillis()) / (b.atMillis() - a.atMillis());
            double straight = a.value().asNumber() + share * (b.value().asNumber() - a.value().asNumber());
            double away = Math.abs(path.get(i).value().asNumber() - straight);
            if (away > farthest) {
                farthest = away;
                at = i;
            }
        }
        if (at >= 0) {
            bend(path, from, at, tolerance, bends);
            bend(path, at, to, tolerance, bends);
        } else {
            bends.add(b);
        }
    }

    /** One after another with waits between; what overlaps stands side by side. */
    private static List<Step> inOrder(List<Timed> timed) {
        List<Step> steps = new ArrayList<>();
        long now = timed.isEmpty() ? 0 : timed.getFirst().startMillis();
        int i = 0;
        while (i < timed.size()) {
            List<Timed> cluster = new ArrayList<>(List.of(timed.get(i)));
            long end = timed.get(i).end();
            for (i++; i < timed.size() && timed.get(i).startMillis() < end; i++) {
                cluster.add(timed.get(i));
                end = Math.max(end, timed.get(i).end());
            }
            long start = cluster.getFirst().startMillis();
            long gap = rounded(start - now);
            if (gap >= GRAIN_MILLIS * 2) {
                steps.add(new Step.Wait(gap));
            }
            if (cluster.size() == 1) {
                steps.add(cluster.getFirst().step());
            } else {
                steps.add(new Step.Together(cluster.stream().map(t -> {
                    long offset = rounded(t.startMillis() - start);
                    return offset == 0 ? Chain.of(t.step()) : Chain.of(new Step.Wait(offset), t.step());
                }).toList()));
            }
            now = end;
        }
        return steps;
    }

    private static long rounded(long millis) {
        return Math.round((double) millis / GRAIN_MILLIS) * GRAIN_MILLIS;
    }
}
