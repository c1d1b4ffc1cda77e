package rombix.core.board;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;
import rombix.core.chain.Chain;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;

/**
 * Steps by where they stand in a chain: a step's index, then in turn a chain's index within it and a step's in that. A
 * step of an always part has a negative index, -1 for the first; the chain that runs instead of a failed step is -1.
 */
public final class Paths {
    /** The index of the chain that runs when a step has failed. */
    public static final int INSTEAD = -1;

    private Paths() {
    }

    /** The step at a path. */
    public static Optional<Step> step(Chain chain, List<Integer> path) {
        if (path.isEmpty()) {
            return Optional.empty();
        }
        List<Step> part = part(chain, path.getFirst());
        int at = place(path.getFirst());
        if (at >= part.size()) {
            return Optional.empty();
        }
        return path.size() == 1
                ? Optional.of(part.get(at))
                : inner(part.get(at), path.get(1)).flatMap(c -> step(c, path.subList(2, path.size())));
    }

    /** The chain that holds the step at a path. */
    public static Optional<Chain> holding(Chain chain, List<Integer> path) {
        return path.size() == 1
                ? Optional.of(chain)
                : step(chain, path.subList(0, path.size() - 2))
                        .flatMap(s -> inner(s, path.get(path.size() - 2)));
    }

    /** The chain with the step at a path changed, or taken out where the change gives null. */
    public static Chain changed(Chain chain, List<Integer> path, Function<Step, @Nullable Step> change) {
        return step(chain, path).isEmpty() ? chain : listed(chain, path, (steps, at) -> {
            Step next = change.apply(steps.get(at));
            if (next == null) {
                steps.remove(at);
            } else {
                steps.set(at, next);
            }
        });
    }

    /** The chain with steps put in before what stands at a path, or at the end of the list that the path names. */
    public static Chain inserted(Chain chain, List<Integer> path, List<Step> added) {
        return listed(chain, path, (steps, at) -> steps.addAll(Math.min(at, steps.size()), added));
    }

    /** The chain with the list in which a path's step stands made anew. */
    public static Chain relisted(Chain chain, List<Integer> path, UnaryOperator<List<Step>> change) {
        return holding(chain, path).isEmpty() ? chain : listed(chain, path, (steps, _) -> {
            List<Step> next = change.apply(List.copyOf(steps));
            steps.clear();
            steps.addAll(next);
        });
    }

    /** Where a path's step stands once something was put in, or with -1 taken out, at another path. */
    public static List<Integer> shifted(List<Integer> path, List<Integer> at, int by) {
        int n = at.size() - 1;
        boolean after = path.size() > n && path.subList(0, n).equals(at.subList(0, n))
                && path.get(n) < 0 == at.get(n) < 0 && place(path.get(n)) >= place(at.get(n)) + (by < 0 ? 1 : 0);
        if (!after) {
            return path;
        }
        List<Integer> all = new ArrayList<>(path);
        all.set(n, path.get(n) < 0 ? path.get(n) - by : path.get(n) + by);
        return List.copyOf(all);
    }

    /** Whether a step can be put in at a path: it names a list that is there, and a place in it or its end. */
    public static boolean fits(Chain chain, List<Integer> path) {
        return holding(chain, path).filter(c -> place(path.getLast()) <= part(c, path.getLast()).size()).isPresent();
    }

    /** The steps at some paths, in the order in which they stand; one within another of them is left out. */
    public static List<Step> steps(Chain chain, Collection<List<Integer>> paths) {
        return outer(paths).stream().flatMap(p -> step(chain, p).stream()).toList();
    }

    /** The chain without the steps at some paths. */
    public static Chain without(Chain chain, Collection<List<Integer>> paths) {
        Chain left = chain;
        for (List<Integer> path : outer(paths).reversed()) {
            left = changed(left, path, _ -> null);
        }
        return left;
    }

    /** Paths in the order of their steps, without those that are within another. */
    public static List<List<Integer>> outer(Collection<List<Integer>> paths) {
        return paths.stream().filter(p -> paths.stream().noneMatch(o -> o.size() < p.size() && p.subList(0, o.size())
                .equals(o))).sorted(Paths::compare).toList();
    }

    private static int compare(List<Integer> a, List<Integer> b) {
        for (int i = 0; i < Math.min(a.size(), b.size()); i++) {
            int x = a.get(i);
            int y = b.get(i);
            if (x != y) {
                // The always part, which counts downwards from -1, comes behind the steps.
                return x < 0 && y < 0 ? y - x : x < 0 ? 1 : y < 0 ? -1 : x - y;
            }
        }
        return a.size() - b.size();
    }

    /** The path behind a path, in the same list. */
    public static List<Integer> next(List<Integer> path) {
        List<Integer> all = new ArrayList<>(path);
        int last = all.removeLast();
        all.add(last < 0 ? last - 1 : last + 1);
        return List.copyOf(all);
    }

    /** A path within a step: the first place of one of its chains. */
    public static List<Integer> within(List<Integer> path, int chain, int step) {
        List<Integer> all = new ArrayList<>(path);
        all.add(chain);
        all.add(step);
        return List.copyOf(all);
    }

    /** The path of a place as the as-run log writes it; empty where the place is in another chain. */
    public static Optional<List<Integer>> ofPlace(String place) {
        List<Integer> path = new ArrayList<>();
        boolean always = false;
        String[] parts = place.split("/");
        for (int i = 1; i < parts.length; i++) {
            switch (parts[i]) {
                case "always" -> always = true;
                case "instead" -> path.add(INSTEAD);
                default -> {
                    if (!parts[i].matches("\\d+")) {
                        return Optional.empty();
                    }
                    int n = Integer.parseInt(parts[i]);
                    path.add(always ? -1 - n : n);
                    always = false;
                }
            }
        }
        return path.isEmpty() ? Optional.empty() : Optional.of(List.copyOf(path));
    }

    private interface Change {
        void apply(List<Step> steps, int at);
    }

    private static Chain listed(Chain chain, List<Integer> path, Change change) {
        boolean always = path.getFirst() < 0;
        int at = place(path.getFirst());
        List<Step> steps = new ArrayList<>(part(chain, path.getFirst()));
        if (path.size() == 1) {
            change.apply(steps, at);
        } else {
            steps.set(at, withInner(steps.get(at), path.get(1), c -> listed(c, path.subList(2, path.size()), change)));
        }
        return always ? chain.withAlways(steps) : chain.withSteps(steps);
    }

    private static List<Step> part(Chain chain, int index) {
        return index < 0 ? chain.always() : chain.steps();
    }

    private static int place(int index) {
        return index < 0 ? -1 - index : index;
    }

    private static Optional<Chain> inner(Step step, int index) {
        if (index == INSTEAD) {
            return Optional.ofNullable(step.how().instead());
        }
        return index < step.inner().size() ? Optional.of(step.inner().get(index)) : Optional.empty();
    }

    private static Step withInner(Step step, int index, UnaryOperator<Chain> change) {
        if (index == INSTEAD) {
            StepOptions how = step.how();
            Chain instead = how.instead() == null ? Chain.EMPTY : how.instead();
            return step
                    .withHow(how.withInstead(change.apply(instead)));
        }
        List<Chain> chains = new ArrayList<>(step.inner());
        chains.set(index, change.apply(chains.get(index)));
        return step.withInner(chains);
    }
}
