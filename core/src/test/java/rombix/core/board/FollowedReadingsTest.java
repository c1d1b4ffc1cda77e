package rombix.core.board;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import rombix.core.store.BoardFile;
import rombix.core.store.CardLibrary;

class FollowedReadingsTest {
    private static final String CARD = """
            {"card": 2, "id": "urn", "title": "Urn", "lists": {"drink": [{"id": "tea"}]}, "readings": [
              {"id": "hot/{drink}", "type": "number", "min": 0, "max": 9}, {"id": "level", "type": "number"}],
             "commands": [{"id": "heat", "params": [{"id": "drink", "type": "choice", "choices": "drink"}, {"id": "to", "type": "number", "min": 0, "max": 9}],
               "send": {"osc": [{"to": "/heat", "args": ["{to}"]}]}, "changes": [{"reading": "hot/{drink}", "to": "{to}"}]}]}
            """;
    private static final String BOARD = """
            {"rombix": 1, "name": "B", "gear": [{"id": "urn", "card": "urn", "link": {"protocol": "osc", "address": "a:1"}}],
             "pages": [{"id": "p", "name": "P", "buttons": [
              {"id": "a", "column": 0, "row": 0, %s "states": [{"id": "s", %s "on": {"press": [%s]}}]}]}]}
            """;

    private static FollowedReadings of(String button, String state, String step) throws Exception {
        return new FollowedReadings(
                BoardFile.parse(Path.of("board.json"), BOARD.formatted(button, state, step), Map.of("urn",
                        CardLibrary.read(Path.of("urn.json"), CARD))));
    }

    @ParameterizedTest
    @ValueSource(strings = {
            "|'when': {'gear': 'urn', 'reading': 'hot/tea', 'is': 1},|",
            "|'face': {'tally': [{'when': {'gear': 'urn', 'reading': 'hot/tea', 'is': 1}, 'word': 'HOT'}]},|",
            "'control': {'control': 'dial', 'level': {'gear': 'urn', 'reading': 'hot/tea'}},||",
            "'triggers': [{'trigger': 'becomes', 'condition': {'gear': 'urn', 'reading': 'hot/tea', 'is': 1}}],||",
            "||{'step': 'wait', 'condition': {'gear': 'urn', 'reading': 'hot/tea', 'is': 1}}",
            "||{'step': 'if', 'condition': '{urn:hot/tea} > 3', 'then': []}",
            "||{'step': 'say', 'text': 'It is {urn:hot/tea}'}"})
    void whatNamesAReadingFollowsIt(String where) throws Exception {
        String[] parts = (where.replace('\'', '"') + " ").split("\\|");
        FollowedReadings followed = of(parts[0], parts[1], parts[2].strip());
        assertThat(followed.has("urn", "hot/tea")).isTrue();
        assertThat(followed.has("urn", "hot/")).as("its family").isTrue();
        assertThat(followed.has("urn", "level")).isFalse();
        assertThat(followed.has("pot", "hot/tea")).isFalse();
    }

    @Test
    void anEmptyBoardFollowsNothing() {
        assertThat(new FollowedReadings(Board.empty("B")).has("urn", "")).isFalse();
    }
}
