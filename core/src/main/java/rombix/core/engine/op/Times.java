package rombix.core.engine.op;

import java.time.DateTimeException;
import java.time.LocalTime;
import java.util.LinkedHashMap;
import java.util.Map;
import rombix.core.chain.Step;
import rombix.core.value.Formula;
import rombix.core.value.FormulaFault;
import rombix.core.value.Value;

/** Times of a step that formulas give when it is due, in seconds, in place of those that it has. */
public final class Times {
    /** The longest that comes out of a formula: a week. */
    private static final double MOST_SECONDS = 7 * 24 * 3600;
    private static final double NANOS = 1e9;

    private Times() {
    }

    /** What gives a formula its value. */
    public interface Known {
        Value of(Formula formula) throws FormulaFault;
    }

    /** The formulas of a step, read, by the names of its times. */
    static Map<String, Formula> read(Step step) throws FormulaFault {
        Map<String, Formula> all = new LinkedHashMap<>();
        for (Map.Entry<String, String> time : step.how().times().entrySet()) {
            all.put(time.getKey(), new Formula(time.getValue()));
        }
        return all;
    }

    /**
     * A step with the times that its formulas give now.
     *
     * @throws FormulaFault if one cannot be computed, or gives no time
     */
    public static Op now(Op.Item item, Known known) throws FormulaFault {
        if (item.times().isEmpty()) {
            return item.op();
        }
        return switch (item.op()) {
            case Op.Wait w -> {
                long least = nanos(item, "ms", known, w.nanos());
                yield new Op.Wait(least, Math.max(least, nanos(item, "most", known, item.times().containsKey("ms")
                        ? least
                        : w.mostNanos())));
            }
            case Op.WaitClock w -> {
                Formula clock = item.times().get("clock");
                yield clock == null ? w : new Op.WaitClock(clock(known.of(clock)));
            }
            case Op.WaitUntil w -> new Op.WaitUntil(w.check(), nanos(item, "timeout", known, w.timeoutNanos()));
            case Op.Fade f ->
                new Op.Fade(f.command(), f.param(), f.from(), f.to(), nanos(item, "ms", known, f.nanos()), f
                        .curve());
            case Op.ForAWhile w -> {
                w.nanos = nanos(item, "ms", known, w.nanos);
                yield w;
            }
            case Op.Repeat r ->
                new Op.Repeat(r.times(), r.check(), nanos(item, "every", known, r.everyNanos()), r.count(),
                        r.chain());
            case Op.Ask a ->
                new Op.Ask(a.step().withTimeout(nanos(item, "timeout", known, 0) / 1_000_000), a.options(), a
                        .chains());
            case Op.Do d -> new Op.Do(d.twin, d.command, d.args, nanos(item, "answer", known, d.answerNanos));
            default -> item.op();
        };
    }

    private static long nanos(Op.Item item, String name, Known known, long otherwise) throws FormulaFault {
        Formula formula = item.times().get(name);
        if (formula == null) {
            return otherwise;
        }
        Value seconds = known.of(formula);
        if (!(seconds instanceof Value.Num(double number)) || number > MOST_SECONDS) {
            throw new FormulaFault(0, "“%s” gives %s, which isn't a number of seconds up to a week".formatted(formula,
                    seconds));
        }
        return (long) (Math.max(0, number) * NANOS);
    }

    private static LocalTime clock(Value time) throws FormulaFault {
        try {
            String text = time.toString().strip();
            return time instanceof Value.Num(double seconds)
                    ? LocalTime.ofSecondOfDay((long) seconds)
                    : LocalTime.parse(text.indexOf(':') == 1 ? "0" + text : text);
        } catch (DateTimeException e) {
            throw new FormulaFault(0, "“" + time + "” is not a time of day such as 21:30");
        }
    }
}
