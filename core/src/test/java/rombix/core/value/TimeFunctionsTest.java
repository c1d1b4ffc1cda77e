package rombix.core.value;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class TimeFunctionsTest {
    private static String at(int hour, int minute, int second, String formula) throws FormulaFault {
        Value clock = Formula.clock(ZonedDateTime.of(2026, 3, 14, hour, minute, second, 999_000_000, ZoneOffset.UTC));
        return new Formula(formula).value(n -> n.equals(Formula.CLOCK) ? clock : null).toString();
    }

    @ParameterizedTest
    @CsvSource({"21,0,0,1800", "21,29,59,1", "21,30,0,0", "21,31,0,-60", "9,29,59,-43199", "9,30,0,43200",
            "23,30,0,-7200"})
    void theTimeUntilATimeOfDayIsBelowZeroAfterIt(int hour, int minute, int second, String seconds)
            throws FormulaFault {
        assertThat(at(hour, minute, second, "TIME_TO(\"21:30\")")).isEqualTo(seconds);
    }

    @Test
    void midnightLiesBetween() throws FormulaFault {
        assertThat(at(23, 0, 0, "TIME_TO(\"1:00\")")).isEqualTo("7200");
        assertThat(at(0, 0, 10, "NOW()")).isEqualTo("10");
        assertThat(at(0, 10, 0, "TIME_TO(\"23:50:30\")")).isEqualTo("-1170");
    }

    @ParameterizedTest
    @CsvSource({"90,mm:ss,01:30", "3700,mm:ss,61:40", "3700,h:mm:ss,1:01:40", "5,s,5", "-61,m:ss,-1:01", "59.9,ss,59",
            "7260,hh:mm,02:01"})
    void spansAreWrittenAsTheFormatSays(String seconds, String format, String written) throws FormulaFault {
        assertThat(at(0, 0, 0, "FORMAT_TIME(" + seconds + ", \"" + format + "\")")).isEqualTo(written);
    }

    @Test
    void whatIsNoTimeIsSaid() {
        assertThatThrownBy(() -> at(0, 0, 0, "TIME_TO(\"soon\")")).hasMessageContaining("21:30");
        assertThatThrownBy(() -> at(0, 0, 0, "FORMAT_TIME(1, \"x\")")).hasMessageContaining("mm:ss");
        assertThatThrownBy(() -> new Formula("NOW()").value(_ -> null)).hasMessageContaining("isn't available here");
    }

    @Test
    void onlyFormulasThatAskForTheTimeChangeWithIt() throws FormulaFault {
        assertThat(Formula.ticks("Doors in {=FORMAT_TIME(TIME_TO(\"20:00\"), \"mm:ss\")}")).isTrue();
        assertThat(new Formula("{known} + 1").watched()).containsExactly("known");
        assertThat(new Formula("NOW() > {late}").watched()).containsExactly("late", Formula.CLOCK);
        assertThat(Formula.ticks("KNOWN(1)")).isFalse();
    }

    @Test
    void eachFunctionThatIsListedCanBeComputedAsItStandsThere() {
        assertThat(FormulaFunction.ALL).allSatisfy(f -> assertThat(at(12, 0, 0, f.call())).as(f.call()).isNotBlank());
    }
}
