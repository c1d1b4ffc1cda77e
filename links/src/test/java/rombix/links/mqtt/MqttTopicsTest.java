package rombix.links.mqtt;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import rombix.core.card.Card.Item;
import rombix.core.card.Protocol;
import rombix.core.event.Event;
import rombix.core.store.CardLibrary;
import rombix.core.twin.Twin;
import rombix.core.value.Value;
import rombix.links.MachineClock;
import rombix.links.link.GearReport;

class MqttTopicsTest {
    private static final String CARD = """
            {"card": 1, "id": "plugs", "title": "Plugs", "lists": {"plug": []}, "readings": [
              {"id": "scene", "type": "list", "arrives": {"mqtt": {"from": "home/scenes"}}},
              {"id": "on/{plug}", "type": "flag", "arrives": {"mqtt": {"from": "home/{plug.topic}/state"}}},
              {"id": "light/{scene}", "type": "flag", "arrives": {"mqtt": {"from": "home/{scene}/state"}}}], "commands": []}
            """;

    /** An item whose topic has levels of its own was never heard, and one that a family covers was heard twice. */
    @Test
    void eachTopicIsFollowedOnceHoweverManyLevelsItHas() throws Exception {
        Twin twin = new Twin("plugs", "Plugs", CardLibrary.read(Path.of("plugs.json"), CARD), Protocol.of("mqtt"), Map
                .of("plug", List.of(new Item("urn", "Tea urn", Map.of("topic", "booth/urn")), new Item("fan", "Fan", Map
                        .of("topic", "fan")))));
        assertThat(MqttLink.topics(twin.landings(Map.of()))).containsExactly("home/+/state", "home/booth/urn/state",
                "home/scenes");
        assertThat(twin.land("home/booth/urn/state", List.of(Value.of("on")))).singleElement().satisfies(
                l -> assertThat(l.reading()).isEqualTo("on/urn"));
    }

    /** Of a topic that a card or a trigger names, too, a broker would say each message twice. */
    @Test
    void whatTriggersNameIsFollowedOnce() {
        assertThat(MqttLink.wanted(Set.of("a/+", "$SYS/load"), Set.of("a/b", "bell"), false)).containsExactlyInAnyOrder(
                "a/+", "$SYS/load", "bell");
        assertThat(MqttLink.wanted(Set.of("a/+"), Set.of("bell"), true)).containsExactlyInAnyOrder("a/+", "bell", "#");
    }

    /** What a gear listed was heard at one level only, and never at an address that one of its fields says. */
    @Test
    void whatTheGearListsIsHeardWhereItsFieldsSay() throws Exception {
        Twin twin = new Twin("lights", "Lights", CardLibrary.read(Path.of("lights.json"), """
                {"card": 2, "id": "lights", "title": "Lights", "readings": [
                  {"id": "lamps", "type": "list", "arrives": {"mqtt": {"from": "home/lamps", "at": "",
                    "list": {"id": "/id", "name": "/name"}}}},
                  {"id": "on/{lamps}", "type": "flag", "arrives": {"mqtt": {"from": "{lamps.topic}/state"}}},
                  {"id": "level/{lamps}", "type": "number", "arrives": {"mqtt": {"from": "home/{lamps}/level"}}}],
                 "commands": []}
                """), Protocol.of("mqtt"), Map.of());
        Map<String, Value> came = new HashMap<>();
        GearReport report = new GearReport(twin, new MachineClock(), e -> {
            if (e instanceof Event.Came c) {
                came.put(c.reading(), c.value());
            }
        });
        assertThat(MqttLink.topics(report.landings())).containsExactly("home/+/level", "home/lamps");
        String list = """
                [{"id": "dome/red", "name": "Dome", "topic": "attic/dome/red"}, {"id": "door", "name": "Door"}]""";
        assertThat(report.landed("home/lamps", List.of(Value.of(list))).listed()).isTrue();
        assertThat(MqttLink.topics(report.landings())).containsExactly("attic/dome/red/state", "home/+/level",
                "home/dome/red/level", "home/lamps");
        assertThat(report.landed("home/lamps", List.of(Value.of(list))).listed()).as("nothing new").isFalse();
        report.landed("attic/dome/red/state", List.of(Value.of("on")));
        report.landed("home/dome/red/level", List.of(Value.of("7")));
        report.landed("home/door/level", List.of(Value.of("8")));
        assertThat(came).containsEntry("on/dome/red", Value.of(true)).containsEntry("level/dome/red", Value.of(7))
                .containsEntry("level/door", Value.of(8));
        assertThat(twin.reading("level/dome/red", came::get).orElseThrow().title()).isEqualTo("level/Dome");
    }
}
