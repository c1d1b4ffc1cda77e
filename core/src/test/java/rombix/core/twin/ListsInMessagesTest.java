package rombix.core.twin;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import rombix.core.card.Card;
import rombix.core.card.Protocol;
import rombix.core.store.BadFile;
import rombix.core.store.CardLibrary;
import rombix.core.value.Value;

/** Messages that carry several items of a list, and lists that several messages make. */
class ListsInMessagesTest {
    private final Map<String, Value.Choices> told = new HashMap<>();

    private static Twin twin(String readings) throws BadFile {
        Card card = CardLibrary.read(Path.of("lamps.json"), """
                {"card": 3, "id": "lamps", "title": "Lamps", "readings": [%s]}""".formatted(readings));
        return new Twin("g", "G", card, Protocol.of("osc"), Map.of());
    }

    /** What a message brings; a list is known from then on. */
    private Map<String, Value> brought(Twin twin, String address, String json) {
        Map<String, Value> all = new HashMap<>();
        twin.landings(told).land(new MessageReader.Message(address, List.of(Value.of(json)))).forEach(l -> {
            if (l.value() != null) {
                all.put(l.reading(), l.value());
            }
            if (l.value() instanceof Value.Choices c) {
                told.put(l.reading(), c);
            }
        });
        return all;
    }

    private static final String LISTED = """
            {"id": "lamp", "type": "list", "arrives": {"osc": {"from": "/all", "at": "/lamps", "list": {"id": "/id", "name": "/name"}}}}""";

    @Test
    void anArrayOfObjectsBringsOneReadingForEach() throws BadFile {
        Twin twin = twin(LISTED + """
                , {"id": "level/{lamp}", "type": "number", "arrives": {"osc": {"from": "/all", "each": "/lamps",
                 "where": {"/id": "{lamp}"}, "at": "/level"}}}""");
        assertThat(brought(twin, "/all", """
                {"lamps": [{"id": "desk", "name": "Desk", "level": 40}, {"id": "dome", "level": 7}, {"level": 9}]}"""))
                .containsEntry("level/desk", Value.of(40)).containsEntry("level/dome", Value.of(7)).hasSize(3);
    }

    @Test
    void theMembersOfAnObjectAreItemsByTheirNames() throws BadFile {
        Twin twin = twin(
                LISTED + """
                        , {"id": "level/{lamp}", "type": "number", "arrives": {"osc": {"from": "/levels", "each": "/lamps/{lamp}",
                         "at": "/level"}}}""");
        assertThat(brought(twin, "/levels", """
                {"lamps": {"desk": {"level": 40}, "dome": {"level": 7}}}""")).isEqualTo(Map.of("level/desk", Value.of(
                40), "level/dome", Value.of(7)));
    }

    @Test
    void anItemOfAListThatTheGearToldMayStandOnTheWayToTheValue() throws BadFile {
        Twin twin = twin(
                LISTED + """
                        , {"id": "level/{lamp}", "type": "number", "arrives": {"osc": {"from": "/now", "at": "/{lamp}/level"}}}""");
        brought(twin, "/all", "{\"lamps\": [{\"id\": \"desk\"}]}");
        assertThat(brought(twin, "/now", "{\"desk\": {\"level\": 3}, \"attic\": {\"level\": 4}}")).isEqualTo(Map.of(
                "level/desk", Value.of(3)));
    }

    @Test
    void aPatternTakesNothingOfTheQuotesAroundAnItem() throws BadFile {
        Twin twin = twin(
                LISTED + """
                        , {"id": "level/{lamp}", "type": "number", "arrives": {"osc": {"from": "/now", "pattern": "{lamp}.*:(\\\\d+)"}}}""");
        assertThat(brought(twin, "/now", "\"desk\":40")).isEqualTo(Map.of("level/desk", Value.of(40)));
    }

    @Test
    void anItemThatTheGearNeverListedIsNone() throws BadFile {
        Twin twin = twin(
                LISTED + """
                        , {"id": "level/{lamp}", "type": "number", "arrives": {"osc": {"from": "/now", "pattern": "^{lamp} (\\\\d+)$"}}}""");
        brought(twin, "/all", "{\"lamps\": [{\"id\": \"desk\"}]}");
        assertThat(brought(twin, "/now", "ERROR 7")).isEmpty();
        assertThat(brought(twin, "/now", "desk 7")).isEqualTo(Map.of("level/desk", Value.of(7)));
    }

    @Test
    void aListIsGatheredFromSeveralAddresses() throws BadFile {
        Twin twin = twin(
                """
                        {"id": "lamp", "type": "list", "arrives": {"osc": {"from": "/lamp/{lamp}/about", "list": {"name": "/name"}}}}""");
        brought(twin, "/lamp/desk/about", "{\"name\": \"Desk\", \"room\": 2}");
        brought(twin, "/lamp/dome/about", "{\"name\": \"Dome\"}");
        assertThat(told.get("lamp").choices()).extracting(Value.Choice::id, Value.Choice::name).containsExactly(
                org.assertj.core.groups.Tuple.tuple("desk", "Desk"), org.assertj.core.groups.Tuple.tuple("dome",
                        "Dome"));
        brought(twin, "/lamp/desk/about", "");
        assertThat(told.get("lamp").choices()).extracting(Value.Choice::id).containsExactly("dome");
    }

    @Test
    void aColourIsMadeOfItsMembers() throws BadFile {
        Twin twin = twin("""
                {"id": "colour", "type": "colour", "arrives": {"osc": {"from": "/c", "parts": {
                 "red": {"at": "/color/r"}, "green": {"at": "/color/g"}, "blue": {"at": "/color/b"}}}}},
                {"id": "shade", "type": "colour", "arrives": {"osc": {"from": "/s", "parts": {
                 "hue": {"at": "/h"}, "saturation": {"at": "/s", "value": {"from": [0, 100], "to": [0, 1]}}}}}}""");
        assertThat(brought(twin, "/c", "{\"color\": {\"r\": 255, \"g\": 128, \"b\": 0}}")).isEqualTo(Map.of("colour",
                Value.of("#FF8000")));
        assertThat(brought(twin, "/c", "{\"color\": {\"r\": 255}}")).isEmpty();
        assertThat(brought(twin, "/s", "{\"h\": 120, \"s\": 1}")).isEqualTo(Map.of("shade", Value.of("#00FF00")));
    }

    @Test
    void bytesAreSignedOrNibblesAsTheCardSays() throws BadFile {
        Twin twin = twin("""
                {"id": "pan", "type": "number", "arrives": {"osc": {"from": "/b", "byte": 2,
                 "value": {"packed": {"bytes": 4, "as": "nibbles"}}}}},
                {"id": "tilt", "type": "number", "arrives": {"osc": {"from": "/b", "byte": 6,
                 "value": {"packed": {"bytes": 2, "as": "signed", "low-first": true}}}}}""");
        assertThat(brought(twin, "/b", "90 50 01 02 03 04 fe ff")).isEqualTo(Map.of("pan", Value.of(0x1234), "tilt",
                Value.of(-2)));
    }
}
