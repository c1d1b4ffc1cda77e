package rombix.core.board;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import rombix.core.chain.Comparison;
import rombix.core.chain.Condition;
import rombix.core.value.Formula;
import rombix.core.value.FormulaFault;
import rombix.core.value.Value;

/** Conditions of one and of several parts, and what isn't known. */
class QuestionTest {
    private static final Condition ON = Condition.OnReading.is("studio", "streaming", Value.of(true));
    private static final Condition LOUD = new Condition.OnReading("desk", "level/host", Comparison.above(-10));
    private static final Condition ROUND = new Condition.OnValue("round", Comparison.is(Value.of(3)));

    private static Boolean asked(Condition condition, Map<String, Value> now) {
        return Question.of(condition).orElseThrow().known(now::get);
    }

    @Test
    void severalPartsAreAllOrAny() {
        Map<String, Value> now = Map.of("studio:streaming", Value.of(true), "desk:level/host", Value.of(-20), "round",
                Value.of(3));
        assertThat(asked(new Condition.All(List.of(ON, ROUND)), now)).isTrue();
        assertThat(asked(new Condition.All(List.of(ON, LOUD)), now)).isFalse();
        assertThat(asked(new Condition.Any(List.of(LOUD, ROUND)), now)).isTrue();
        assertThat(asked(new Condition.All(List.of(ON, new Condition.Not(LOUD))), now)).isTrue();
        assertThat(question(new Condition.All(List.of(ON, ROUND))).names()).containsExactly("studio:streaming",
                "round");
    }

    @Test
    void whatIsNotKnownMakesNothingTrueNorItsOpposite() {
        Map<String, Value> now = Map.of("studio:streaming", Value.of(true));
        assertThat(asked(LOUD, now)).isNull();
        assertThat(asked(new Condition.Not(LOUD), now)).isNull();
        assertThat(asked(new Condition.All(List.of(ON, LOUD)), now)).isNull();
        assertThat(asked(new Condition.Any(List.of(LOUD, ON)), now)).as("one is so, whatever the other").isTrue();
        assertThat(asked(new Condition.All(List.of(LOUD, new Condition.Not(ON))), now)).isFalse();
    }

    @Test
    void aFormulaAmongTheParts() throws FormulaFault {
        Condition both = new Condition.Any(List.of(new Condition.Computed("{desk:level/host} > 0"), ON));
        assertThat(asked(both, Map.of("studio:streaming", Value.of(true)))).isTrue();
        Question open = new Question(both);
        assertThatThrownBy(() -> open.answer(Map.of("studio:streaming", Value.of(false))::get)).isInstanceOf(
                FormulaFault.class).hasMessageContaining("has no value yet");
        assertThatThrownBy(() -> new Question(new Condition.All(List.of(new Condition.Computed("1 +"))))).isInstanceOf(
                FormulaFault.class);
    }

    @Test
    void timesOfDayGoOverMidnight() {
        Condition night = new Condition.Daytime("22:00", "2:00");
        for (Map.Entry<Integer, Boolean> hour : Map.of(23, true, 1, true, 2, false, 21, false).entrySet()) {
            assertThat(asked(night, Map.of(Formula.CLOCK, Value.of(hour.getKey() * 3600)))).as("at %s", hour.getKey())
                    .isEqualTo(hour.getValue());
        }
        assertThat(asked(new Condition.Daytime("20:15:30", null), Map.of(Formula.CLOCK, Value.of(20 * 3600 + 15 * 60
                + 29)))).isFalse();
        assertThatThrownBy(() -> new Condition.Daytime("25:00", null)).hasMessageContaining("not a time of day");
    }

    @Test
    void textsContainAndMatch() {
        Value said = Value.of("Please !Vote gulls now");
        assertThat(Comparison.contains("!vote").holds(said)).isTrue();
        assertThat(Comparison.contains("herons").holds(said)).isFalse();
        assertThat(Comparison.pattern("^!Vote").holds(said)).isFalse();
        assertThat(Comparison.pattern("!Vote (?<bird>\\w+)").parts(said)).containsEntry("says", said).containsEntry(
                "part1", Value.of("gulls")).containsEntry("bird", Value.of("gulls"));
    }

    @Test
    void otherwiseIsForWhereNoneOfTheOthersIsSo() {
        List<Question> of = List.of(new Question[]{question(new Condition.Otherwise()), question(ON), question(LOUD)});
        assertThat(Question.first(of, q -> q.known(Map.of("studio:streaming", Value.of(true))::get))).isEqualTo(1);
        assertThat(Question.first(of, q -> q.known(Map.of("studio:streaming", Value.of(false))::get))).isZero();
        assertThat(Question.first(of, q -> q.known(_ -> null))).as("nothing is known of any").isEqualTo(-1);
    }

    private static Question question(Condition of) {
        return Question.of(of).orElseThrow();
    }
}
