package rombix.app.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;
import rombix.core.chain.Chain;
import rombix.core.chain.Step;

/** Steps by where they stand in a chain: a step's index, then in turn a chain's index within it and a step's in that. */
public final class Paths {
    private Paths() {
    }

    /** The step at a path. */
    public static Optional<Step> step(Chain chain, List<Integer> path) {
        if (path.isEmpty() || path.getFirst() >= chain.steps().size()) {
            return Optional.empty();
        }
        Step step = chain.steps().get(path.getFirst());
        if (path.size() == 1) {
            return Optional.of(step);
        }
        return step instanceof Step.Together t && path.get(1) < t.chains().size()
                ? step(t.chains().get(path.get(1)), path.subList(2, path.size()))
                : Optional.empty();
    }

    /** The chain with the step at a path changed, or taken out where the change gives null. */
    public static Chain changed(Chain chain, List<Integer> path, UnaryOperator<@Nullable Step> change) {
        if (step(chain, path).isEmpty()) {
            return chain;
        }
        int at = path.getFirst();
        if (path.size() == 1) {
            Step next = change.apply(chain.steps().get(at));
            return next == null ? chain.without(at) : chain.changed(at, _ -> next);
        }
        return chain.changed(at, s -> {
            if (!(s instanceof Step.Together t)) {
                return s;
            }
            List<Chain> chains = new ArrayList<>(t.chains());
            chains.set(path.get(1), changed(chains.get(path.get(1)), path.subList(2, path.size()), change));
            return new Step.Together(chains, t.extra());
        });
    }

    /** The chain with a step put in behind the one at a path; at the end where the path is null. */
    public static Chain insertedAfter(Chain chain, @Nullable List<Integer> path, Step step) {
        if (path == null || step(chain, path).isEmpty()) {
            return chain.with(chain.steps().size(), step);
        }
        int at = path.getFirst();
        if (path.size() == 1) {
            return chain.with(at + 1, step);
        }
        return chain.changed(at, s -> {
            if (!(s instanceof Step.Together t)) {
                return s;
            }
            List<Chain> chains = new ArrayList<>(t.chains());
            chains.set(path.get(1), insertedAfter(chains.get(path.get(1)), path.subList(2, path.size()), step));
            return new Step.Together(chains, t.extra());
        });
    }
}
