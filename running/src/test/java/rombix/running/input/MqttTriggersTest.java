package rombix.running.input;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.CopyOnWriteArrayList;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import rombix.core.event.Happening;
import rombix.core.event.Mode;
import rombix.core.event.Status.Phase;
import rombix.core.store.BoardFile;
import rombix.running.RunningDeck;
import rombix.standins.House;

/** Messages at a broker of the board press buttons. */
@Timeout(120)
class MqttTriggersTest {
    private static final String BOARD = """
            {"rombix": 1, "name": "Bells",
             "gear": [{"id": "house", "card": "house", "link": {"protocol": "mqtt", "address": "127.0.0.1:%d"}}],
             "pages": [{"id": "p", "name": "P", "buttons": [
               {"id": "bell", "column": 0, "row": 0, "triggers": [
                  {"trigger": "mqtt", "gear": "house", "topic": "bell/+/rung"},
                  {"trigger": "mqtt", "gear": "house", "topic": "house/lock/#", "text": "UNLOCKED"}],
                "states": [{"id": "s", "on": {"press": [{"step": "say", "text": "{topic} says {says}"}]}}]}]}]}
            """;

    @TempDir
    private Path folder;
    private final List<String> said = new CopyOnWriteArrayList<>();
    private final List<String> probes = new CopyOnWriteArrayList<>();
    private TriggerInputs inputs;
    private House house;
    private RunningDeck deck;

    @BeforeEach
    void open() throws Exception {
        house = new House(0);
        Path board = Files.writeString(folder.resolve("b.json"), BOARD.formatted(house.port()));
        deck = new RunningDeck(Map.of(), null);
        inputs = deck.listen(_ -> {
        }, 0, Runnable::run);
        deck.watch(h -> {
            if (h instanceof Happening.Said s) {
                (s.text().contains("probe") ? probes : said).add(s.text());
            }
        });
        deck.load(BoardFile.read(board));
        deck.mode(Mode.LIVE, false);
        soon(() -> deck.feed().state().status("house").phase() == Phase.READY
                && deck.feed().state().reading("house", "locked/gate") != null);
        soon(() -> { // The broker may take a moment to follow what the board asks for.
            house.says("bell/probe/rung", "there?");
            return !probes.isEmpty();
        });
    }

    @AfterEach
    void close() {
        deck.close();
        house.close();
    }

    private static void soon(Callable<Boolean> so) {
        await().atMost(Duration.ofSeconds(60)).pollInterval(Duration.ofMillis(10)).until(so);
    }

    @Test
    void eachMessagePressesOnceAndItsChainKnowsWhatItSaid() {
        house.says("bell/gate/rung", "Ada");
        soon(() -> said.size() == 1);
        house.says("bell/gate/rung", "Ada"); // Again the same.
        house.says("bell/gate", "no such topic");
        house.becomes("house/lock/gate", "LOCKED");
        house.becomes("house/lock/gate", "UNLOCKED"); // Its card follows that topic, too.
        soon(() -> said.size() >= 3);
        assertThat(said).containsExactly("bell/gate/rung says Ada", "bell/gate/rung says Ada",
                "house/lock/gate says UNLOCKED");
    }

    @Test
    void inBuildNothingPresses() {
        deck.mode(Mode.BUILD, false);
        soon(() -> !inputs.sources().armed());
        house.says("bell/gate/rung", "Ada");
        house.becomes("house/lock/gate", "UNLOCKED");
        soon(() -> String.valueOf(deck.feed().state().reading("house", "locked/gate")).equals("no"));
        assertThat(said).isEmpty();
    }
}
