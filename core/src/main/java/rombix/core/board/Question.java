package rombix.core.board;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import rombix.core.chain.Comparison;
import rombix.core.chain.Condition;
import rombix.core.value.Formula;
import rombix.core.value.FormulaFault;
import rombix.core.value.Value;

/** A condition that is ready to be asked: its formulas are read. Not safe for use by several threads at once. */
public final class Question {
    private final Condition condition;
    private final @Nullable Formula formula;
    private final List<Question> parts = new ArrayList<>();
    private final Set<String> names = new LinkedHashSet<>();

    /** @throws FormulaFault if a formula in it can't be read */
    public Question(Condition condition) throws FormulaFault {
        this.condition = condition;
        formula = condition instanceof Condition.Computed c ? new Formula(c.formula()) : null;
        for (Condition part : condition.within()) {
            Question made = new Question(part);
            parts.add(made);
            names.addAll(made.names);
        }
        if (formula != null) {
            names.addAll(formula.watched());
        }
        switch (condition) {
            case Condition.OnReading r -> names.add(r.name());
            case Condition.OnValue v -> names.add(v.value());
            case Condition.Daytime _ -> names.add(Formula.CLOCK);
            default -> {
                // What it depends on, its parts and its formula do.
            }
        }
    }

    /** A condition that can be asked; none where a formula in it can't be read, which the check of the board tells. */
    public static Optional<Question> of(Condition condition) {
        try {
            return Optional.of(new Question(condition));
        } catch (FormulaFault e) {
            return Optional.empty();
        }
    }

    /**
     * Which of several is so: the first, else the one for otherwise where anything is known of the others; -1 where none.
     *
     * @param of the questions; null for what asks nothing
     * @param answer whether one is so; null where that isn't known
     */
    public static int first(List<@Nullable Question> of, Function<Question, @Nullable Boolean> answer) {
        int otherwise = -1;
        boolean known = false;
        for (int i = 0; i < of.size(); i++) {
            Question question = of.get(i);
            if (question != null && question.condition instanceof Condition.Otherwise) {
                otherwise = i;
            } else if (question != null) {
                Boolean now = answer.apply(question);
                if (Boolean.TRUE.equals(now)) {
                    return i;
                }
                known |= now != null;
            }
        }
        return known ? otherwise : -1;
    }

    public Condition condition() {
        return condition;
    }

    /** The names of what it depends on, as formulas write them; {@link Formula#CLOCK} for the time of day. */
    public Set<String> names() {
        return names;
    }

    /** Whether it is so; null where that isn't known, as where a formula names what has no value. */
    public @Nullable Boolean known(Function<String, @Nullable Value> now) {
        try {
            return answer(now);
        } catch (FormulaFault e) {
            return null;
        }
    }

    /** Whether it is so; what isn't known makes nothing true. */
    public boolean holds(Function<String, @Nullable Value> now) {
        return Boolean.TRUE.equals(known(now));
    }

    /**
     * Whether it is so; null where that isn't known.
     *
     * @param now what a name stands for; null where it has no value yet
     * @throws FormulaFault if it turns on a formula that names what has no value, or whose kinds don't fit
     */
    public @Nullable Boolean answer(Function<String, @Nullable Value> now) throws FormulaFault {
        return switch (condition) {
            case Condition.OnReading r -> compared(r.that(), now.apply(r.name()));
            case Condition.OnValue v -> compared(v.that(), now.apply(v.value()));
            case Condition.Daytime d -> during(d, now.apply(Formula.CLOCK));
            case Condition.Computed _ -> formula != null && formula.value(now).asFlag();
            case Condition.All _ -> decided(now, false);
            case Condition.Any _ -> decided(now, true);
            case Condition.Not _ -> {
                Boolean part = parts.getFirst().answer(now);
                yield part == null ? null : (Boolean) !part;
            }
            case Condition.Otherwise _ -> true;
        };
    }

    private static @Nullable Boolean compared(Comparison that, @Nullable Value now) {
        return now == null ? null : (Boolean) that.holds(now);
    }

    private static @Nullable Boolean during(Condition.Daytime d, @Nullable Value clock) {
        if (clock == null) {
            return null;
        }
        double now = clock.asNumber();
        boolean begun = d.from() == null || now >= Condition.Daytime.second(d.from());
        boolean open = d.until() == null || now < Condition.Daytime.second(d.until());
        boolean overnight = d.from() != null && d.until() != null
                && Condition.Daytime.second(d.from()) > Condition.Daytime.second(d.until());
        return overnight ? begun || open : begun && open;
    }

    /** One part that answers as given decides; where none does, what isn't known leaves it open. */
    private @Nullable Boolean decided(Function<String, @Nullable Value> now, boolean by) throws FormulaFault {
        boolean known = true;
        FormulaFault fault = null;
        for (Question part : parts) {
            try {
                Boolean answer = part.answer(now);
                if (answer != null && answer == by) {
                    return by;
                }
                known &= answer != null;
            } catch (FormulaFault e) {
                fault = e;
            }
        }
        if (fault != null) {
            throw fault;
        }
        return known ? (Boolean) !by : null;
    }
}
