package rombix.core.twin;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rombix.core.card.Card;
import rombix.core.card.Protocol;
import rombix.core.card.Setting;
import rombix.core.store.BadFile;
import rombix.core.store.CardLibrary;
import rombix.core.value.Value;

/** A level that comes back as near as its wire can carry is the level that was set. */
class WireStepsTest {
    @ParameterizedTest
    @CsvSource({"50, 50.2, true", "50, 49.8, true", "50, 51, false", "0, 0.3, true", "100, 99, false"})
    void fiftyPercentComesBackAsALittleMore(double set, double came, boolean same) throws BadFile {
        Card card = CardLibrary.read(Path.of("c.json"),
                """
                        {"card": 3, "id": "c", "title": "C",
                         "readings": [{"id": "level", "type": "number", "arrives": {"osc": {"from": "/l", "value": {"from": [0, 100], "to": [0, 255], "as": "int"}}}}],
                         "commands": [{"id": "level", "title": "L", "params": [{"id": "to", "type": "number"}],
                           "send": {"osc": [{"to": "/l", "args": [{"of": "to", "from": [0, 100], "to": [0, 255], "as": "int"}]}]},
                           "changes": [{"reading": "level", "to": "{to}"}]}]}""");
        Twin twin = new Twin("g", "G", card, Protocol.of("osc"), Map.of());
        Order order = twin.order(card.commands().getFirst(), Map.of("to", Value.of(set)), Twin.Readings.NONE);
        assertThat(WireSteps.show(twin, order, "level", Value.of(came))).isEqualTo(same);
    }

    @ParameterizedTest
    @CsvSource({"bytes, terminator, true", "bytes, length field, false", "lines, terminator, false"})
    void aSettingCountsOnlyWhereThoseThatItHangsOnAreSo(String messages, String framing, boolean counts) {
        List<Setting> all = List.of(Setting.choice("messages", "M", List.of("lines", "bytes"), ""),
                Setting.choice("framing",
                        "F", List.of("as received", "terminator", "length field"), "").when("messages", "bytes"),
                Setting.text(
                        "terminator", "T", "").when("framing", "terminator"));
        assertThat(all.getLast().counts(all, Map.of("messages", Value.of(messages), "framing", Value.of(framing))))
                .isEqualTo(counts);
        assertThat(all.getFirst().counts(all, Map.of())).isTrue();
    }
}
