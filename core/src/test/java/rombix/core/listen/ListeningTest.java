package rombix.core.listen;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import rombix.core.card.Card;
import rombix.core.card.Protocol;
import rombix.core.listen.HeardValue.Kind;
import rombix.core.store.CardLibrary;
import rombix.core.traffic.TrafficPacket;
import rombix.core.twin.Order;
import rombix.core.twin.ReceivedReading;
import rombix.core.twin.Twin;
import rombix.core.value.Value;

class ListeningTest {
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

    private static Value json(String text) {
        return Value.of(text.replace('\'', '"'));
    }

    @Test
    void messagesAreGroupedByWhatChangesInThem() {
        came("/ch/1/mute", Value.of(1));
        came("/ch/1/fader", Value.of(0.25));
        came("/ch/1/fader", Value.of(0.75));
        came("/go");
        assertThat(Listening.to(packets)).extracting(HeardValue::where).containsExactly("/go", "/ch/1/fader",
                "/ch/1/mute");
        assertThat(voice("/ch/1/fader").seen()).containsExactly(Value.of(0.25), Value.of(0.75));
        assertThat(voice("/ch/1/fader").count()).isEqualTo(2);
        assertThat(voice("/go").arg()).isEqualTo(HeardValue.EVENT);
    }

    @Test
    void jsonAndLinesAreTakenApart() {
        came("house/urn", json("{'state': 'ON', 'heat': {'now': 21.5}, 'tags': ['a', 'b']}"));
        came("line", Value.of("LEVEL=42"));
        came("line", Value.of("STATE 1=OFF 2=ON"));
        came("line", Value.of("power is on"));
        came("line", Value.of("HELLO"));
        assertThat(Listening.to(packets)).extracting(HeardValue::where).contains("house/urn /state",
                "house/urn /heat/now",
                "house/urn /tags", "line LEVEL=", "line …1=", "line …2=", "line power is", "line");
    }

    static Stream<Object[]> guesses() {
        return Stream.of(new Object[]{"/ch/1/mute", Kind.MUTE, List.of(1, 0)}, new Object[]{"/light", Kind.SWITCH, List
                .of("ON", "OFF")}, new Object[]{"note 1 20", Kind.SWITCH, List.of(127, 0)},
                new Object[]{"/fader", Kind.LEVEL, List.of(0.2, 0.5, 0.9)}, new Object[]{"/scene", Kind.CHOICE, List.of(
                        "Wide", "Host")},
                new Object[]{"/title", Kind.TEXT, List.of(
                        "A long text that nobody would choose from a list")});
    }

    @ParameterizedTest
    @MethodSource("guesses")
    void whatAVoiceIsIsGuessed(String address, Kind kind, List<Object> values) {
        values.forEach(v -> came(address, v instanceof Number n ? Value.of(n.doubleValue()) : Value.of(v.toString())));
        assertThat(voice(address).likely()).isEqualTo(kind);
    }

    /** A card that was made is written and read as any other: what is tried here has gone through its file. */
    private Twin made(String protocol, String where, Kind kind, String title, String toldAt) throws Exception {
        HeardValue voice = voice(where);
        ReadingDraft wanted = ReadingDraft.of(voice, kind, title, false).withToldAt(toldAt);
        Card card = CardMaking.withReading(CardMaking.empty("own", "Own"), Protocol.of(protocol), voice, wanted);
        String text = CardLibrary.format(card);
        assertThat(CardLibrary.check(Path.of("own.json"), text)).isEmpty();
        Card read = CardLibrary.read(Path.of("own.json"), text);
        assertThat(read).isEqualTo(card);
        return new Twin("g", "Own", read, Protocol.of(protocol), Map.of());
    }

    private static List<String> sent(Twin twin, String command, Value... with) {
        Order order = twin.order(twin.card().command(command).orElseThrow(), with.length == 0
                ? Map.of()
                : Map.of("to", with[0]), Twin.Readings.NONE);
        return order.packets().stream().map(p -> p.address() + " " + p.args() + " " + p.forms()).toList();
    }

    private static List<ReceivedReading> landed(Twin twin, String address, Value... args) {
        return twin.land(address, Arrays.asList(args));
    }

    @Test
    void aMuteOfOneArgumentIsReadAndTold() throws Exception {
        came("/ch/1/mute", Value.of(0));
        came("/ch/1/mute", Value.of(1));
        Twin twin = made("osc", "/ch/1/mute", Kind.MUTE, "Host", "/ch/1/mute");
        assertThat(landed(twin, "/ch/1/mute", Value.of(1)))
                .containsExactly(new ReceivedReading("host", Value.of(true), null));
        assertThat(sent(twin, "mute-host")).containsExactly("/ch/1/mute [1] [INT]");
        assertThat(sent(twin, "unmute-host")).containsExactly("/ch/1/mute [0] [INT]");
        assertThat(twin.toReach("host", Value.of(false)).orElseThrow().command().id()).isEqualTo("unmute-host");
    }

    @Test
    void aLevelKeepsTheRangeOfItsWire() throws Exception {
        came("control 1 30", Value.of(20));
        came("control 1 30", Value.of(90));
        Twin twin = made("midi", "control 1 30", Kind.LEVEL, "Desk key", "control 1 30");
        assertThat(landed(twin, "control 1 30", Value.of(127)).getFirst().value()).isEqualTo(Value.of(100));
        assertThat(sent(twin, "desk-key", Value.of(50))).containsExactly("control 1 30 [64] [INT]");
    }

    @Test
    void jsonIsToldAsItTells() throws Exception {
        came("plugs/urn", json("{'power': {'on': 'OFF'}, 'watts': 3}"));
        Twin twin = made("mqtt", "plugs/urn /power/on", Kind.SWITCH, "Urn", "plugs/urn/set");
        assertThat(landed(twin, "plugs/urn", json("{'power': {'on': 'ON'}}")))
                .containsExactly(new ReceivedReading("urn", Value
                        .of(true), null));
        assertThat(sent(twin, "urn-on")).containsExactly("plugs/urn/set [{\"power\":{\"on\":\"ON\"}}] [TEXT]");
    }

    @Test
    void aLineIsReadByWhatItBeginsWith() throws Exception {
        came("line", Value.of("INPUT=SKY"));
        came("line", Value.of("INPUT=LAB"));
        Twin twin = made("line", "line INPUT=", Kind.CHOICE, "Input", "line");
        assertThat(landed(twin, "line", Value.of("INPUT=SKY")))
                .containsExactly(new ReceivedReading("input", Value.of("SKY"),
                        null));
        assertThat(landed(twin, "line", Value.of("LAMP=ON"))).isEmpty();
        assertThat(sent(twin, "input", Value.of("LAB"))).containsExactly("line [INPUT=LAB] [PLAIN]");
        came("line", Value.of("STATE 1=OFF 2=ON"));
        Twin relays = made("line", "line …2=", Kind.SWITCH, "Fog", "");
        assertThat(landed(relays, "line", Value.of("STATE 1=ON 2=OFF")))
                .containsExactly(new ReceivedReading("fog", Value.of(
                        false), null));
        assertThat(relays.card().commands()).isEmpty();
    }

    @Test
    void aListHasItsIdsAndNames() throws Exception {
        came("scenes", json("[{'id': 7, 'title': 'Wide'}, {'id': 9, 'title': 'Host'}]"));
        Twin twin = made("mqtt", "scenes", Kind.LIST, "Scenes", "");
        assertThat(landed(twin, "scenes", json("[{'id': 7, 'title': 'Wide'}]")).getFirst().value()).satisfies(
                v -> assertThat(((Value.Choices) v).choices().getFirst().name()).isEqualTo("Wide"));
    }

    @Test
    void whatIsTakenAwayIsNamedByNothing() throws Exception {
        came("/light", Value.of(0));
        came("/light", Value.of(1));
        Card card = made("osc", "/light", Kind.SWITCH, "Light", "/light").card();
        Card left = CardMaking.withoutReading(CardMaking.withoutCommand(card, "light-off"), "light");
        assertThat(CardLibrary.check(Path.of("own.json"), CardLibrary.format(left))).isEmpty();
        assertThat(left.commands()).singleElement().satisfies(c -> assertThat(c.undo()).isNull());
    }

    /** A message of several members was on the card as a whole once one of them was: the others could not be made. */
    @Test
    void eachMemberOfAMessageIsOnTheCardByItself() throws Exception {
        came("plugs/urn", json("{'state': 'OFF', 'watts': 3}"));
        Twin twin = made("mqtt", "plugs/urn /state", Kind.SWITCH, "Urn", "");
        assertThat(voice("plugs/urn /state").on(twin)).containsExactly("Urn");
        assertThat(voice("plugs/urn /watts").on(twin)).isEmpty();
    }

    @ParameterizedTest
    @CsvSource({"control 1 30, 20, 127", "note 1 60, 90, 127", "1 12, 90, 255", "/fader, 0.5, 1", "/volume, 40, 100",
            "/gain, 200, 255", "/steps, 300, 300"})
    void aLevelGoesAsFarAsIsUsualOnItsWire(String address, double most, double high) {
        came(address, Value.of(0));
        came(address, Value.of(most));
        assertThat(ReadingDraft.of(voice(address), Kind.LEVEL, "L", true).wireHigh()).isEqualTo(high);
    }
}
