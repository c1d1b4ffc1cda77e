package rombix.links.line;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rombix.core.board.Gear;
import rombix.core.card.Protocol;
import rombix.core.store.CardLibrary;
import rombix.core.twin.Twin;
import rombix.core.value.Value;
import rombix.links.link.GearPlaces;
import rombix.links.link.Keyring;
import rombix.links.link.Target;
import rombix.wire.Malformed;

/** A stream is taken apart into the same messages, however it is split or glued. */
class FramingTest {
    private static Framing framing(Map<String, Object> settings) {
        Map<String, Value> set = new TreeMap<>(Map.of(Line.MESSAGES, Value.of(Line.BYTES)));
        settings.forEach((id, v) -> set.put(id, v instanceof Number n
                ? Value.of(n.doubleValue())
                : Value.of(v
                        .toString())));
        Gear.Link link = new Gear.Link(Protocol.of("line"), "127.0.0.1:9", null, null, null, set, Map.of());
        Twin twin = new Twin("g", "G", CardLibrary.shipped().get("any-line"), Protocol.of("line"), Map.of());
        return new Framing(new GearPlaces(twin, new Target("127.0.0.1:9", link, Keyring.NONE, java.nio.file.Path::of)));
    }

    private static Map<String, Object> settings(String text) {
        Map<String, Object> all = new TreeMap<>();
        for (String pair : text.split(";")) {
            String[] parts = pair.strip().split(" *= *");
            all.put(parts[0], parts[1].matches("-?\\d+") && !parts[0].equals("terminator")
                    ? Integer.valueOf(parts[1])
                    : parts[1]);
        }
        return all;
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {"framing=terminator; terminator=ff | 90 50 01 ff 90 41 ff | 905001ff 9041ff",
            "framing=terminator; terminator=0d 0a | 31 0d 0a 0d 32 0d 0a | 310d0a 0d320d0a",
            "framing=length field | 02 aa bb 00 01 cc | 02aabb 00 01cc",
            "framing=length field; length-at=1; length-size=2 | 7e 00 01 aa 7e 00 02 bb cc | 7e0001aa 7e0002bbcc",
            "framing=length field; length-size=2; length-order=low byte first | 01 00 aa 02 00 bb cc | 0100aa 0200bbcc",
            "framing=length field; length-counts=whole message | 03 aa bb 02 cc | 03aabb 02cc",
            "framing=length field; uncounted=1 | 01 aa 5e 02 bb cc 5e | 01aa5e 02bbcc5e",
            "framing=fixed size; size=3 | 01 02 03 04 05 06 | 010203 040506"})
    void messagesAreTheSameWhetherBytesComeOneByOneOrAllAtOnce(String settings, String bytes, String messages)
            throws Malformed {
        byte[] stream = HexFormat.of().parseHex(bytes.replace(" ", ""));
        for (int chunk = 1; chunk <= stream.length; chunk++) {
            Framing framing = framing(settings(settings));
            List<String> all = new ArrayList<>();
            for (int i = 0; i < stream.length; i += chunk) {
                framing.take(java.util.Arrays.copyOfRange(stream, i, Math.min(i + chunk, stream.length)), Math.min(
                        chunk, stream.length - i));
                for (byte[] m = framing.next(); m != null; m = framing.next()) {
                    all.add(HexFormat.of().formatHex(m));
                }
            }
            assertThat(String.join(" ", all)).as("in chunks of " + chunk).isEqualTo(messages);
        }
    }

    @Test
    void aLengthThatCannotBeIsPassedOver() throws Malformed {
        Framing framing = framing(settings("framing=length field; length-size=4"));
        framing.take(new byte[]{127, 0, 0, 0, 1}, 5);
        assertThatThrownBy(framing::next).isInstanceOf(Malformed.class).hasMessageContaining("more than 65536 bytes");
        framing.take(new byte[]{0, 0, 0, 1, 9}, 5);
        assertThat(framing.next()).containsExactly(0, 0, 0, 1, 9);
    }

    @Test
    void aTerminatorHasToBeSet() {
        assertThatThrownBy(() -> framing(settings("framing=terminator"))).hasMessageContaining("no terminator is set");
    }
}
