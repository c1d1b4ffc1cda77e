package rombix.core.value;

import com.ezylang.evalex.EvaluationException;
import com.ezylang.evalex.Expression;
import com.ezylang.evalex.config.ExpressionConfiguration;
import com.ezylang.evalex.config.MapBasedFunctionDictionary;
import com.ezylang.evalex.data.EvaluationValue;
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
import java.math.MathContext;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * A formula over readings and values, which stand in it in braces: {@code {desk:level/host} > -10 && {round} == 2}. It
 * has no reflection, no input or output, no chance of its own, and works in bounded time. Not safe for use by several
 * threads at once.
 */
public final class Formula {
    private static final int LONGEST = 2000;
    private static final Pattern NAME = Pattern.compile("\\{([^{}]+)}");
    private static final ExpressionConfiguration SAFE = ExpressionConfiguration.builder()
            .mathContext(MathContext.DECIMAL64)
            .functionDictionary(MapBasedFunctionDictionary.ofFunctions(Map.entry("MIN", new MinFunction()),
                    Map.entry("MAX", new MaxFunction()), Map.entry("ROUND", new RoundFunction()),
                    Map.entry("ABS", new AbsFunction()), Map.entry("FLOOR", new FloorFunction()),
                    Map.entry("CEILING", new CeilingFunction()), Map.entry("IF", new IfFunction()),
                    Map.entry("NOT", new NotFunction()), Map.entry("UPPER", new StringUpperFunction()),
                    Map.entry("LOWER", new StringLowerFunction()), Map.entry("CONTAINS", new StringContains())))
            .build();

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
        try {
            expression = new Expression(plain.toString(), SAFE);
            expression.validate();
            for (String unknown : expression.getUndefinedVariables()) {
                if (!variables.containsValue(unknown)) {
                    throw new FormulaFault(plain.indexOf(unknown) + 1,
                            "“" + unknown + "” is not known; readings and values stand in braces");
                }
            }
        } catch (ParseException e) {
            throw new FormulaFault(e.getStartPosition(), String.valueOf(e.getMessage()));
        }
    }

    /** What stands in braces. */
    public List<String> names() {
        return List.copyOf(variables.keySet());
    }

    /**
     * The value now.
     *
     * @param now what a name stands for; null where it has no value yet
     * @throws FormulaFault if a name has no value, or the kinds do not fit
     */
    public Value value(Function<String, @Nullable Value> now) throws FormulaFault {
        try {
            Expression fresh = expression.copy();
            for (Map.Entry<String, String> v : variables.entrySet()) {
                Value value = now.apply(v.getKey());
                if (value == null) {
                    throw new FormulaFault(source.indexOf("{" + v.getKey() + "}") + 1,
                            "“" + v.getKey() + "” has no value yet");
                }
                fresh.with(v.getValue(), switch (value) {
                    case Value.Num n -> (Object) n.number();
                    case Value.Flag f -> f.on();
                    case Value.Text t -> t.text();
                    case Value.Choices c -> c.toString();
                });
            }
            EvaluationValue result = fresh.evaluate();
            return result.isBooleanValue()
                    ? Value.of(result.getBooleanValue())
                    : result.isNumberValue()
                            ? Value.of(result.getNumberValue().doubleValue())
                            : Value.of(String.valueOf(result.getStringValue()));
        } catch (EvaluationException e) {
            throw new FormulaFault(e.getStartPosition(), String.valueOf(e.getMessage()));
        } catch (ParseException e) {
            throw new FormulaFault(e.getStartPosition(), String.valueOf(e.getMessage()));
        } catch (ArithmeticException e) {
            throw new FormulaFault(0, "it cannot be computed: " + e.getMessage());
        }
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
            int depth = 0;
            int end = open;
            for (; end < text.length(); end++) {
                depth += text.charAt(end) == '{' ? 1 : text.charAt(end) == '}' ? -1 : 0;
                if (depth == 0) {
                    break;
                }
            }
            if (end == text.length()) {
                break;
            }
            out.append(text, at, open);
            String inside = text.substring(open + 1, end);
            if (inside.startsWith("=")) {
                try {
                    out.append(new Formula(inside.substring(1)).value(now));
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
