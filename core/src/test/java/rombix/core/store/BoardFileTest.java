package rombix.core.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import rombix.core.board.Board;
import rombix.core.chain.Chain;
import rombix.core.chain.DeckStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;

class BoardFileTest {
    private static final Path DEMO = Path.of("../demo/star-night.json");

    /** A flaw of the second button. */
    private static Arguments second(String what, String field, String message) {
        return flaw(what, "\"column\": 1,", "\"column\": 1, " + field + ",", 5, message);
    }

    static Stream<Arguments> flaws() {
        return Stream.of(
                flaw("a syntax error", "\"name\": \"B\",", "\"name\": \"B\" \"x\",", 1, "not JSON here"),
                flaw("an unfinished file", "]}]}", "]", 7, "not JSON here"),
                flaw("an unknown step", "\"step\": \"wait\"", "\"step\": \"dance\"", 4, "unknown step “dance”"),
                flaw("a wrong type", "\"ms\": 100", "\"ms\": \"soon\"", 4, "a whole number for “ms”"),
                flaw("a negative wait", "\"ms\": 100", "\"ms\": -1", 4, "0 or more"),
                flaw("a missing gear", "\"gear\": \"studio\", \"command\": \"scene\"",
                        "\"gear\": \"stadium\", \"command\": \"scene\"", 4, "no gear “stadium” on this board"),
                flaw("a missing command", "\"command\": \"scene\"", "\"command\": \"scenery\"", 4,
                        "Studio has no command “scenery”"),
                flaw("an argument that is none", "{\"scene\": \"host-desk\"}", "{\"scenes\": \"host-desk\"}", 4,
                        "“scene” takes no “scenes”"),
                flaw("a missing argument", "\"with\": {\"scene\": \"host-desk\"}", "\"with\": {}", 4,
                        "needs a value for “scene”"),
                flaw("a missing card", "\"card\": \"studio\"", "\"card\": \"studios\"", 2, "no card “studios”"),
                flaw("a missing reading", "\"reading\": \"stream\"", "\"reading\": \"streams\"", 4,
                        "Studio reports no “streams”"),
                flaw("a duplicate id", "\"id\": \"two\"", "\"id\": \"one\"", 5, "two buttons have the id “one”"),
                flaw("overlap on the page", "\"column\": 1", "\"column\": 0", 5, "overlap on the page"),
                second("a trigger that is none", "\"triggers\": [{\"trigger\": \"wish\"}]", "wish"),
                second("a time that is none", "\"triggers\": [{\"trigger\": \"clock\", \"at\": \"noon\"}]",
                        "“noon” is not a time; write 21:30"),
                second("a channel that is none", "\"triggers\": [{\"trigger\": \"midi\", \"port\": \"P\","
                        + " \"message\": \"note\", \"channel\": 17, \"number\": 3}]", "channels 1 to 16"),
                second("an OSC address that is none", "\"triggers\": [{\"trigger\": \"osc\", \"address\": \"go\"}]",
                        "begins with /"),
                second("a trigger by gear that is not there", "\"triggers\": [{\"trigger\": \"when\", \"what\":"
                        + " \"gear-lost\", \"gear\": \"moon\"}]", "no gear “moon”"),
                second("a fader without its level", "\"control\": {\"control\": \"fader\"}", "needs its \"level\""),
                second("a level that nothing moves", "\"control\": {\"control\": \"fader\", \"level\": {\"gear\":"
                        + " \"studio\", \"reading\": \"clips\"}}", "no adjustable level “clips”"),
                flaw("beyond the page", "\"column\": 1", "\"column\": 9", 5, "extends beyond its page"),
                flaw("a state that is none", "\"then\": \"stay\"", "\"then\": \"away\"", 4, "no state “away”"),
                flaw("a protocol that is none", "\"osc\"", "\"smoke\"", 2,
                        "“smoke” is not one of artnet, desktop, dmx"),
                flaw("a newer format", "\"rombix\": 1", "\"rombix\": 99", 1, "Use a newer Rombix"),
                flaw("no format", "\"rombix\": 1, ", "", 1, "this isn't a board"),
                flaw("a page too large", "\"columns\": 6", "\"columns\": 60", 3, "1×1 to 32×16"));
    }

    private static Arguments flaw(String name, String from, String to, int line, String message) {
        return Arguments.of(name, from, to, line, message);
    }

    private static final String BOARD = """
            {"rombix": 1, "name": "B",
             "gear": [{"id": "studio", "name": "Studio", "card": "studio", "link": {"protocol": "osc", "address": "127.0.0.1:1"}}],
             "pages": [{"id": "p", "columns": 6, "rows": 4, "buttons": [
               {"id": "one", "column": 0, "row": 0, "states": [{"id": "s", "then": "stay", "when": {"gear": "studio", "reading": "stream"}, "on": {"press": [{"step": "wait", "ms": 100}, {"step": "do", "gear": "studio", "command": "scene", "with": {"scene": "host-desk"}}]}}]},
               {"id": "two", "column": 1, "row": 0}
             ]}]}
            """;

    @ParameterizedTest(name = "{0}")
    @MethodSource("flaws")
    void aFlawIsOneSentenceWithItsPlace(String name, String from, String to, int line, String message,
            @TempDir Path folder) throws IOException {
        assertThat(BOARD).contains(from);
        Path file = folder.resolve("bad.json");
        String text = BOARD.replace(from, to);
        Files.writeString(file, text);
        assertThatThrownBy(() -> BoardFile.read(file)).isInstanceOf(BadFile.class).hasMessageContaining(message)
                .message().startsWith(file + ":" + line + ":").doesNotContain("\n").doesNotContain("Exception");
        assertThat(Files.readString(file)).isEqualTo(text);
    }

    @Test
    void theColumnPointsAtTheValue() {
        String text = BOARD.replace("\"gear\": \"studio\", \"command\"", "\"gear\": \"nobody\", \"command\"");
        int column = text.lines().skip(3).findFirst().orElseThrow().indexOf("\"nobody\"") + 1;
        assertThatThrownBy(() -> BoardFile.parse(Path.of("b.json"), text, CardLibrary.shipped()))
                .satisfies(e -> assertThat(((BadFile) e).column()).isEqualTo(column));
    }

    @Test
    void aFileThatIsNotThereIsSaid() {
        assertThatThrownBy(() -> BoardFile.read(Path.of("no/such.json"))).isInstanceOf(BadFile.class)
                .hasMessageContaining("there is no such file");
    }

    @Test
    void theDemoBoardSurvivesARoundTrip() throws BadFile {
        Board demo = BoardFile.read(DEMO).board();
        Board again = BoardFile.parse(DEMO, BoardFile.format(demo), CardLibrary.shipped());
        assertThat(again).isEqualTo(demo);
        assertThat(demo.pages().stream().mapToLong(p -> p.buttons().size()).sum()).isGreaterThanOrEqualTo(14);
    }

    @Test
    void aPageThatPopsUpIsReadAsItWasWrittenBefore() throws BadFile {
        String text = BOARD.replace("{\"step\": \"wait\", \"ms\": 100}",
                "{\"step\": \"show\", \"page\": \"p\", \"popUp\": true}");
        Board board = BoardFile.parse(Path.of("b.json"), text, CardLibrary.shipped());
        Step first = board.button("one").orElseThrow().states().getFirst().chain(Gesture.PRESS).steps().getFirst();
        assertThat(first).isEqualTo(DeckStep.Show.page("p", DeckStep.Show.Way.POP_UP));
        assertThat(BoardFile.format(board)).contains("\"way\": \"pop-up\"").doesNotContain("popUp");
    }

    @Test
    void unknownFieldsAreKeptEverywhere() throws BadFile {
        String text = BOARD.replace("\"name\": \"B\",", "\"name\": \"B\", \"mood\": {\"deep\": [1, null]},")
                .replace("\"protocol\": \"osc\"", "\"protocol\": \"osc\", \"colour\": \"red\"")
                .replace("\"ms\": 100", "\"ms\": 100, \"why\": \"because\"")
                .replace("\"reading\": \"stream\"", "\"reading\": \"stream\", \"since\": 3")
                .replace("\"id\": \"two\"", "\"id\": \"two\", \"owner\": \"Ada\"");
        Board board = BoardFile.parse(Path.of("b.json"), text, CardLibrary.shipped());
        String written = BoardFile.format(board);
        assertThat(written).contains("\"mood\"", "\"deep\"", "null", "\"colour\": \"red\"", "\"why\": \"because\"",
                "\"since\": 3", "\"owner\": \"Ada\"");
        assertThat(BoardFile.parse(Path.of("b.json"), written, CardLibrary.shipped())).isEqualTo(board);
    }

    @Test
    void savingReplacesTheFileAndTakesTheJournalAway(@TempDir Path folder) throws Exception {
        Path file = folder.resolve("board.json");
        Board first = Board.empty("First");
        BoardFile.save(file, first);
        BoardFile.journal(file, first.withName("Second"));
        assertThat(BoardFile.read(file).board().name()).isEqualTo("First");
        assertThat(BoardFile.unsaved(file, CardLibrary.shipped())).get().extracting(Board::name).isEqualTo("Second");
        BoardFile.save(file, first.withName("Third"));
        assertThat(BoardFile.unsaved(file, CardLibrary.shipped())).isEmpty();
        try (Stream<Path> left = Files.list(folder)) {
            assertThat(left).containsExactlyInAnyOrder(file, folder.resolve(".rombix"));
        }
    }

    @Test
    void stepsNestFiveHundredDeepInAFile() throws BadFile {
        Chain deep = Chain.of(new Step.Wait(1));
        for (int i = 0; i < 500; i++) {
            deep = Chain.of(new Step.Together(java.util.List.of(deep)));
        }
        Board board = BoardFile.parse(Path.of("b.json"), BOARD, CardLibrary.shipped());
        Chain chain = deep;
        Board deepBoard = rombix.core.edit.Edits.chain(board, "one", 0, Gesture.PRESS, _ -> chain);
        assertThat(BoardFile.parse(Path.of("b.json"), BoardFile.format(deepBoard), CardLibrary.shipped()))
                .isEqualTo(deepBoard);
    }

    @Test
    void aFileThatIsNestedTooDeeplyIsRefusedWithItsPlace(@TempDir Path folder) throws Exception {
        Path deep = folder.resolve("deep.json");
        Files.writeString(deep, "{\"rombix\": 1, \"name\": \"Deep\", \"pages\":\n" + "[".repeat(200_000));
        assertThatThrownBy(() -> BoardFile.read(deep)).isInstanceOfSatisfying(BadFile.class, e -> {
            assertThat(e.line()).isEqualTo(2);
            assertThat(e.column()).isPositive();
        });
        String step = "[{\"step\": \"repeat\", \"times\": 1, \"chain\":";
        Files.writeString(deep, """
                {"rombix": 1, "name": "Deep", "pages": [{"id": "p", "name": "P", "columns": 1, "rows": 1, "buttons": [
                {"id": "b", "name": "B", "column": 0, "row": 0, "states": [{"id": "s", "name": "s", "on": {"press":
                """ + step.repeat(50_000));
        assertThatThrownBy(() -> BoardFile.read(deep)).hasMessageContaining("deep.json:3:").hasMessageContaining(
                "nested too deeply");
    }
}
