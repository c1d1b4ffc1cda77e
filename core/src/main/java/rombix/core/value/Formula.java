package rombix.core.value;

import com.ezylang.evalex.EvaluationException;
import com.ezylang.evalex.Expression;
import com.ezylang.evalex.config.ExpressionConfiguration;
import com.ezylang.evalex.config.MapBasedFunctionDictionary;
import com.ezylang.evalex.data.EvaluationValue;
import com.ezylang.evalex.functions.AbstractFunction;
import com.ezylang.evalex.functions.FunctionParameter;
import com.ezylang.evalex.functions.basic.AbsFunction;
import com.ezylang.evalex.functions.basic.CeilingFunction;
import com.ezylang.evalex.functions.basic.FloorFunction;
import com.ezylang.evalex.functions.basic.IfFunction;
import com.ezylang.evalex.functions.basic.MaxFunction;
import com.ezylang.evalex.functions.basic.MinFunction;
import com.ezylang.evalex.functions.basic.NotFunction;
import com.ezylang.evalex.functions.basic.RoundFunction;
import com.ezylang.evalex.functions.string.StringContains;
import com.ezylang.evalex.functions.string.StringLowerFunction;
import com.ezylang.evalex.functions.string.StringUpperFunction;
import com.ezylang.evalex.parser.ParseException;
import com.ezylang.evalex.parser.Token;
import java.math.MathContext;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.NoSuchElementException;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * A formula over readings and values, which stand in it in braces: {@code {desk:level/host} > -10 && {round} == 2}. It
 * has no reflection, no input or output, no chance of its own, and is computed in less than 50 ms: it has at most 2,000
 * characters, its numbers stay within those of 64 bits, and a text that it makes has at most 10,000 characters. Not safe
 * for use by several threads at once.
 */
public final class Formula {
    private static final int LONGEST = 2000;
    private static final String TOO_DEEP = "it is nested too deeply";
    private static final String NOTHING_BEFORE = "an operator in it has nothing on one of its sides";
    private static final int LONGEST_TEXT = 10_000;
    /** Texts, left out where numbers and operators are looked at. */
    private static final Pattern TEXT = Pattern.compile("\"[^\"]*\"");
    private static final Pattern HUGE = Pattern.compile("\\^|[0-9.][eE][+-]?[0-9]{3,}|[0-9]{310,}");
    private static final Pattern NAME = Pattern.compile("\\{([^{}]+)}");
    private static final ExpressionConfiguration SAFE = ExpressionConfiguration.builder()
            .mathContext(MathContext.DECIMAL64)
            .functionDictionary(MapBasedFunctionDictionary.ofFunctions(Map.entry("MIN", new MinFunction()),
                    Map.entry("MAX", new MaxFunction()), Map.entry("ROUND", new Rounded()),
                    Map.entry("ABS", new AbsFunction()), Map.entry("FLOOR", new FloorFunction()),
                    Map.entry("CEILING", new CeilingFunction()), Map.entry("IF", new IfFunction()),
                    Map.entry("NOT", new NotFunction()), Map.entry("UPPER", new StringUpperFunction()),
                    Map.entry("LOWER", new StringLowerFunction()), Map.entry("CONTAINS", new StringContains()),
                    Map.entry("TEXT", new NumberText.Text()), Map.entry("NOW", new TimeFunctions.Now()),
                    Map.entry("TIME_TO", new TimeFunctions.TimeTo()),
                    Map.entry("FORMAT_TIME", new TimeFunctions.FormatTime())))
            .build();

    static {
        SAFE.getOperatorDictionary().addOperator("+", new NumberText.Plus());
    }

    /** The name under which a formula that {@link #ticks} asks for the time of day, as {@link #clock} has it. */
    public static final String CLOCK = "NOW()";

    /** The name under which the face of a button has how long its chain still runs, in seconds. */
    public static final String LEFT = "left";

    private final String source;
    private final Expression expression;
    private final Map<String, String> variables = new LinkedHashMap<>();

    /** @throws FormulaFault if it cannot be read */
    public Formula(String source) throws FormulaFault {
        this.source = source;
        if (source.length() > LONGEST) {
            throw new FormulaFault(LONGEST, "a formula has at most " + LONGEST + " characters");
        }
        Matcher m = NAME.matcher(source);
        StringBuilder plain = new StringBuilder();
        int from = 0;
        while (m.find()) {
            plain.append(source, from, m.start());
            String variable = variables.computeIfAbsent(m.group(1), _ -> "v" + variables.size());
            plain.append(variable);
            plain.append(" ".repeat(Math.max(0, m.group().length() - variable.length())));
            from = m.end();
        }
        plain.append(source.substring(from));
        Matcher huge = HUGE.matcher(TEXT.matcher(plain).replaceAll(t -> " ".repeat(t.group().length())));
        if (huge.find()) {
            throw new FormulaFault(huge.start() + 1, huge.group().equals("^")
                    ? "powers aren't supported; multiply instead"
                    : "this number is too large");
        }
        try {
            expression = new Expression(plain.toString(), SAFE);
            expression.validate();
            for (String unknown : expression.getUndefinedVariables()) {
                if (!variables.containsValue(unknown)) {
                    throw new FormulaFault(plain.indexOf(unknown) + 1,
                            "“" + unknown + "” is unknown; put readings and values in braces");
                }
            }
        } catch (ParseException e) {
            throw new FormulaFault(e.getStartPosition(), String.valueOf(e.getMessage()));
        } catch (NoSuchElementException e) {
            throw new FormulaFault(0, NOTHING_BEFORE); // The parser takes an operator for whole that has one side.
        } catch (StackOverflowError e) {
            throw new FormulaFault(0, TOO_DEEP);
        }
    }

    /** What stands in braces. */
    public List<String> names() {
        return List.copyOf(variables.keySet());
    }

    /** What its value depends on: the names, and {@link #CLOCK} where it changes as time passes. */
    public List<String> watched() {
        List<String> all = new ArrayList<>(variables.keySet());
        if (ticks()) {
            all.add(CLOCK);
        }
        return all;
    }

    /** Whether it changes as time passes. */
    public boolean ticks() {
        return ticks(source);
    }

    /** Whether a formula, or a text with formulas in it, changes as time passes. */
    public static boolean ticks(String text) {
        return TimeFunctions.USED.matcher(text).find();
    }

    /** The time of day as formulas have it: whole seconds since midnight. */
    public static Value clock(ZonedDateTime wall) {
        return Value.of(wall.toLocalTime().toSecondOfDay());
    }

    /** The name that is all of it; null where it computes something. */
    private @Nullable String sole() {
        String text = source.strip();
        return variables.size() == 1 && text.equals("{" + variables.keySet().iterator().next() + "}")
                ? variables.keySet().iterator().next()
                : null;
    }

    /** The value now, where names have no steps. */
    public Value value(Function<String, @Nullable Value> now) throws FormulaFault {
        return value(now, _ -> null);
    }

    /**
     * The value now.
     *
     * @param steps how finely a name's number stands in a text that it is joined to; null for no matter
     * @param now what a name stands for; null where it has no value yet
     * @throws FormulaFault if a name has no value, or the kinds do not fit
     */
    public Value value(Function<String, @Nullable Value> now, Function<String, @Nullable Double> steps)
            throws FormulaFault {
        try {
            Expression fresh = expression.copy();
            for (Map.Entry<String, String> v : variables.entrySet()) {
                Value value = now.apply(v.getKey());
                if (value == null) {
                    throw new FormulaFault(source.indexOf("{" + v.getKey() + "}") + 1,
                            "“" + v.getKey() + "” has no value yet");
                }
                if (value instanceof Value.Num n && n.number() != Math.rint(n.number()) && source.indexOf('+') >= 0) {
                    Double step = steps.apply(v.getKey());
                    if (step != null) {
                        fresh.with(v.getValue() + NumberText.STEP, step);
                    }
                }
                fresh.with(v.getValue(), switch (value) {
                    case Value.Num n -> (Object) n.number();
                    case Value.Flag f -> f.on();
                    case Value.Text t -> t.text();
                    case Value.Choices c -> c.toString();
                });
            }
            if (ticks() && now.apply(CLOCK) instanceof Value.Num(double seconds)) {
                fresh.with(TimeFunctions.NOW, seconds);
            }
            EvaluationValue result = fresh.evaluate();
            return result.isBooleanValue()
                    ? Value.of(result.getBooleanValue())
                    : result.isNumberValue()
                            ? number(result.getNumberValue().doubleValue())
                            : text(String.valueOf(result.getStringValue()));
        } catch (EvaluationException e) {
            throw new FormulaFault(e.getStartPosition(), String.valueOf(e.getMessage()));
        } catch (ParseException e) {
            throw new FormulaFault(e.getStartPosition(), String.valueOf(e.getMessage()));
        } catch (NoSuchElementException e) {
            throw new FormulaFault(0, NOTHING_BEFORE);
        } catch (ArithmeticException | NumberFormatException e) {
            throw new FormulaFault(0, "can't be computed: " + e.getMessage());
        } catch (StackOverflowError e) {
            throw new FormulaFault(0, TOO_DEEP);
        }
    }

    private static Value number(double number) throws FormulaFault {
        if (!Double.isFinite(number)) {
            throw new FormulaFault(0, "the result is too large");
        }
        return Value.of(number);
    }

    private static Value text(String text) throws FormulaFault {
        if (text.length() > LONGEST_TEXT) {
            throw new FormulaFault(0, "the result is a text of more than " + LONGEST_TEXT + " characters");
        }
        return Value.of(text);
    }

    /** Rounds to as many digits as a number has. */
    @FunctionParameter(name = "value")
    @FunctionParameter(name = "scale")
    private static final class Rounded extends AbstractFunction {
        private static final int DIGITS = 15;

        @Override
        public EvaluationValue evaluate(Expression of, Token token, EvaluationValue... given)
                throws EvaluationException {
            int digits = given[1].getNumberValue().intValue();
            if (Math.abs(digits) > DIGITS) {
                throw new EvaluationException(token, "ROUND takes at most " + DIGITS + " digits");
            }
            return new RoundFunction().evaluate(of, token, given);
        }
    }

    /** What stands in the outer braces of a text: a name each, or a formula with {@code =} before it. */
    public static List<String> places(String text) {
        List<String> all = new ArrayList<>();
        for (int open = text.indexOf('{'); open >= 0 && close(text, open) >= 0; open = text.indexOf('{', close(text,
                open))) {
            all.add(text.substring(open + 1, close(text, open)));
        }
        return all;
    }

    /** Where the brace that opens at a place is closed; -1 where it is not. */
    private static int close(String text, int open) {
        int depth = 0;
        for (int end = open; end < text.length(); end++) {
            depth += text.charAt(end) == '{' ? 1 : text.charAt(end) == '}' ? -1 : 0;
            if (depth == 0) {
                return end;
            }
        }
        return -1;
    }

    /** A text with formulas and names in it, each computed: {@code It is {house:temperature}, or {= 2 * {x}}}. */
    public static String fill(String text, Function<String, @Nullable Value> now, Function<String, String> spoken) {
        StringBuilder out = new StringBuilder();
        int at = 0;
        while (at < text.length()) {
            int open = text.indexOf('{', at);
            if (open < 0) {
                break;
            }
            int end = close(text, open);
            if (end < 0) {
                break;
            }
            out.append(text, at, open);
            String inside = text.substring(open + 1, end);
            if (inside.startsWith("=")) {
                try {
                    Formula formula = new Formula(inside.substring(1));
                    String sole = formula.sole();
                    out.append(sole != null && now.apply(sole) != null
                            ? spoken.apply(sole)
                            : formula.value(now));
                } catch (FormulaFault e) {
                    out.append('?');
                }
            } else {
                out.append(now.apply(inside) == null ? "—" : spoken.apply(inside));
            }
            at = end + 1;
        }
        return out.append(text.substring(at)).toString();
    }

    @Override
    public String toString() {
        return source;
    }
}
