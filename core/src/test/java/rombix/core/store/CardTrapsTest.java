package rombix.core.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What reads like a card and cannot work with any gear. */
class CardTrapsTest {
    private static final String CARD = """
            {"card": 3, "id": "x", "title": "X",
             "lists": {"channel": [{"id": "host", "number": 1}, {"id": "guest"}]},
             "readings": [
               {"id": "lamp", "type": "list", "arrives": {"line": {"from": "line", "at": "/lamps", "list": {"id": "/id"}}}},
               {"id": "level/{lamp}", "type": "number", "arrives": {"line": {"from": "line", "each": "/lamps",
                 "where": {"/id": "{lamp}"}, "at": "/level"}}},
               {"id": "muted/{channel}", "type": "flag", "arrives": {"line": {"from": "line",
                 "where": {"/channel": "{channel.number}"}, "at": "/muted"}}}],
             "commands": [{"id": "mute", "title": "Mute {channel}", "params": [{"id": "channel", "type": "choice"}],
               "send": {"line": [{"to": "bytes", "args": ["90 {channel.number} ff"],
                 "reply": {"error": {"where": {"/ok": false}, "at": "/why"}}}]}}],
             "greeting": {"line": [{"each": "lamp", "to": "line", "args": ["GET {lamp}"]}]},
             "polls": {"line": [{"every": 1000, "kind": "renewal", "ask": {"to": "line", "args": ["SUBSCRIBE"]}}]}}
            """;

    @Test
    void theCardItselfIsRight() {
        assertThat(CardLibrary.check(Path.of("x.json"), CARD)).isEmpty();
    }

    /** A card that was read for years would be refused for a field that nobody missed. */
    @Test
    void cardsOfOlderFormatsAreReadAsTheyAlwaysWere() {
        String old = """
                {"card": 2, "id": "x", "title": "X", "lists": {"channel": [{"id": "host"}]},
                 "commands": [{"id": "mute", "title": "Mute {channel}", "params": [{"id": "channel", "type": "choice"}],
                   "send": {"line": [{"to": "line", "args": ["MUTE {channel.nmber}"]}]}}]}""";
        assertThat(CardLibrary.check(Path.of("x.json"), old)).isEmpty();
        assertThat(CardLibrary.check(Path.of("x.json"), old.replace("\"card\": 2", "\"card\": 3"))).hasSize(1);
    }

    @ParameterizedTest
    @CsvSource(delimiter = '~', value = {
            "{channel.number} ff~{channel.nmber} ff~no channel has a field “nmber”: there are [id, name, number]",
            "\"{channel.number}\"}~\"{channel.nmber}\"}~no channel has a field “nmber”",
            "90 {channel.number} ff~9O {channel.number} ff~“O” is none",
            "\"where\": {\"/ok\": false}, ~~this makes every message an error",
            "\"where\": {\"/id\": \"{lamp}\"}, ~~nothing determines “{lamp}”",
            "\"each\": \"lamp\", ~\"each\": \"bulb\", ~no list “bulb”",
            "\"to\": \"bytes\", ~\"to\": \"bytes\", \"each\": \"channel\", ~a command is sent once",
            "\"kind\": \"renewal\"~\"kind\": \"often\"~often", "\"every\": 1000, ~~a poll needs \"every\"",
            "\"at\": \"/level\"~\"parts\": {\"red\": {\"at\": \"/r\"}}~the parts of a colour are"})
    void aTrapIsToldWhereItStands(String from, String to, String message) {
        assertThat(CARD).contains(from);
        List<BadFile> found = CardLibrary.check(Path.of("x.json"), CARD.replace(from, to == null ? "" : to));
        assertThat(found).anySatisfy(f -> assertThat(f.getMessage()).contains(message).startsWith("x.json:"));
    }
}
