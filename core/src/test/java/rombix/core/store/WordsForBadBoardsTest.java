package rombix.core.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What is wrong with a board is said in words of the board, with its place. */
class WordsForBadBoardsTest {
    private static final String BOARD = """
            {"rombix": 1, "pages": [{"id": "p", "columns": 2, "rows": 2, "buttons": [
            {"id": "b", "column": 0, "row": 0,
            "states": [{"id": "s", "on": {"press": [%s]}}]%s}]}]}
            """;

    private static BadFile wrong(String board) {
        return catchThrowableOfType(BadFile.class, () -> BoardFile.parse(Path.of("b.json"), board, CardLibrary
                .shipped()));
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', quoteCharacter = '`', value = {
            "null | expected an object",
            "{'step': null} | “step” is missing: expected one of do, fade, nudge,",
            "{'step': 'dance'} | unknown step “dance”; expected one of do, fade, nudge,",
            "{'step': 'wait', 'ms': 99999999999999999999} | this number is out of range: expected a whole number",
            "{'step': 'if', 'condition': '1', 'then': {'steps': null}} | expected a list in [ ]",
            "{'step': 'pick', 'way': 'random', 'choices': [null]} | null isn't allowed here for “choices”",
            "{'step': 'do', 'gear': 'g', 'command': 'c', 'with': {'to': null}} | null isn't allowed here for “to”",
            "{'step': 'say', 'text': 'x', 'text': 'y'} | the field “text” is given twice"})
    void inAChain(String step, String words) {
        BadFile wrong = wrong(BOARD.formatted(step.replace('\'', '"'), ""));
        assertThat(wrong).hasMessageContaining(words);
        assertThat(wrong.line()).isEqualTo(3);
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', quoteCharacter = '`', value = {
            "'triggers': [null] | null isn't allowed here for “triggers”",
            "'triggers': [{'trigger': 'dance'}] | unknown trigger “dance”; expected one of key, midi,",
            "'triggers': [{'key': 'F5'}] | “trigger” is missing: expected one of key, midi,",
            "'control': {'control': 'wheel'} | unknown control “wheel”; expected one of dial, fader,",
            "'width': 99999999999 | this number is out of range: expected a whole number from −2147483648"})
    void ofAButton(String field, String words) {
        BadFile wrong = wrong(BOARD.formatted("", ", " + field.replace('\'', '"')));
        assertThat(wrong).hasMessageContaining(words);
        assertThat(wrong.line()).isEqualTo(3);
    }

    @Test
    void aNumberOfAnyLengthIsNotTakenForNesting() {
        assertThat(wrong(BOARD.formatted("{\"step\": \"wait\", \"ms\": " + "9".repeat(5000) + "}", "")))
                .hasMessageContaining("this number is too long").hasMessageNotContaining("nested");
    }

    @Test
    void aBoardThatIsNullIsNone() {
        assertThat(wrong("null")).hasMessageContaining("expected an object in { }, not null");
        assertThat(wrong("{\"rombix\": 1, \"pages\": [null]}")).hasMessageContaining(
                "null isn't allowed here for “pages”");
    }
}
