package rombix.links.mqtt;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import rombix.core.card.Card.Item;
import rombix.core.card.Protocol;
import rombix.core.card.Twin;
import rombix.core.store.CardLibrary;
import rombix.core.value.Value;

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
        assertThat(MqttLink.topics(twin)).containsExactly("home/+/state", "home/booth/urn/state", "home/scenes");
        assertThat(twin.land("home/booth/urn/state", List.of(Value.of("on")))).singleElement().satisfies(
                l -> assertThat(l.reading()).isEqualTo("on/urn"));
    }
}
