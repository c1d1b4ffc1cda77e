package rombix.core.value;

import com.ezylang.evalex.EvaluationException;
import com.ezylang.evalex.Expression;
import com.ezylang.evalex.data.EvaluationValue;
import com.ezylang.evalex.functions.AbstractFunction;
import com.ezylang.evalex.functions.FunctionParameter;
import com.ezylang.evalex.operators.AbstractOperator;
import com.ezylang.evalex.operators.InfixOperator;
import com.ezylang.evalex.operators.OperatorIfc;
import com.ezylang.evalex.operators.arithmetic.InfixPlusOperator;
import com.ezylang.evalex.parser.ASTNode;
import com.ezylang.evalex.parser.Token;
import java.math.BigDecimal;
import java.math.RoundingMode;
import org.jspecify.annotations.Nullable;

/**
 * Numbers in texts: whole ones without a point, others as finely as their step says, and with at most six places where
 * they have none. Never with an exponent, and with a point whatever the language of the system is.
 */
public final class NumberText {
    private static final int PLACES = 6;
    private static final int MOST_DIGITS = 15;
    /** Beside a variable of an expression stands its step, under the variable's name with this behind it. */
    static final String STEP = "step";

    private NumberText() {
    }

    /** @param step the least difference that counts; null where there is none */
    public static String of(double number, @Nullable Double step) {
        if (!Double.isFinite(number)) {
            return String.valueOf(number);
        }
        BigDecimal plain = BigDecimal.valueOf(step == null ? number : stepped(number, step)).setScale(PLACES,
                RoundingMode.HALF_UP).stripTrailingZeros();
        return (plain.signum() == 0 ? BigDecimal.ZERO : plain).toPlainString();
    }

    /** The number that is nearest to another one and a whole number of steps from zero. */
    public static double stepped(double number, double step) {
        BigDecimal exact = BigDecimal.valueOf(step);
        return step <= 0 || !Double.isFinite(number)
                ? number
                : BigDecimal.valueOf(number).divide(exact, 0, RoundingMode.HALF_UP).multiply(exact).doubleValue();
    }

    private static String text(EvaluationValue value, @Nullable Double step) {
        return value.isNumberValue()
                ? of(value.getNumberValue().doubleValue(), step)
                : String.valueOf(value.getStringValue());
    }

    /** Adds numbers, and joins all else as text. */
    @InfixOperator(precedence = OperatorIfc.OPERATOR_PRECEDENCE_ADDITIVE, operandsLazy = true)
    static final class Plus extends AbstractOperator {
        private static final InfixPlusOperator NUMBERS = new InfixPlusOperator();

        @Override
        public EvaluationValue evaluate(Expression of, Token token, EvaluationValue... given)
                throws EvaluationException {
            ASTNode left = given[0].getExpressionNode();
            ASTNode right = given[1].getExpressionNode();
            EvaluationValue first = of.evaluateSubtree(left);
            EvaluationValue second = of.evaluateSubtree(right);
            return first.isStringValue() || second.isStringValue()
                    ? EvaluationValue.stringValue(text(first, step(of, left)) + text(second, step(of, right)))
                    : NUMBERS.evaluate(of, token, first, second);
        }

        private static @Nullable Double step(Expression of, ASTNode node) {
            EvaluationValue step = node.getToken().getType() == Token.TokenType.VARIABLE_OR_CONSTANT
                    ? of.getDataAccessor().getData(node.getToken().getValue() + STEP)
                    : null;
            return step == null ? null : Double.valueOf(step.getNumberValue().doubleValue());
        }
    }

    /** {@code TEXT(x, digits)}: a number with just so many places after the point. */
    @FunctionParameter(name = "value")
    @FunctionParameter(name = "digits")
    static final class Text extends AbstractFunction {
        @Override
        public EvaluationValue evaluate(Expression of, Token token, EvaluationValue... given)
                throws EvaluationException {
            int digits = given[1].getNumberValue().intValue();
            if (digits < 0 || digits > MOST_DIGITS) {
                throw new EvaluationException(token, "TEXT takes 0 to " + MOST_DIGITS + " digits");
            }
            return EvaluationValue.stringValue(given[0].getNumberValue().setScale(digits, RoundingMode.HALF_UP)
                    .toPlainString());
        }
    }
}
