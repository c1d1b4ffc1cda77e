package rombix.core.value;

import com.ezylang.evalex.EvaluationException;
import com.ezylang.evalex.Expression;
import com.ezylang.evalex.data.EvaluationValue;
import com.ezylang.evalex.functions.AbstractFunction;
import com.ezylang.evalex.functions.FunctionParameter;
import com.ezylang.evalex.parser.Token;
import java.time.LocalTime;
import java.time.format.DateTimeParseException;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Functions of formulas for the time of day and for spans, all in seconds. */
final class TimeFunctions {
    /** Under which an expression finds the seconds since midnight. */
    static final String NOW = "now_";
    /** A formula, or a text with formulas in it, that changes as time passes. */
    static final Pattern USED = Pattern.compile("\\b(NOW|TIME_TO)\\s*\\(|\\{left}", Pattern.CASE_INSENSITIVE);
    private static final int DAY = 86_400;
    private static final Pattern UNIT = Pattern.compile("h+|m+|s+");

    private TimeFunctions() {
    }

    private static double now(Expression of, Token token) throws EvaluationException {
        EvaluationValue now = of.getDataAccessor().getData(NOW);
        if (now == null) {
            throw new EvaluationException(token, "the time of day isn't available here");
        }
        return now.getNumberValue().doubleValue();
    }

    /** {@code NOW()}: whole seconds since midnight. */
    static final class Now extends AbstractFunction {
        @Override
        public EvaluationValue evaluate(Expression of, Token token, EvaluationValue... given)
                throws EvaluationException {
            return of.convertDoubleValue(now(of, token));
        }
    }

    /** {@code TIME_TO("21:30")}: seconds until that time of day, or one in seconds; below zero for twelve hours after it. */
    @FunctionParameter(name = "time")
    static final class TimeTo extends AbstractFunction {
        @Override
        public EvaluationValue evaluate(Expression of, Token token, EvaluationValue... given)
                throws EvaluationException {
            String time = given[0].getStringValue().strip();
            try {
                double to = given[0].isNumberValue()
                        ? given[0].getNumberValue().doubleValue()
                        : LocalTime.parse(time.indexOf(':') == 1 ? "0" + time : time).toSecondOfDay();
                double rest = (to - now(of, token)) % DAY;
                return of.convertDoubleValue(rest > DAY / 2.0 ? rest - DAY : rest <= -DAY / 2.0 ? rest + DAY : rest);
            } catch (DateTimeParseException e) {
                throw new EvaluationException(token, "“" + time + "” is not a time of day such as 21:30");
            }
        }
    }

    /** {@code FORMAT_TIME(seconds, "mm:ss")}: a span in hours (h), minutes (m) and seconds (s). */
    @FunctionParameter(name = "seconds")
    @FunctionParameter(name = "format")
    static final class FormatTime extends AbstractFunction {
        @Override
        public EvaluationValue evaluate(Expression of, Token token, EvaluationValue... given)
                throws EvaluationException {
            String format = given[1].getStringValue();
            if (!UNIT.matcher(format).find()) {
                throw new EvaluationException(token, "“" + format + "” is not a format such as mm:ss or h:mm:ss");
            }
            long seconds = (long) Math.floor(given[0].getNumberValue().doubleValue());
            return EvaluationValue.stringValue((seconds < 0 ? "-" : "") + written(Math.abs(seconds), format));
        }

        private static String written(long seconds, String format) {
            boolean hours = format.contains("h");
            boolean minutes = format.contains("m");
            Matcher unit = UNIT.matcher(format);
            return unit.replaceAll(m -> {
                long number = switch (m.group().charAt(0)) {
                    case 'h' -> seconds / 3600;
                    case 'm' -> hours ? seconds / 60 % 60 : seconds / 60;
                    default -> minutes ? seconds % 60 : hours ? seconds % 3600 : seconds;
                };
                return String.format(Locale.ROOT, "%0" + m.group().length() + "d", number);
            });
        }
    }
}
