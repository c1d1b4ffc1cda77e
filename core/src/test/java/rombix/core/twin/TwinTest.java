package rombix.core.twin;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rombix.core.card.Card.Item;
import rombix.core.card.Card;
import rombix.core.card.Protocol;
import rombix.core.card.value.Mapped;
import rombix.core.card.value.Meaning;
import rombix.core.card.value.WireValue;
import rombix.core.store.CardLibrary;
import rombix.core.twin.Twin.Readings;
import rombix.core.value.Value;

class TwinTest {
    private final Twin desk = twin("sound-desk", Protocol.of("midi"), Map.of());
    private final Twin studio = twin("studio", Protocol.of("osc"), Map.of());
    private final Twin lamps = twin("lamps", Protocol.of("dmx"), Map.of("lamp",
            List.of(new Item("key", "Key", Map.of("universe", 1, "level", 7)))));
    private final Twin house = twin("house", Protocol.of("mqtt"), Map.of());

    private static Twin twin(String card, Protocol protocol, Map<String, List<Item>> lists) {
        return new Twin("g", "Gear", CardLibrary.shipped().get(card), protocol, lists);
    }

    private static Order order(Twin twin, String command, Map<String, Value> args) {
        return twin.order(twin.card().command(command).orElseThrow(), args, Readings.NONE);
    }

    @org.junit.jupiter.params.ParameterizedTest
    @org.junit.jupiter.params.provider.CsvSource({"127, 127, 0, true", "100, 127, 0, true", "64, 127, 0, true",
            "63, 127, 0, false", "0, 127, 0, false", "128, 127, 0, ", "9, 3, 5, ", "0.6, 1, 0, true"})
    void aFlagThatComesBetweenYesAndNoIsTheNearerOfBoth(double wire, double yes, double no, Boolean flag) {
        WireValue mapped = new Mapped(null, null, null, null, null, Meaning.of(Value.of(yes)), Meaning.of(Value.of(no)),
                null, null);
        assertThat(mapped.in(Value.of(wire))).isEqualTo(java.util.Optional.ofNullable(flag).map(Value::of));
    }

    @Test
    void aCommandIsMadeOutWithItsAddressesChangesAndWords() {
        Order mute = order(desk, "mute", Map.of("channel", Value.of("dome")));
        assertThat(mute.packets()).singleElement().satisfies(p -> {
            assertThat(p.address()).isEqualTo("control 1 22");
            assertThat(p.args()).containsExactly(Value.of(127));
        });
        assertThat(mute.changes()).containsExactly(Map.entry("muted/dome", Value.of(true)));
        assertThat(mute.title()).isEqualTo("Mute Dome");
    }

    @ParameterizedTest
    @CsvSource({"-60, 0", "10, 127", "-25, 64", "-200, 0", "50, 127"})
    void aLevelIsMappedOntoTheWireAndKeptWithinItsRange(double level, double wire) {
        Order order = order(desk, "level", Map.of("channel", Value.of("host"), "level", Value.of(level)));
        assertThat(order.packets().getFirst().args()).containsExactly(Value.of(wire));
    }

    @ParameterizedTest
    @CsvSource({"control 1 20, 127, muted/host, true", "control 1 24, 0, muted/stings, false",
            "control 1 30, 0, level/host, -60", "control 1 31, 127, level/guest, 10"})
    void aPacketLandsOnItsReading(String address, double wire, String reading, String value) {
        assertThat(desk.land(address, List.of(Value.of(wire)))).singleElement().satisfies(l -> {
            assertThat(l.reading()).isEqualTo(reading);
            assertThat(String.valueOf(l.value())).isEqualTo(value.equals("true")
                    ? "yes"
                    : value.equals("false") ? "no" : value);
        });
    }

    @Test
    void packetsThatAreNotWhatTheCardSaysAreToldOf() {
        assertThat(desk.land("control 1 20", List.of(Value.of(200)))).singleElement()
                .satisfies(l -> assertThat(l.problem()).contains("200", "doesn't expect"));
        assertThat(house.land("house/lock/gate", List.of(Value.of("AJAR")))).singleElement()
                .satisfies(l -> assertThat(l.problem()).contains("AJAR"));
        assertThat(house.land("house/heater/temperature", List.of(Value.of("warm")))).singleElement()
                .satisfies(l -> assertThat(l.value()).isNull());
        assertThat(studio.land("/studio/scene", List.of())).singleElement()
                .satisfies(l -> assertThat(l.problem()).contains("without its value"));
        assertThat(desk.land("control 9 99", List.of(Value.of(1)))).isEmpty();
    }

    @Test
    void whatTheGearListsCanBeChosenByName() {
        Value listed = studio.land("/studio/scenes",
                List.of(Value.of("host-desk"), Value.of("Host Desk"), Value.of("sky"), Value.of("Sky Map")))
                .getFirst().value();
        Readings now = id -> id.equals("scene-list") ? listed : null;
        assertThat(studio.items("scene-list", now)).extracting(Item::name).containsExactly("Host Desk", "Sky Map");
        var scene = studio.card().command("scene").orElseThrow();
        assertThat(studio.order(scene, Map.of("scene", Value.of("sky")), now).title()).isEqualTo("Scene Sky Map");
        assertThat(studio.spoken(studio.reading("scene", now).orElseThrow(), Value.of("sky"), now))
                .isEqualTo("Sky Map");
    }

    @Test
    void aReadingOfAnUnlistedItemIsKnownByItsForm() {
        assertThat(studio.reading("shown/lower-third", Readings.NONE)).isPresent();
        assertThat(desk.reading("muted/nobody", Readings.NONE)).isEmpty();
        assertThat(desk.readings(Readings.NONE)).hasSize(14);
    }

    @Test
    void theGearsOwnListsTakeThePlaceOfTheCards() {
        assertThat(order(lamps, "level", Map.of("lamp", Value.of("key"), "level", Value.of(100))).packets())
                .singleElement().satisfies(p -> {
                    assertThat(p.address()).isEqualTo("1 7");
                    assertThat(p.args()).containsExactly(Value.of(255));
                });
    }

    @Test
    void aMissingOrUnknownArgumentIsSaidInPlainWords() {
        assertThatThrownBy(() -> order(desk, "mute", Map.of())).hasMessageContaining("needs a value for “channel”");
        assertThatThrownBy(() -> order(desk, "mute", Map.of("channel", Value.of("bass"))))
                .hasMessage("Gear has no channel “bass”");
    }

    @Test
    void theCommandThatReachesAValueIsFoundOnTheCard() {
        assertThat(desk.toReach("muted/dome", Value.of(true))).get().satisfies(c -> {
            assertThat(c.command().id()).isEqualTo("mute");
            assertThat(c.args()).containsExactly(Map.entry("channel", Value.of("dome")));
        });
        assertThat(desk.toReach("level/host", Value.of(-3))).get().satisfies(c -> {
            assertThat(c.command().id()).isEqualTo("level");
            assertThat(c.args()).containsEntry("level", Value.of(-3));
        });
        assertThat(studio.toReach("clips", Value.of(3))).isEmpty();
    }

    @Test
    void whatIsNoNumberDoesNotLand() {
        assertThat(desk.land("control 1 30", List.of(Value.of(Double.NEGATIVE_INFINITY)))).singleElement().satisfies(
                l -> assertThat(l.value()).isEqualTo(Value.of(-60)));
        assertThat(house.land("house/heater/temperature", List.of(Value.of(Double.NEGATIVE_INFINITY)))).singleElement()
                .satisfies(l -> {
                    assertThat(l.value()).isNull();
                    assertThat(l.problem()).contains("doesn't expect");
                });
    }

    @Test
    void anAddressThatAListOfTheBoardSpoilsIsRefusedInWords() {
        Twin spoilt = twin("house", Protocol.of("mqtt"), Map.of("lock", List.of(new Item("a/#", "Gate", Map.of()))));
        assertThatThrownBy(() -> order(spoilt, "unlock", Map.of("lock", Value.of("a/#")))).isInstanceOf(
                IllegalArgumentException.class).hasMessageContaining("a/#/set” is not");
    }

    @Test
    void anEmptyColourIsRefusedInWords() {
        Twin lit = twin("lamps", Protocol.of("dmx"), Map.of("colour-lamp", List.of(new Item("ring", "Ring", Map.of(
                "universe", 1, "colour", 3)))));
        assertThatThrownBy(() -> order(lit, "colour", Map.of("colour-lamp", Value.of("ring"), "colour", Value.of(""))))
                .isInstanceOf(IllegalArgumentException.class).hasMessageContaining("takes a colour such as");
    }

    @Test
    void severalReadingsOfOneAddressLandTogether() throws Exception {
        Card card = CardLibrary.read(java.nio.file.Path.of("c.json"), """
                {"card": 1, "id": "pad", "title": "Pad", "readings": [
                 {"id": "x", "type": "number", "arrives": {"osc": {"from": "/at", "arg": 0}}},
                 {"id": "y", "type": "number", "arrives": {"osc": {"from": "/at", "arg": 1}}}]}""");
        Twin pad = new Twin("g", "Pad", card, Protocol.of("osc"), Map.of());
        assertThat(pad.land("/at", List.of(Value.of(3), Value.of(4)))).extracting(l -> l.reading() + " " + l.value())
                .containsExactly("x 3", "y 4");
    }
}
