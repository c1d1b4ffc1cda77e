package rombix.core.find;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Rig;
import rombix.core.board.StepWords;
import rombix.core.board.Walk;
import rombix.core.chain.Chain;
import rombix.core.chain.GearStep;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.twin.Twin;
import rombix.core.twin.Twin.Readings;

/** What usually comes next in a chain, where nothing has been typed yet. */
public final class Likely {
    private Likely() {
    }

    /**
     * Steps to offer: first those that follow such a step elsewhere on the board, most often first; then those that were
     * added lately; then what the board does most, and a wait.
     *
     * @param before the step that the next one comes behind; null at the start of a chain
     * @param recent the steps added lately, newest first
     */
    public static List<Found> next(Rig rig, Function<String, Readings> readings, @Nullable Step before,
            List<Step> recent, int max) {
        StepWords words = new StepWords(rig, readings);
        Map<String, Counted> follows = new LinkedHashMap<>();
        Map<String, Counted> all = new LinkedHashMap<>();
        String key = before == null ? "" : key(words, before);
        Walk.chains(rig.board(), whole -> count(whole.chain(), key, words, follows, all));
        List<Step> offered = new ArrayList<>(ranked(follows));
        offered.addAll(recent);
        if (before != null && !(before instanceof Step.Wait)) {
            offered.add(new Step.Wait(1000));
        }
        offered.addAll(ranked(all));
        rig.twins().values().forEach(t -> GearOffers.of(t, readings.apply(t.gear())).stream().filter(Offer::always)
                .limit(2).forEach(o -> offered.add(o.step().apply(new ArrayList<>()))));
        List<Found> found = new ArrayList<>();
        Set<String> seen = new LinkedHashSet<>(Set.of(key));
        for (Step step : offered) {
            if (found.size() < max && seen.add(key(words, step))) {
                found.add(new Found(words.of(step), where(rig, step), step, 0));
            }
        }
        return found;
    }

    private static final class Counted {
        private final Step step;
        private int times;

        Counted(Step step) {
            this.step = step;
        }
    }

    private static List<Step> ranked(Map<String, Counted> counted) {
        return counted.values().stream().sorted(Comparator.comparingInt((Counted c) -> c.times).reversed()).map(
                c -> c.step).toList();
    }

    private static void count(Chain chain, String key, StepWords words, Map<String, Counted> follows,
            Map<String, Counted> all) {
        String last = "";
        for (Step step : chain.steps()) {
            String here = key(words, step);
            Step plain = plain(step);
            if (!key.isEmpty() && last.equals(key)) {
                follows.computeIfAbsent(here, _ -> new Counted(plain)).times++;
            }
            if (!(step instanceof Step.Wait)) {
                all.computeIfAbsent(here, _ -> new Counted(plain)).times++;
            }
            step.inner().forEach(c -> count(c, key, words, follows, all));
            last = here;
        }
    }

    /** The step as one would add it: in the plain manner, and with nothing in it yet. */
    private static Step plain(Step step) {
        Step empty = step.inner().isEmpty()
                ? step
                : step.withInner(step.inner().stream().map(_ -> Chain.EMPTY).toList());
        return empty.withHow(StepOptions.PLAIN);
    }

    private static String where(Rig rig, Step step) {
        String gear = switch (step) {
            case GearStep.Do d -> d.gear();
            case GearStep.Fade f -> f.gear();
            case GearStep.Nudge n -> n.gear();
            default -> "";
        };
        return rig.twin(gear).map(Twin::title).orElse(step instanceof Step.Wait ? "time" : "deck");
    }

    /** What a step is, whatever its figures are. */
    static String key(StepWords words, Step step) {
        return words.of(step).replaceAll("[-\u2212]?\\d+([.,:]\\d+)*", "#");
    }
}
