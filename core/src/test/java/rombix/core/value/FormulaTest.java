package rombix.core.value;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Map;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.Combinators;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class FormulaTest {
    private static final Map<String, Value> NOW = Map.of("n", Value.of(4), "desk:level/host", Value.of(-12.5), "on",
            Value.of(true), "name", Value.of("Vega"));

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {"1 + 2 * 3 | 7", "{n} * 2 | 8", "{desk:level/host} + 0.5 | -12",
            "MIN({n}, 3) + MAX(1, 2) | 5", "ROUND(2.567, 1) | 2.6", "IF({on}, 10, 20) | 10", "{n} % 3 | 1",
            "ABS(0 - 3) | 3", "FLOOR(2.9) + CEILING(2.1) | 5"})
    void computesNumbers(String source, double expected) throws FormulaFault {
        assertThat(new Formula(source).value(NOW::get).asNumber()).isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {"{n} == 4 | true", "{n} > 4 | false", "{on} && {n} < 5 | true",
            "!{on} | false", "{name} == \"Vega\" | true", "CONTAINS({name}, \"eg\") | true", "NOT({on}) | false"})
    void computesYesAndNo(String source, boolean expected) throws FormulaFault {
        assertThat(new Formula(source).value(NOW::get)).isEqualTo(Value.of(expected));
    }

    @Test
    void computesTexts() throws FormulaFault {
        assertThat(new Formula("\"Next: \" + {name}").value(NOW::get)).isEqualTo(Value.of("Next: Vega"));
        assertThat(new Formula("UPPER({name})").value(NOW::get)).isEqualTo(Value.of("VEGA"));
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {"1 + | 3", "foo + 1 | 1", "{n} + * 2 | 7", "(1 | 1"})
    void aFaultHasItsPlace(String source, int position) {
        assertThatThrownBy(() -> new Formula(source)).isInstanceOfSatisfying(FormulaFault.class, e -> {
            assertThat(e.position()).isEqualTo(position);
            assertThat(e.getMessage()).isNotBlank();
        });
    }

    @Test
    void whatHasNoValueYetIsSaidWhereItStands() throws FormulaFault {
        assertThatThrownBy(() -> new Formula("1 + {gone}").value(NOW::get)).isInstanceOfSatisfying(FormulaFault.class,
                e -> assertThat(e.position()).isEqualTo(5)).hasMessageContaining("gone");
        assertThatThrownBy(() -> new Formula("1 / 0").value(NOW::get)).isInstanceOf(FormulaFault.class);
    }

    /** Found by feeding spoiled formulas. */
    @ParameterizedTest
    @ValueSource(strings = {"ROUND(/ 7, 2)", "ROUND(MAX(1, 3.5) / !, 2)", "IF(, 1, 2)"})
    void anOperatorWithNothingOnOneSideIsAFaultAndNoError(String source) {
        assertThatThrownBy(() -> new Formula(source).value(NOW::get)).isInstanceOf(FormulaFault.class);
    }

    @Test
    void textsAreFilled() {
        assertThat(Formula.fill("{name} is {= {n} * 2}° up, {gone}", NOW::get, n -> "“" + NOW.get(n) + "”")).isEqualTo(
                "“Vega” is 8° up, —");
        assertThat(Formula.fill("no end {", NOW::get, String::valueOf)).isEqualTo("no end {");
        assertThat(Formula.fill("{= 1 + }", NOW::get, String::valueOf)).isEqualTo("?");
    }

    /** A formula made from the grammar, and what it must give: computed here by other means. */
    record Made(String source, double expected) {
    }

    @Provide
    Arbitrary<Made> formulas() {
        Arbitrary<Made> leaves = Arbitraries.oneOf(Arbitraries.integers().between(0, 99).map(n -> new Made(String
                .valueOf(n), n)), Arbitraries.of(new Made("{n}", 4), new Made("{desk:level/host}", -12.5), new Made(
                        "IF({on}, 1, 0)", 1)));
        return Arbitraries.recursive(() -> leaves,
                deeper -> Combinators.combine(deeper, leaves, Arbitraries.of("+", "-",
                        "*", "MIN", "MAX", "IF", "ABS", ">")).as(FormulaTest::combined),
                0, 6);
    }

    private static Made combined(Made a, Made b, String how) {
        return switch (how) {
            case "+" -> new Made("(" + a.source() + " + " + b.source() + ")", a.expected() + b.expected());
            case "-" -> new Made("(" + a.source() + "-" + b.source() + ")", a.expected() - b.expected());
            case "*" -> new Made("(" + a.source() + " *" + b.source() + ")", a.expected() * b.expected());
            case "MIN" -> new Made("MIN(" + a.source() + ", " + b.source() + ")", Math.min(a.expected(), b.expected()));
            case "MAX" -> new Made("MAX(" + a.source() + "," + b.source() + ")", Math.max(a.expected(), b.expected()));
            case "IF" -> new Made("IF(" + a.source() + " >= " + b.source() + ", 2, 3)", a.expected() >= b.expected()
                    ? 2
                    : 3);
            case "ABS" -> new Made("ABS(" + a.source() + ")", Math.abs(a.expected()));
            default -> new Made("IF(" + a.source() + " > " + b.source() + " && {on}, " + b.source() + ", " + a.source()
                    + ")", a.expected() > b.expected() ? b.expected() : a.expected());
        };
    }

    @Property(tries = 1000)
    void whatTheGrammarMakesIsComputedRight(@ForAll("formulas") Made made) throws FormulaFault {
        assertThat(new Formula(made.source()).value(NOW::get).asNumber()).as(made.source()).isCloseTo(made.expected(),
                within(Math.abs(made.expected()) * 1e-9 + 1e-9));
    }

    /** A formula of the grammar that was damaged is computed or refused at a place within it, and never else. */
    @Property(tries = 1000)
    void aDamagedFormulaIsRefusedAtAPlaceWithinIt(@ForAll("formulas") Made made, @ForAll @IntRange(max = 1000) int at,
            @ForAll char put) {
        int cut = at % made.source().length();
        String damaged = made.source().substring(0, cut) + put + made.source().substring(cut + 1);
        try {
            new Formula(damaged).value(NOW::get);
        } catch (FormulaFault e) {
            assertThat(e.getMessage()).as(damaged).isNotBlank();
            assertThat(e.position()).as(damaged).isBetween(0, damaged.length() + 1);
        }
    }

    @ParameterizedTest
    @Timeout(5)
    @ValueSource(strings = {"ROUND(1.5, 10000000)", "9^9^9^9", "1E999999999", "FLOOR(1E200 * 1E200)", "CEILING(1e1000)",
            "ROUND(1, -99999)"})
    void noFormulaHoldsAnybodyUp(String formula) {
        assertThatThrownBy(() -> new Formula(formula).value(_ -> null)).isInstanceOf(FormulaFault.class);
    }

    @Test
    @Timeout(5)
    void aTextThatDoublesEndsBeforeItTakesAllMemory() {
        String[] s = {"x"};
        assertThatThrownBy(() -> {
            for (int i = 0; i < 40; i++) {
                s[0] = new Formula("{s} + {s}").value(_ -> Value.of(s[0])).toString();
            }
        }).isInstanceOf(FormulaFault.class).hasMessageContaining("10000 characters");
        assertThat(s[0]).hasSizeLessThanOrEqualTo(10_000);
    }

    @Test
    void bracketsWithoutEndAreAFaultAndNoOverflow() {
        assertThatThrownBy(() -> new Formula("(".repeat(900) + "1" + ")".repeat(900) + "+").value(_ -> null))
                .isInstanceOf(FormulaFault.class);
    }

    /** {@code "PRESS " + {n}} sent {@code PRESS 1.0}, and a level went out as {@code -37.95275590551181}. */
    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {"\"PRESS \" + {n} | PRESS 4", "{n} + \" of \" + 3.0 | 4 of 3",
            "\"at \" + {desk:level/host} + \" dB\" | at -12.5 dB", "\"at \" + {level} | at -38",
            "\"to \" + ({level} * 2) | to -75.905512", "\"x\" + 0.1 * 3 | x0.3",
            "TEXT({level}, 2) + \" dB\" | -37.95 dB", "\"n\" + TEXT({n}, 1) | n4.0", "{n} + {n} + \"!\" | 8!",
            "{on} + \"?\" | true?"})
    void numbersThatAreJoinedToTextsReadAsPeopleWriteThem(String source, String expected) throws FormulaFault {
        Map<String, Value> now = new java.util.HashMap<>(NOW);
        now.put("level", Value.of(-37.95275590551181));
        assertThat(new Formula(source).value(now::get, name -> name.equals("level") ? 0.1 : null)).isEqualTo(Value.of(
                expected));
    }

    @Test
    void aNumberAsTextHasNoPointWhereItIsWholeAndNeverAnExponent() {
        assertThat(Value.of(1.0)).hasToString("1");
        assertThat(Value.of(-37.95275590551181)).hasToString("-37.952756");
        assertThat(Value.of(1e7)).hasToString("10000000");
        assertThat(Value.of(1.5e-3)).hasToString("0.0015");
        assertThat(Value.of(-1e-9)).hasToString("0");
        assertThat(NumberText.of(-37.95275590551181, 0.5)).isEqualTo("-38");
        assertThat(NumberText.of(0.30000000000000004, 0.1)).isEqualTo("0.3");
    }

    @Test
    void placesOfATextAreItsOuterBraces() {
        assertThat(Formula.places("a {x} b {= 2 * {y}} {open")).containsExactly("x", "= 2 * {y}");
    }
}
