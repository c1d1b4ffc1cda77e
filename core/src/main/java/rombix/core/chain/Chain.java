package rombix.core.chain;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.function.UnaryOperator;

/** The steps that a gesture runs, one after another. */
public record Chain(@JsonValue List<Step> steps) {
    /** A chain that does nothing. */
    public static final Chain EMPTY = new Chain(List.of());

    @JsonCreator(mode = JsonCreator.Mode.DELEGATING)
    public Chain {
        steps = List.copyOf(steps);
    }

    public static Chain of(Step... steps) {
        return new Chain(List.of(steps));
    }

    public boolean isEmpty() {
        return steps.isEmpty();
    }

    /** Adds the ids of the gear that this chain commands. */
    public void gear(Set<String> to) {
        for (Step step : steps) {
            switch (step) {
                case Step.Do d -> to.add(d.gear());
                case Step.Together t -> t.chains().forEach(c -> c.gear(to));
                case Step.Wait _ -> {
                }
            }
        }
    }

    /** This chain with a step put in at a place from 0 to the number of steps. */
    public Chain with(int at, Step step) {
        List<Step> all = new ArrayList<>(steps);
        all.add(at, step);
        return new Chain(all);
    }

    public Chain without(int at) {
        List<Step> all = new ArrayList<>(steps);
        all.remove(at);
        return new Chain(all);
    }

    public Chain changed(int at, UnaryOperator<Step> change) {
        List<Step> all = new ArrayList<>(steps);
        all.set(at, change.apply(all.get(at)));
        return new Chain(all);
    }

    /** This chain with one step moved to another place. */
    public Chain moved(int from, int to) {
        List<Step> all = new ArrayList<>(steps);
        Step step = all.remove(from);
        all.add(Math.min(to, all.size()), step);
        return new Chain(all);
    }
}
