package rombix.core.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class CardLibraryTest {
    private static final String CARD = """
            {"card": 1, "id": "x", "title": "X",
             "readings": [{"id": "level", "type": "number", "arrives": {"osc": {"from": "/level"}}}],
             "commands": [{"id": "set", "params": [{"id": "v", "type": "number"}],
               "send": {"osc": [{"to": "/set/{v}", "args": [{"of": "v", "from": [0, 1], "to": [0, 9]}]}]},
               "changes": [{"reading": "level", "to": "{v}"}], "undo": {"command": "set"}}]}
            """;

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {"\"reading\": \"level\"|\"reading\": \"levels\"|5|no reading “levels”",
            "/set/{v}|set|4|isn't a valid OSC address", "/set/{v}|/set/{w}|4|no parameter “w”",
            "\"command\": \"set\"|\"command\": \"reset\"|5|no command “reset”",
            "\"type\": \"number\"}|\"type\": \"bumber\"}|3|“bumber” is not one of",
            "\"from\": [0, 1]|\"from\": [0, 0]|4|two different numbers",
            "\"title\"|\"tilt\": 1, \"title\"|1|unknown field “tilt”"})
    void aFlawOfACardHasItsPlace(String from, String to, int line, String message) {
        assertThat(CARD).contains(from);
        assertThatThrownBy(() -> CardLibrary.read(Path.of("x.json"), CARD.replace(from, to)))
                .isInstanceOf(BadFile.class).hasMessageContaining(message).message().startsWith("x.json:" + line + ":");
    }

    @Test
    void cardsThatShipAreWhole() {
        assertThat(CardLibrary.shipped()).containsKeys("studio", "sound-desk", "lamps", "house", "lamp-cues");
    }

    @Test
    void aCardBesideTheBoardIsFound(@TempDir Path folder) throws Exception {
        Files.createDirectory(folder.resolve("cards"));
        Files.writeString(folder.resolve("cards/x.json"), CARD);
        assertThat(CardLibrary.beside(folder.resolve("board.json"))).containsKeys("x", "studio");
    }
}
