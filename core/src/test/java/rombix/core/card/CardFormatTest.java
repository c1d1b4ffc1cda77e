package rombix.core.card;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rombix.core.card.value.As;
import rombix.core.card.value.Mapped;
import rombix.core.store.BadFile;
import rombix.core.store.CardLibrary;
import rombix.core.twin.MessageReader;
import rombix.core.twin.Order;
import rombix.core.twin.Twin.Readings;
import rombix.core.twin.Twin;
import rombix.core.value.Value;

/** What a card can say: of what goes out, of what comes in, and of logins. */
class CardFormatTest {
    private static final String CARD = """
            {"card": 2, "id": "x", "title": "X",
             "lists": {"input": [{"id": "host", "name": "Host", "number": 1}, {"id": "dome", "name": "Dome", "number": 2}]},
             "settings": [{"id": "zone", "default": "a"}],
             "readings": [
              {"id": "scenes", "type": "list", "arrives": {"websocket": {"from": "text", "where": {"/tells": "scenes"}, "at": "/all", "list": {"id": "/uuid", "name": "/title"}}}},
              {"id": "scene", "type": "choice", "choices": "scenes", "arrives": {"websocket": [
                {"from": "text", "where": {"/tells": "scene"}, "at": "/now"}, {"from": "text", "where": {"/tells": ["state", "all"]}, "at": "/scene/uuid"}]}},
              {"id": "on/{scenes}", "type": "flag", "arrives": {"websocket": {"from": "text", "where": {"/tells": "visible", "/scene": "{scenes}"}, "at": "/on"}}},
              {"id": "muted/{input}", "type": "flag", "arrives": {
                "websocket": {"from": "text", "where": {"/input": "{input.number}"}, "at": "/muted"},
                "line": {"from": "line", "pattern": "^MUTE{input.number}=(ON|OFF)$", "value": {"yes": ["ON", 1], "no": "OFF"}}}},
              {"id": "power", "type": "flag", "arrives": {"line": {"from": "line", "pattern": "^PWR=(\\\\d)$", "value": {"yes": {"above": 0.5}, "no": {"below": 0.5}}}}},
              {"id": "volume", "type": "number", "arrives": {"line": {"from": "line", "pattern": "^VOL=(?<value>[0-9A-F]{2})$", "value": {"from": [0, 100], "to": [0, 255], "format": "%02X"}}}},
              {"id": "loud/{input}", "type": "number", "arrives": {"line": {"from": "line", "pattern": "^(L|R) {input.number} (?<value>\\\\d+)"}}},
              {"id": "tilt", "type": "number", "arrives": {"line": {"from": "bytes", "byte": 2, "bytes": 2}}},
              {"id": "flagged", "type": "flag", "arrives": {"line": {"from": "bytes", "byte": 1, "bits": [3, 3], "value": {"yes": 1, "no": 0}}}}],
             "commands": [
              {"id": "say", "params": [{"id": "text", "type": "text"}, {"id": "level", "type": "number", "default": 50}, {"id": "on", "type": "flag", "default": true}],
               "send": {
                "websocket": [{"to": "text", "json": {"tells": "say", "id": "{gear.request}", "of": {"text": "<{text}>", "level": "{scaled}", "on": "{on}", "list": [1, "{text}"]}},
                  "with": {"scaled": {"of": "level", "from": [0, 100], "to": [0, 1]}}, "reply": {"is": {"where": {"/id": "{gear.request}"}}, "error": {"where": {"/id": "{gear.request}", "/ok": false}, "at": "/why"}}}],
                "line": [{"to": "line", "args": ["VOL {v} {text}"], "with": {"v": {"of": "level", "from": [0, 100], "to": [0, 255], "format": "%03d"}}, "pause": 250, "head": {"zone": "{gear.zone}"}}],
                "mqtt": [{"to": "x/say", "args": ["{\\"text\\": \\"{text}\\"}"]}],
                "http": [{"to": "PUT /say/{text}", "args": [{"value": 5, "as": "long"}, [{"as": "nil"}, "{text}"]]}]}},
              {"id": "login", "send": {"websocket": [{"to": "text", "json": {"proof": "{proof}"}, "with": {
                "both": "{gear.salt}:{gear.challenge}",
                "proof": {"compute": "hmac-sha-256", "key": "{gear.secret}", "over": "{both}", "form": "base64"}},
                "reply": {"keep": {"salt": {"at": "/salt"}, "challenge": {"at": "/challenge"}}}}]}}]}
            """;

    private static Twin twin(String protocol) {
        try {
            return new Twin("x", "X", CardLibrary.read(Path.of("x.json"), CARD), Protocol.of(protocol), Map.of());
        } catch (BadFile e) {
            throw new AssertionError(e);
        }
    }

    private static Order.Outgoing out(String protocol, String command, Map<String, Value> args,
            Map<String, Value> gear) {
        Twin twin = twin(protocol);
        return twin.order(twin.card().command(command).orElseThrow(), args, Readings.NONE).packets().getFirst().made(
                gear::get);
    }

    private static Map<String, Value> landed(String protocol, String address, String text) {
        Map<String, Value> all = new HashMap<>();
        twin(protocol).land(address, List.of(Value.of(text))).forEach(l -> all.put(l.reading(), l.value() == null
                ? Value.of("? " + l.problem())
                : l.value()));
        return all;
    }

    @Test
    void jsonGoesOutAsATreeWithItsLeavesMappedAndItsTextsEscaped() {
        Order.Outgoing out = out("websocket", "say", Map.of("text", Value.of("a \"b\"\nc")), Map.of("request", Value.of(
                7)));
        assertThat(out.args()).containsExactly(Value.of(
                "{\"tells\":\"say\",\"id\":7,\"of\":{\"text\":\"<a \\\"b\\\"\\nc>\",\"level\":0.5,\"on\":true,\"list\":[1,\"a \\\"b\\\"\\nc\"]}}"));
        assertThat(out.reply()).satisfies(r -> assertThat(new MessageReader(r.error()).means(new MessageReader.Message(
                "text", List.of(Value.of("{\"id\": 7, \"ok\": false}"))))).isTrue());
    }

    @Test
    void aQuoteInATextThatStandsInJsonBreaksNothing() {
        assertThat(out("mqtt", "say", Map.of("text", Value.of("say \"hello\"")), Map.of()).args()).containsExactly(Value
                .of("{\"text\": \"say \\\"hello\\\"\"}"));
    }

    @Test
    void numbersAreWrittenAsTheGearWantsThem() {
        Order.Outgoing out = out("line", "say", Map.of("text", Value.of("x")), Map.of("zone", Value.of("b")));
        assertThat(out.args()).containsExactly(Value.of("VOL 128 x"));
        assertThat(out.pauseMillis()).isEqualTo(250);
        assertThat(out.head()).containsEntry("zone", Value.of("b"));
    }

    @Test
    void constantsHaveTypesAndListsArePassedOnAsSuch() {
        Order.Outgoing out = out("http", "say", Map.of("text", Value.of("a b")), Map.of());
        assertThat(out.address()).isEqualTo("PUT /say/a%20b");
        assertThat(out.forms()).containsExactly(As.LONG, As.BEGIN, As.NIL, As.PLAIN, As.END);
    }

    @Test
    void aLoginIsComputedFromWhatTheGearSent() {
        assertThat(out("websocket", "login", Map.of(),
                Map.of("secret", Value.of("larkmoor"), "salt", Value.of("moss-17"),
                        "challenge", Value.of("9f2c")))
                .args()).containsExactly(Value.of("{\"proof\":\"9d3uBWvtnUyK5Tr+xngt2QQtuGZeJhuuknB9hgHitJw=\"}"));
        assertThatThrownBy(() -> out("websocket", "login", Map.of(), Map.of()))
                .isInstanceOf(IllegalArgumentException.class);
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {"md5|hex|5d41402abc4b2a76b9719d911017c592",
            "sha-1|hex|aaf4c61ddcc5e8a2dabede0f3b482cd9aea9434d", "text|base64|aGVsbG8=", "text|hex|68656c6c6f",
            "sha-256|hex|2cf24dba5fb0a30e26e83b2ac5b9e29e1b161e5c1fa7425e73043362938b9824",
            "hmac-sha-1|hex|b34ceac4516ff23a143e61d79d0fa7a4fbe5f266",
            "hmac-sha-256|hex|9307b3b915efb5171ff14d8cb55fbcc798c6c0ef1456d66ded1a6aa723a58b7b"})
    void whatIsComputedIsWhatOthersCompute(String way, String form, String expected) throws BadFile {
        String key = way.startsWith("hmac") ? ", \"key\": \"key\"" : "";
        Card card = CardLibrary.read(Path.of("x.json"), """
                {"card": 2, "id": "x", "title": "X", "commands": [{"id": "c", "send": {"line": [{"to": "line",
                 "args": [{"compute": "%s", "over": "hello", "form": "%s"%s}]}]}}]}""".formatted(way, form, key));
        Twin twin = new Twin("x", "X", card, Protocol.of("line"), Map.of());
        assertThat(twin.order(card.commands().getFirst(), Map.of(), Readings.NONE).packets().getFirst().args())
                .containsExactly(Value.of(expected));
    }

    @Test
    void oneMessageBringsSeveralReadingsAndOneReadingComesInSeveralWays() {
        assertThat(landed("websocket", "text", "{\"tells\":\"scene\",\"now\":\"b2\"}")).containsOnly(Map.entry("scene",
                Value.of("b2")));
        assertThat(
                landed("websocket", "text",
                        "{\"tells\":\"all\",\"scene\":{\"uuid\":\"c\"},\"input\":2,\"muted\":true}"))
                .containsOnly(Map.entry("scene", Value.of("c")), Map.entry("muted/dome", Value.of(true)));
        assertThat(landed("websocket", "text", "{\"tells\":\"visible\",\"scene\":\"b2\",\"on\":false}"))
                .containsOnly(Map
                        .entry("on/b2", Value.of(false)));
        assertThat(landed("websocket", "text", "that isn't JSON")).isEmpty();
    }

    @Test
    void aListIsReadWithAllThatIsToldOfItsItems() {
        Value list = landed("websocket", "text",
                "{\"tells\":\"scenes\",\"all\":[{\"uuid\":\"a1\",\"title\":\"Sky\",\"index\":3},{\"title\":\"nameless\"}]}")
                .get("scenes");
        assertThat(list).isEqualTo(new Value.Choices(List.of(new Value.Choice("a1", "Sky", Map.of("uuid", Value.of(
                "a1"), "title", Value.of("Sky"), "index", Value.of(3))))));
        Twin twin = twin("websocket");
        assertThat(twin.items("scenes", r -> r.equals("scenes") ? list : null).getFirst().field("index")).isEqualTo(
                Value.of(3));
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {"MUTE2=ON|muted/dome|yes", "MUTE1=OFF|muted/host|no", "PWR=1|power|yes",
            "PWR=0|power|no", "VOL=80|volume|50.196078", "R 2 17|loud/dome|17"})
    void aLineIsReadByItsPattern(String line, String reading, String value) {
        assertThat(landed("line", "line", line)).hasSize(1).hasEntrySatisfying(reading, v -> assertThat(v).hasToString(
                value));
    }

    @Test
    void bytesAreReadWithTheirBits() {
        assertThat(landed("line", "bytes", "00 08 01 f4")).containsOnly(Map.entry("tilt", Value.of(500)), Map.entry(
                "flagged", Value.of(true)));
        assertThat(landed("line", "bytes", "00f7")).containsOnly(Map.entry("flagged", Value.of(false)));
    }

    @Test
    void aCurveGoesBothWays() {
        Mapped mapped = new Mapped(null, null, List.of(0.0, 100.0), List.of(0.0, 255.0), Mapped.Curve.SQUARE, null,
                null,
                null, As.INT);
        Value half = mapped.out(_ -> Value.of(50));
        assertThat(half).isEqualTo(Value.of(64));
        assertThat(mapped.in(half).orElseThrow().asNumber()).isCloseTo(50, org.assertj.core.data.Offset.offset(0.2));
    }

    /** A level went out as text with all the digits that a fade had come to. */
    @ParameterizedTest
    @CsvSource({"line,LEVEL -38", "osc,-37.95275590551181"})
    void aNumberThatGoesOutAsTextIsAsFineAsItsStep(String protocol, String sent) throws BadFile {
        Card card = CardLibrary.read(Path.of("fine.json"),
                """
                        {"card": 2, "id": "fine", "title": "Fine", "commands": [{"id": "level", "title": "Level",
                          "params": [{"id": "level", "type": "number", "step": 0.5}],
                          "send": {"osc": [{"to": "/level", "args": ["{level}"]}], "line": [{"to": "line", "args": ["LEVEL {level}"]}]}}]}
                        """);
        Twin twin = new Twin("x", "X", card, Protocol.of(protocol), Map.of());
        Order order = twin.order(card.command("level").orElseThrow(), Map.of("level", Value.of(-37.95275590551181)),
                Readings.NONE);
        Value arg = order.packets().getFirst().args().getFirst();
        assertThat(arg instanceof Value.Num n ? String.valueOf(n.number()) : arg.toString()).isEqualTo(sent);
    }

    /** What followed a click on a picture did not wait for the picture to come. */
    @Test
    void aClickOnAPictureHoldsItsChain() {
        Twin computer = new Twin("pc", "PC", CardLibrary.shipped().get("desktop"), Protocol.of("desktop"), Map.of());
        assertThat(List.of("picture p in everywhere alike 90 take sole at middle wait 2000", "pointer",
                "screen 1 at 5 5"))
                .extracting(place -> computer.order(computer.card().command("click").orElseThrow(), Map
                        .of("place", Value.of(place)), Readings.NONE).waits())
                .containsExactly(true, false, false);
    }
}
