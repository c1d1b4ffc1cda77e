package rombix.core.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Wrong cards of format 2, each with its place and what was expected there; {@link CardCheckTest} has those of 1. */
class WrongCardsTest {
    private static final String CARD = """
            {"card": 2, "id": "x", "title": "X",
             "lists": {"input": [{"id": "a", "name": "A", "number": 1}]},
             "settings": [
              {"id": "zone", "title": "Zone", "type": "choice", "choices": ["a", "b"], "default": "a", "help": "Which."},
              {"id": "slots", "type": "number", "min": 1, "max": 8, "default": 2}],
             "readings": [
              {"id": "on/{input}", "type": "flag", "arrives": {"websocket": [
                {"from": "text", "where": {"/input": "{input.number}"}, "at": "/on"}, {"from": "all", "at": "/on/{input}"}]}},
              {"id": "power", "type": "flag", "arrives": {"line": {"from": "line", "pattern": "^PWR=([01])$", "group": 1, "value": {"yes": {"above": 0.5}, "no": [0, "OFF"]}}}},
              {"id": "tilt", "type": "number", "arrives": {"line": {"from": "bytes", "byte": 1, "bytes": 2, "bits": [0, 3]}}},
              {"id": "names", "type": "list", "arrives": {"websocket": {"from": "names", "at": "/all", "list": {"id": "/uuid", "name": "/title"}}}}],
             "commands": [
              {"id": "set", "params": [{"id": "level", "type": "number", "min": 0, "max": 100}, {"id": "text", "type": "text"}],
               "send": {"websocket": [{"to": "text", "json": {"level": "{scaled}", "text": "{text}"},
                 "with": {"scaled": {"of": "level", "from": [0, 100], "to": [0, 255], "curve": "square", "format": "%03d"}},
                 "reply": {"is": {"where": {"/id": "{gear.request}"}}, "error": {"pattern": "^ERR(.*)", "at": "/why"}, "within": 500, "keep": {"token": {"at": "/token"}}}}],
                "line": [{"to": "line", "args": ["ZONE {gear.zone}", {"value": 3, "as": "int"}], "pause": 100, "head": {"end": "{text}"}}]}},
              {"id": "login", "send": {"line": [{"to": "line", "args": [{"compute": "hmac-sha-256", "over": "{gear.token}", "key": "{gear.secret}", "form": "hex"}]}]}}],
             "polls": {"line": [{"every": 2000, "ask": {"to": "line", "args": ["PWR?"]}}]},
             "greeting": {"line": [{"to": "line", "args": ["HELLO {gear.user}"]}]}}
            """;

    @Test
    void theCardAsSuchIsWell() {
        assertThat(CardLibrary.check(Path.of("x.json"), CARD)).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(delimiter = '~', value = {"\"default\": \"a\"~\"default\": \"c\"~“Zone” is one of a, b, not “c”",
            "\"choices\": [\"a\", \"b\"], \"default\": \"a\"~\"default\": \"a\"~a choice needs",
            "\"default\": 2}~\"default\": 9}~“slots” is from 1 to 8, not 9",
            "\"default\": 2}~\"default\": \"two\"}~takes a number, not “two”",
            "{\"id\": \"zone\"~{\"id\": \"secret\"~“secret” is reserved",
            "\"min\": 1, \"max\": 8~\"min\": 8, \"max\": 1~isn't below the maximum",
            "\"type\": \"number\", \"min\": 1~\"type\": \"colour\", \"min\": 1~a setting is a number, a text, a flag or a choice",
            "\"/input\": \"{input.number}\"~\"input\": 1~“input” isn't a JSON pointer",
            "\"at\": \"/on\"}~\"at\": \"on\"}~“on” isn't a JSON pointer",
            "\"/on/{input}\"~\"/on/{room}\"~“{room}” is undefined",
            "{\"from\": \"all\"~{\"form\": \"all\"~unknown field “form”",
            "{\"from\": \"all\", ~{~an arrival needs \"from\"",
            "^PWR=([01])$~^PWR=([01]$~\"pattern\" can't be used: missing closing )",
            "\"above\": 0.5~\"over\": 0.5~a comparison has \"above\" or \"below\"",
            "\"above\": 0.5~\"above\": \"half\"~a comparison has \"above\" or \"below\" with a number",
            "[0, \"OFF\"]~[]~expected a value, a list of them",
            "\"byte\": 1, \"bytes\": 2~\"byte\": 1, \"bytes\": 9~\"bytes\" are from 1 to 8",
            "\"byte\": 1, \"bytes\": 2~\"byte\": -1~\"byte\" counts from 0", "[0, 3]~[3, 0]~\"bits\" are two numbers",
            "\"byte\": 1, \"bytes\": 2, ~~\"bits\" are two numbers",
            "\"type\": \"list\"~\"type\": \"text\"~“list” needs a reading of type list",
            "\"id\": \"/uuid\"~\"id\": \"uuid\"~“uuid” isn't a JSON pointer",
            "\"text\": \"{text}\"}~\"text\": \"{words}\"}~“{words}” is undefined",
            "\"of\": \"level\", \"from\"~\"of\": \"loud\", \"from\"~no parameter “loud” here",
            "\"curve\": \"square\"~\"curve\": \"bent\"~expected one of linear, square, s-curve",
            "\"from\": [0, 100], \"to\": [0, 255], ~~a \"curve\" needs \"from\" and \"to\"",
            "%03d~%03q~\"format\" is \"%03q\"; expected one number", "%03d~%s and %n~expected one number",
            "\"as\": \"int\"~\"as\": \"int16\"~\"as\" is \"int16\"; expected one of plain, int, long",
            "\"value\": 3,~\"value\": 3, \"of\": \"level\",~use either",
            "\"args\": [\"ZONE {gear.zone}\"~\"json\": {}, \"args\": [\"ZONE\"~carries \"args\" or \"json\", not both",
            "{gear.zone}~{gear.room}~the gear has no “room”: there are",
            "{gear.token}~{gear.nonce}~the gear has no “nonce”",
            "\"within\": 500~\"within\": 0~\"within\" is a time from 1 to",
            "\"pause\": 100~\"pause\": 100000~a \"pause\" is from 0 to 60000 ms",
            "\"every\": 2000~\"every\": 10~\"every\" is a time from 50 to",
            "\"ask\": {\"to\": \"line\", ~\"ask\": {~a packet needs \"to\"",
            "hmac-sha-256~sha-256~a \"key\" belongs to an HMAC only",
            "\"key\": \"{gear.secret}\", ~~an HMAC needs a \"key\"",
            "hmac-sha-256~sha-512~expected one of text, md5, sha-1, sha-256",
            "\"over\": \"{gear.token}\", ~~a computed value needs \"over\"",
            "HELLO {gear.user}~HELLO {user}~“{user}” is undefined",
            "\"end\": \"{text}\"~\"end\": \"{words}\"~“{words}” is undefined",
            "\"card\": 2~\"card\": 4~this Rombix reads up to 3"})
    void whatIsWrongIsToldWithItsPlace(String from, String to, String message) {
        assertThat(CARD).contains(from);
        String wrong = CARD.replace(from, to == null ? "" : to);
        List<BadFile> found = CardLibrary.check(Path.of("x.json"), wrong);
        assertThat(found).anySatisfy(f -> {
            assertThat(f.getMessage()).contains(message).doesNotContain("java.", "rombix.core");
            assertThat(f.line()).isPositive();
        });
    }
}
