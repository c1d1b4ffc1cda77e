package rombix.core.listen;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.Test;
import rombix.core.card.Card;
import rombix.core.card.Protocol;
import rombix.core.listen.HeardValue.Kind;
import rombix.core.store.CardLibrary;
import rombix.core.traffic.TrafficPacket;
import rombix.core.twin.MessageReader;
import rombix.core.twin.Twin;
import rombix.core.value.Value;

/** Lists of objects, colours, uneven levels and bytes are made readings by listening, without a word of JSON. */
class ListeningToObjectsTest {
    private final List<TrafficPacket> packets = new ArrayList<>();

    private void came(String address, Value... args) {
        packets.add(new TrafficPacket(packets.size() + 1, Instant.ofEpochMilli(packets.size()), "g",
                TrafficPacket.Way.IN, "",
                address, List.of(args), null, List.of(), TrafficPacket.Fate.UNREAD, ""));
    }

    private HeardValue voice(String where) {
        return Listening.to(packets).stream().filter(v -> v.where().equals(where)).findFirst().orElseThrow(
                () -> new AssertionError(
                        where + " is not among " + Listening.to(packets).stream().map(HeardValue::where)
                                .toList()));
    }

    private Twin made(String protocol, String where, Kind kind, UnaryOperator<ReadingDraft> as) throws Exception {
        HeardValue voice = voice(where);
        assertThat(voice.likely()).isEqualTo(kind);
        Card card = CardMaking.withReading(CardMaking.empty("own", "Own"), Protocol.of(protocol), voice,
                as.apply(ReadingDraft.of(voice,
                        kind, "It", false)));
        String text = CardLibrary.format(card);
        assertThat(CardLibrary.check(Path.of("own.json"), text)).isEmpty();
        assertThat(CardLibrary.read(Path.of("own.json"), text)).isEqualTo(card);
        return new Twin("g", "Own", card, Protocol.of(protocol), Map.of());
    }

    /** What a message brings, and what a second one like it brings when the lists of the first are known. */
    private static Map<String, Value> brought(Twin twin, String address, String text) {
        Map<String, Value> all = new HashMap<>();
        Map<String, Value.Choices> told = new HashMap<>();
        for (int i = 0; i < 2; i++) {
            twin.landings(told).land(new MessageReader.Message(address, List.of(Value.of(text)))).forEach(l -> {
                if (l.value() instanceof Value.Choices c) {
                    told.put(l.reading(), c);
                } else if (l.value() != null) {
                    all.put(l.reading(), l.value());
                }
            });
        }
        return all;
    }

    private static final String LAMPS = """
            {"lamps": [{"id": "desk", "name": "Desk", "level": %d, "on": true}, {"id": "dome", "name": "Dome", "level": 254}]}""";

    @Test
    void eachItemOfAListOfObjectsHasAReading() throws Exception {
        came("home", Value.of(LAMPS.formatted(10)));
        came("home", Value.of(LAMPS.formatted(127)));
        Twin twin = made("mqtt", "home /lamps each /level", Kind.LEVEL, w -> w.withWire(0, 254).withToldAt("home/set"));
        assertThat(brought(twin, "home", LAMPS.formatted(127)))
                .isEqualTo(Map.of("it/desk", Value.of(50), "it/dome", Value.of(
                        100)));
        Map<String, Value.Choices> told = Map.of("lamps", new Value.Choices(List.of(new Value.Choice("desk", "Desk"))));
        assertThat(twin
                .order(twin.card().command("it").orElseThrow(), Map.of("lamps", Value.of("desk"), "to", Value.of(50)),
                        told::get)
                .packets().getFirst().args()).containsExactly(Value.of("{\"id\":\"desk\",\"level\":127}"));
    }

    @Test
    void aColourInPartsIsReadAndTold() throws Exception {
        came("bulb", Value.of("{\"color\": {\"h\": 120, \"s\": 254}}"));
        Twin twin = made("mqtt", "bulb /color", Kind.COLOUR, w -> w.withToldAt("bulb/set"));
        assertThat(brought(twin, "bulb", "{\"color\": {\"h\": 240, \"s\": 254}}")).isEqualTo(Map.of("it", Value.of(
                "#0000FF")));
        assertThat(twin.order(twin.card().command("it").orElseThrow(), Map.of("to", Value.of("#00FF00")),
                Twin.Readings.NONE).packets().getFirst().args()).containsExactly(Value.of(
                        "{\"color\":{\"h\":120,\"s\":254}}"));
    }

    /** A bulb that was never blue had a blue that went from 0 to 1. */
    @Test
    void redGreenAndBlueGoAsFarAsEachOther() throws Exception {
        came("bulb", Value.of("{\"color\": {\"r\": 255, \"g\": 0, \"b\": 0}}"));
        Twin twin = made("mqtt", "bulb /color", Kind.COLOUR, w -> w);
        assertThat(brought(twin, "bulb", "{\"color\": {\"r\": 0, \"g\": 0, \"b\": 128}}")).isEqualTo(Map.of("it", Value
                .of("#000080")));
    }

    @Test
    void aColourInDigitsIsOne() throws Exception {
        came("/colour", Value.of("#FF0000"));
        Twin twin = made("osc", "/colour", Kind.COLOUR, w -> w.withToldAt("/colour"));
        assertThat(brought(twin, "/colour", "#00FF00")).isEqualTo(Map.of("it", Value.of("#00FF00")));
    }

    @Test
    void aFaderLawIsMadeOfPoints() throws Exception {
        came("/fader", Value.of(0.2));
        came("/fader", Value.of(0.5));
        came("/fader", Value.of(0.75));
        Twin twin = made("osc", "/fader", Kind.LEVEL,
                w -> w.withPoints(List.of(List.of(-90.0, 0.0), List.of(-10.0, 0.5), List
                        .of(10.0, 1.0))).withRange(0, 100, "dB").withToldAt("/fader"));
        assertThat(twin.card().readings().getFirst()).satisfies(r -> {
            assertThat(r.min()).isEqualTo(-90);
            assertThat(r.max()).isEqualTo(10);
            assertThat(r.unit()).isEqualTo("dB");
        });
        assertThat(twin.land("/fader", List.of(Value.of(0.75))).getFirst().value()).isEqualTo(Value.of(0));
        assertThat(twin.order(twin.card().command("it").orElseThrow(), Map.of("to", Value.of(-10)), Twin.Readings.NONE)
                .packets().getFirst().args()).containsExactly(Value.of(0.5));
    }

    @Test
    void aKeyThatIsPressedIsAMoment() throws Exception {
        came("/key", Value.of("next"));
        came("/key", Value.of("back"));
        Twin twin = made("osc", "/key", Kind.CHOICE, w -> w.withMoment(true));
        assertThat(twin.moment("it")).isTrue();
    }

    @Test
    void whatChangesAmongBytesIsFound() throws Exception {
        came("bytes", Value.of("9050010203ff"));
        came("bytes", Value.of("9050010703ff"));
        came("bytes", Value.of("9041ff"));
        Twin twin = made("line", "bytes byte 3", Kind.LEVEL, w -> w.withWire(0, 100));
        assertThat(brought(twin, "bytes", "9050010903ff")).isEqualTo(Map.of("it", Value.of(9)));
        assertThat(brought(twin, "bytes", "9041ff")).isEmpty();
        assertThat(Listening.to(packets)).extracting(HeardValue::where).doesNotContain("bytes byte 0", "bytes byte 4");
    }
}
