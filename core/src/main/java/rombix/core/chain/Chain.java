package rombix.core.chain;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;
import rombix.core.value.Extra;
import tools.jackson.databind.annotation.JsonDeserialize;
import tools.jackson.databind.annotation.JsonSerialize;

/**
 * The steps that a gesture runs, one after another. In JSON: their list, or an object with both lists.
 *
 * @param always what runs when the chain ends, however it ends
 * @param putBack whether everything that the steps changed is put back as it was where the chain is stopped
 */
@RecordBuilder
@JsonSerialize(using = ChainJson.Writer.class)
@JsonDeserialize(using = ChainJson.Reader.class)
public record Chain(List<Step> steps, List<Step> always, boolean putBack,
        Map<String, Object> extra) implements ChainBuilder.With {
    /** A chain that does nothing. */
    public static final Chain EMPTY = new Chain(List.of());

    public Chain {
        steps = List.copyOf(Objects.requireNonNullElse(steps, List.of()));
        always = List.copyOf(Objects.requireNonNullElse(always, List.of()));
        putBack = putBack && !steps.isEmpty();
        extra = Extra.kept(extra);
    }

    public Chain(List<Step> steps) {
        this(steps, List.of());
    }

    public Chain(List<Step> steps, List<Step> always) {
        this(steps, always, false, Map.of());
    }

    public static Chain of(Step... steps) {
        return new Chain(List.of(steps));
    }

    public boolean isEmpty() {
        return steps.isEmpty() && always.isEmpty();
    }

    /** Adds the ids of the gear that this chain commands. */
    public void gear(Set<String> to) {
        for (List<Step> part : List.of(steps, always)) {
            for (Step step : part) {
                switch (step) {
                    case GearStep.Do d -> to.add(d.gear());
                    case GearStep.Fade f -> to.add(f.gear());
                    case GearStep.Nudge n -> to.add(n.gear());
                    default -> step.inner().forEach(c -> c.gear(to));
                }
                if (step.how().instead() != null) {
                    step.how().instead().gear(to);
                }
            }
        }
    }

    /** This chain with a step put in at a place from 0 to the number of steps. */
    public Chain with(int at, Step step) {
        List<Step> all = new ArrayList<>(steps);
        all.add(at, step);
        return withSteps(all);
    }

    public Chain without(int at) {
        List<Step> all = new ArrayList<>(steps);
        all.remove(at);
        return withSteps(all);
    }

    public Chain changed(int at, UnaryOperator<Step> change) {
        List<Step> all = new ArrayList<>(steps);
        all.set(at, change.apply(all.get(at)));
        return withSteps(all);
    }

    /** This chain without the steps that meet a condition, at any depth. */
    public Chain without(Predicate<Step> gone) {
        return new Chain(without(steps, gone), without(always, gone), putBack, extra);
    }

    private static List<Step> without(List<Step> steps, Predicate<Step> gone) {
        return steps.stream().filter(s -> !gone.test(s)).map(s -> {
            Step inner = s.inner().isEmpty() ? s : s.withInner(s.inner().stream().map(c -> c.without(gone)).toList());
            StepOptions how = inner.how();
            return how.instead() == null
                    ? inner
                    : inner.withHow(how.withInstead(how.instead().without(gone)));
        }).toList();
    }

    /** This chain with every step changed, at any depth, the inner ones first. */
    public Chain each(UnaryOperator<Step> change) {
        return new Chain(each(steps, change), each(always, change), putBack, extra);
    }

    private static List<Step> each(List<Step> steps, UnaryOperator<Step> change) {
        return steps.stream().map(s -> {
            Step inner = s.inner().isEmpty() ? s : s.withInner(s.inner().stream().map(c -> c.each(change)).toList());
            StepOptions how = inner.how();
            return change.apply(how.instead() == null
                    ? inner
                    : inner.withHow(how.withInstead(how.instead().each(change))));
        }).toList();
    }

    /** This chain with one step moved to another place. */
    public Chain moved(int from, int to) {
        List<Step> all = new ArrayList<>(steps);
        Step step = all.remove(from);
        all.add(Math.min(to, all.size()), step);
        return withSteps(all);
    }
}
