package rombix.core.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Wrong cards, each with its place and what was expected there. */
class CardCheckTest {
    private static final String CARD = """
            {"card": 1, "id": "x", "title": "X",
             "lists": {"lamp": [{"id": "a", "name": "A"}]},
             "readings": [
              {"id": "on/{lamp}", "title": "{lamp}", "type": "flag", "yes": {"word": "ON"}, "no": {"word": "off"}, "arrives": {"osc": {"from": "/on/{lamp}", "arg": 0}}},
              {"id": "level", "type": "number", "min": 0, "max": 100, "arrives": {"osc": {"from": "/level"}}}],
             "commands": [
              {"id": "on", "title": "{lamp} on", "params": [{"id": "lamp", "type": "choice"}],
               "send": {"osc": [{"to": "/set/{lamp}", "args": [true]}]},
               "changes": [{"reading": "on/{lamp}", "to": true}], "undo": {"command": "off", "with": {"lamp": "{lamp}"}}},
              {"id": "off", "title": "{lamp} off", "params": [{"id": "lamp", "type": "choice"}],
               "send": {"osc": [{"to": "/set/{lamp}", "args": [false]}]}},
              {"id": "level", "title": "Level {level}", "params": [{"id": "level", "type": "number", "min": 0, "max": 100, "default": 50}],
               "send": {"osc": [{"to": "/level", "args": [{"of": "level", "from": [0, 100], "to": [0, 1]}]}]}}]}
            """;

    @ParameterizedTest
    @CsvSource(quoteCharacter = '~', value = {"\"arg\": 0, \"arg\": -1, \"arg\" counts from 0",
            "\"min\": 0| \"max\": 100| \"arrives\", \"min\": 100| \"max\": 0| \"arrives\", isn't below the maximum",
            "\"default\": 50, \"default\": \"loud\", isn't a number",
            "\"no\": {\"word\": \"off\"}| , , “yes” and “no” belong together",
            "\"/set/{lamp}\"| \"args\": [true], \"/set/{channel.num}\"| \"args\": [true], no parameter “channel”",
            "\"lists\": {\"lamp\", \"lists\": {\"light\", no list “lamp”",
            "\"with\": {\"lamp\", \"with\": {\"channel\", has no parameter “channel”",
            "\"{lamp} off\", \"{channel} off\", “{channel}” is undefined",
            "\"id\": \"off\", \"id\": \"on\", two commands have the id “on”",
            "\"id\": \"level\"| \"type\": \"number\"| \"min\": 0| \"max\": 100| \"arrives\": {\"osc\": {\"from\": \"/level\"}}, \"id\": \"on/{lamp}\"| \"type\": \"flag\"| \"arrives\": {\"osc\": {\"from\": \"/on/{lamp}\"}}, two readings have the id",
            "\"from\": \"/level\", \"from\": \"level\", isn't a valid",
            "\"of\": \"level\", \"of\": \"volume\", no parameter “volume” here",
            "\"command\": \"off\", \"command\": \"gone\", no command “gone”",
            "\"reading\": \"on/{lamp}\", \"reading\": \"lit/{lamp}\", no reading “lit/{lamp}”",
            "\"type\": \"number\"| \"min\": 0| \"max\": 100| \"default\", \"type\": \"list\"| \"default\", its type is number"})
    void whatIsWrongIsToldWithItsPlace(String from, String to, String message) {
        String right = from.replace('|', ',');
        assertThat(CARD).contains(right);
        String wrong = CARD.replace(right, to == null ? "" : to.replace('|', ','));
        List<BadFile> found = CardLibrary.check(Path.of("x.json"), wrong);
        assertThat(found).anySatisfy(f -> {
            assertThat(f.getMessage()).contains(message).doesNotContain("java.", "rombix.core");
            assertThat(f.line()).isPositive();
            assertThat(f.column()).isPositive();
        });
    }

    @Test
    void twoReadingsThatCannotBeToldApartAreFound() {
        String twin = CARD.replace("\"readings\": [", "\"readings\": [{\"id\": \"second\", \"type\": \"number\","
                + " \"arrives\": {\"osc\": {\"from\": \"/level\"}}},");
        assertThat(CardLibrary.check(Path.of("x.json"), twin)).singleElement()
                .satisfies(f -> assertThat(f).hasMessageContaining(
                        "can't be distinguished"));
    }

    @Test
    void theCardItselfIsRight() {
        assertThat(CardLibrary.check(Path.of("x.json"), CARD)).isEmpty();
    }

    @Test
    void aBadCardOrAFileThatIsNoCardStopsOnlyWhoUsesIt(@TempDir Path folder) throws Exception {
        Path cards = Files.createDirectory(folder.resolve("cards"));
        Files.write(cards.resolve("picture.json"), new byte[]{(byte) 0x89, 'P', 'N', 'G', (byte) 0xFF});
        Files.writeString(cards.resolve("half.json"), "{\"card\": 1, \"id\": \"half\"");
        Files.writeString(cards.resolve("x.json"), CARD);
        Files.writeString(cards.resolve("again.json"), CARD);
        Path board = folder.resolve("b.json");
        Files.copy(Path.of("../demo/star-night.json"), board);
        assertThat(BoardFile.read(board).board().name()).isEqualTo("Star Night");
        assertThat(CardLibrary.found(board).bad()).containsOnlyKeys("picture", "half", "x");
        Files.writeString(board, Files.readString(board).replaceFirst("\"card\": \"studio\"", "\"card\": \"half\""));
        assertThatThrownBy(() -> BoardFile.read(board)).isInstanceOf(BadFile.class).hasMessageContaining("half.json");
    }
}
