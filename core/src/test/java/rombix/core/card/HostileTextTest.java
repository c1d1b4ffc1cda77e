package rombix.core.card;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowable;

import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import rombix.core.listen.Listening;
import rombix.core.store.BadFile;
import rombix.core.store.CardLibrary;
import rombix.core.time.SimulatedClock;
import rombix.core.traffic.Traffic;
import rombix.core.traffic.TrafficPacket;
import rombix.core.twin.ReceivedReading;
import rombix.core.twin.Twin;
import rombix.core.value.Limits;
import rombix.core.value.Template;
import rombix.core.value.Value;

/** Cards and gear that would take a core for hours or all memory: each of these did. The time limits are for an end at all. */
@Timeout(120)
class HostileTextTest {
    private static Card card(String inner) throws BadFile {
        return CardLibrary.read(Path.of("x.json"), "{\"card\": 2, \"id\": \"x\", \"title\": \"X\", " + inner + "}");
    }

    private static Twin twin(Card card, String protocol) {
        return new Twin("x", "X", card, Protocol.of(protocol), Map.of());
    }

    @ParameterizedTest
    @ValueSource(strings = {"^(a+)+$", "(a|aa)+$", "(a*)*b", "(.*a){20}b", "^(([a-z])+.)+[A-Z]([a-z])+$"})
    void aPatternThatGoesBackAndForthIsDoneInOneGo(String pattern) throws Exception {
        Twin twin = twin(card("""
                "readings": [{"id": "r", "type": "text", "arrives": {"line": {"from": "line", "pattern": "%s"}}}]"""
                .formatted(pattern)), "line");
        twin.land("line", List.of(Value.of("a".repeat(200_000) + "!")));
    }

    @ParameterizedTest
    @ValueSource(strings = {"(?=x)", "(?<!x)y", "(a)\\\\1", "a++", "((a{100}){100}){100}", "((a{999}){999}){999}",
            "(?:(?:[ab]{0,500}){0,500}){0,500}", "(a{999}){2}{2}{2}"})
    void aPatternThatCannotBeHadIsRefusedWithWords(String pattern) {
        assertThatThrownBy(() -> card("""
                "readings": [{"id": "r", "type": "text", "arrives": {"line": {"from": "line", "pattern": "%s"}}}]"""
                .formatted(pattern))).isInstanceOf(BadFile.class).hasMessageContaining("\"pattern\"");
    }

    @Test
    void groupsWithNamesAreReadAsBefore() throws Exception {
        Twin twin = twin(
                card("""
                        "readings": [{"id": "r", "type": "text", "arrives": {"line": {"from": "line", "pattern": "^(?<a>x)(?<value>\\\\d+)$"}}}]"""),
                "line");
        assertThat(twin.land("line", List.of(Value.of("x42")))).singleElement().satisfies(l -> assertThat(l.value())
                .hasToString("42"));
    }

    @Test
    void anAddressOfManyPlacesIsMatchedInOneGo() {
        Template many = new Template("{a}{b}{c}{d}{e}{f}x");
        assertThat(many.match("a".repeat(5_000))).isEmpty();
        assertThat(new Template("/{a}/on").match("/desk/on")).contains(Map.of("a", "desk"));
        assertThat(new Template("/{a}/on").match("/de/sk/on")).isEmpty();
        assertThat(new Template("/{a}/on").match("//on")).isEmpty();
    }

    /** Each place doubles the one before: forty of them are a million million letters. */
    @Test
    void placesThatDoubleEachOtherEndWithWords() throws Exception {
        String with = IntStream.range(1, 40).mapToObj(i -> "\"p%d\": \"{p%d}{p%d}\"".formatted(i, i - 1, i - 1))
                .collect(
                        Collectors.joining(", "));
        Card card = card(
                """
                        "commands": [{"id": "c", "send": {"line": [{"to": "line", "with": {"p0": "xxxxxxxx", %s}, "args": ["{p39}"]}]}}]"""
                        .formatted(with));
        Twin twin = twin(card, "line");
        assertThatThrownBy(() -> twin.order(card.commands().getFirst(), Map.of(), Twin.Readings.NONE))
                .isInstanceOf(IllegalArgumentException.class).hasMessageContaining("longer than");
    }

    @Test
    void computedLoginsThatGrowEndWithWords() throws Exception {
        String with = IntStream.range(1, 80).mapToObj(i -> "\"p%d\": {\"compute\": \"text\", \"over\": \"{p%d}\"}"
                .formatted(i, i - 1)).collect(Collectors.joining(", "));
        Card card = card(
                """
                        "commands": [{"id": "c", "send": {"line": [{"to": "line", "with": {"p0": "xxxxxxxx", %s}, "args": ["{p79}"]}]}}]"""
                        .formatted(with));
        Throwable end = catchThrowable(() -> twin(card, "line").order(card.commands().getFirst(), Map.of(),
                Twin.Readings.NONE));
        assertThat(end).isInstanceOf(IllegalArgumentException.class).hasMessageContaining("longer than");
    }

    @ParameterizedTest
    @ValueSource(strings = {"%999999999d", "%.999999999f", "%-5000d"})
    void aNumberOfAThousandMillionDigitsIsRefused(String format) {
        assertThatThrownBy(() -> card("""
                "commands": [{"id": "c", "params": [{"id": "n", "type": "number"}],
                  "send": {"line": [{"to": "line", "args": [{"of": "n", "format": "%s"}]}]}}]""".formatted(format
                .replace("%", "%%").formatted()))).isInstanceOf(BadFile.class).hasMessageContaining("format");
    }

    @Test
    void jsonThatIsFilledIsBoundAsAWhole() throws Exception {
        String items = IntStream.range(0, 3000).mapToObj(_ -> "\"{t} \"").collect(Collectors.joining(","));
        Card card = card("""
                "commands": [{"id": "c", "params": [{"id": "t", "type": "text"}],
                  "send": {"http": [{"to": "POST /", "json": [%s]}]}}]""".formatted(items));
        assertThatThrownBy(() -> twin(card, "http").order(card.commands().getFirst(), Map.of("t", Value.of("x".repeat(
                100_000))), Twin.Readings.NONE)).hasMessageContaining("longer than");
    }

    @Test
    void aLongLineIsTakenApartAtOnce() {
        List<TrafficPacket> packets = new ArrayList<>();
        for (String text : List.of("a".repeat(1 << 20), "=".repeat(1 << 20), ("x" + ":".repeat(9)).repeat(100_000), "a "
                .repeat(500_000))) {
            packets.add(new TrafficPacket(packets.size() + 1, Instant.EPOCH, "g", TrafficPacket.Way.IN, "", "line",
                    List.of(Value.of(
                            text)),
                    null, List.of(), TrafficPacket.Fate.UNREAD, ""));
        }
        assertThat(Listening.to(packets)).isNotEmpty();
    }

    @Test
    void trafficIsBoundByWhatItWeighs() {
        Traffic traffic = new Traffic(new SimulatedClock());
        Value long1 = Value.of("x".repeat(1 << 20));
        for (int i = 0; i < 5000; i++) {
            traffic.in("g", "line", List.of(long1, long1, Value.of(i)), List.of(new ReceivedReading("r", long1, null)),
                    false);
        }
        List<TrafficPacket> kept = traffic.look(-1).packets();
        long letters = kept.stream().flatMap(p -> p.args().stream()).mapToLong(v -> v.toString().length()).sum() + kept
                .stream().mapToLong(p -> p.landed().getFirst().value().toString().length()).sum();
        assertThat(letters).isLessThan(Limits.TRAFFIC + (1 << 20)).isGreaterThan(Limits.TRAFFIC / 2);
        assertThat(kept.getLast().number()).isEqualTo(5000);
    }
}
