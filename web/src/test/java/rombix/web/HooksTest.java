package rombix.web;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.web.TestDevice.soon;

import java.net.InetAddress;
import java.net.URI;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import rombix.core.event.Mode;
import rombix.core.store.BoardFile;
import rombix.running.RunningDeck;
import rombix.running.state.DeckState;
import rombix.web.access.Access;
import rombix.web.access.AccessList;
import rombix.web.access.Right;

/** Triggers that are pulled over HTTP, each with a token of its own. */
@Timeout(120)
class HooksTest {
    private static final String BOARD = """
            {"rombix": 1, "name": "Hooks", "pages": [{"id": "p", "name": "P", "buttons": [
               {"id": "bell", "name": "Bell", "column": 0, "row": 0,
                "triggers": [{"trigger": "http", "name": "bell", "values": ["name", "times"]}],
                "states": [{"id": "s", "name": "S", "on": {"press": [
                  {"step": "say", "text": "{name} rang {times} times"}]}}]}]}]}
            """;

    @TempDir
    private Path folder;
    private RunningDeck deck;
    private AccessList access;
    private WebServer server;

    @BeforeEach
    void open() throws Exception {
        Path board = Files.writeString(folder.resolve("b.json"), BOARD);
        deck = new RunningDeck(Map.of(), null);
        deck.load(BoardFile.read(board));
        deck.mode(Mode.LIVE, false);
        access = new AccessList(folder.resolve("devices"));
        server = WebServer.open(deck, access, InetAddress.getLoopbackAddress(), 0, _ -> {
        });
    }

    @AfterEach
    void close() {
        server.close();
        deck.close();
    }

    private String token(String name, Access.Kind kind, Right... rights) throws Exception {
        return access.add(name, kind, Set.of(), Set.of(rights), 1);
    }

    private int pull(String name, String token, String body) throws Exception {
        return TestDevice.CLIENT.send(HttpRequest.newBuilder(URI.create(server.address() + "hook/" + name)).timeout(
                Duration.ofSeconds(20)).header("Authorization", "Bearer " + token).POST(
                        HttpRequest.BodyPublishers.ofString(body))
                .build(), HttpResponse.BodyHandlers.discarding())
                .statusCode();
    }

    private String said() {
        DeckState.Said said = deck.feed().state().said();
        return said == null ? "" : said.what().text();
    }

    @Test
    void aCallRunsThePressChainWithItsValues() throws Exception {
        String token = token("bell", Access.Kind.HOOK);
        assertThat(pull("bell", token, "{\"name\": \"Ada\", \"times\": 3, \"other\": 1}")).isEqualTo(202);
        soon(() -> said().equals("Ada rang 3 times"));
    }

    @Test
    void aTokenPullsItsOwnNameAndDoesNothingElse() throws Exception {
        String token = token("bell", Access.Kind.HOOK);
        assertThat(pull("other", token, "")).isEqualTo(401);
        assertThat(pull("bell", token("program", Access.Kind.PROGRAM, Right.PRESS), "")).isEqualTo(401);
        assertThat(pull("bell", "wrong", "")).isEqualTo(401);
        assertThat(pull("none", token("none", Access.Kind.HOOK), "")).isEqualTo(404);
        assertThat(TestDevice.CLIENT.send(HttpRequest.newBuilder(URI.create(server.address() + "api/v1/buttons"))
                .header("Authorization", "Bearer " + token).build(), HttpResponse.BodyHandlers.discarding())
                .statusCode()).isEqualTo(401);
        assertThat(pull("bell", token, "{")).isEqualTo(400);
    }

    @Test
    void inBuildATriggerDoesNotPress() throws Exception {
        deck.mode(Mode.BUILD, false);
        assertThat(pull("bell", token("bell", Access.Kind.HOOK), "")).isEqualTo(409);
    }
}
