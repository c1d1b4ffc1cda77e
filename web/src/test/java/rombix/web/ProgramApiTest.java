package rombix.web;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.web.TestDevice.soon;

import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.io.BufferedReader;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.net.InetAddress;
import java.net.URI;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.Executors;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.ResourceLock;
import rombix.core.event.Mode;
import rombix.core.store.BoardFile;
import rombix.running.RunningDeck;
import rombix.running.log.LogStore;
import rombix.running.owner.Trust;
import rombix.standins.set.StandIns;
import rombix.web.access.Access;
import rombix.web.access.AccessList;
import rombix.web.access.Right;
import rombix.web.api.ProgramApi;
import rombix.web.json.WebJson;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Programs over real HTTP, held to the OpenAPI document that ships. */
@Timeout(120)
@ResourceLock(DemoDeck.CABLES)
class ProgramApiTest {
    private static final Set<Right> ALL = Set.of(Right.values());
    @TempDir
    private static Path logs;
    private static DemoDeck demo;
    private static RunningDeck deck;

    @TempDir
    private Path folder;
    private AccessList access;
    private WebServer server;
    private JsonNode document;

    @BeforeAll
    static void start() throws Exception {
        demo = DemoDeck.open(LogStore.ofBoard(logs.resolve("log"), _ -> {
        }));
        deck = demo.deck();
    }

    @AfterAll
    static void end() throws Exception {
        demo.close();
    }

    @BeforeEach
    void open() throws Exception {
        access = new AccessList(folder.resolve("devices"));
        server = WebServer.open(deck, access, InetAddress.getLoopbackAddress(), 0, _ -> {
        });
        try (InputStream in = WebServer.class.getResourceAsStream("/rombix/web/api/openapi.json")) {
            document = new JsonMapper().readTree(in.readAllBytes());
        }
    }

    @AfterEach
    void close() {
        server.close();
    }

    private String token(Set<Right> rights, String... pages) throws Exception {
        return access.add("Script " + access.all().size(), Access.Kind.PROGRAM, Set.of(pages), rights, 1);
    }

    private HttpResponse<String> call(String method, String path, String token, String body) throws Exception {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(server.address() + "api/v1" + path)).timeout(
                Duration.ofSeconds(20)).method(method,
                        body.isEmpty()
                                ? HttpRequest.BodyPublishers.noBody()
                                : HttpRequest.BodyPublishers.ofString(body));
        if (!token.isEmpty()) {
            request.header("Authorization", "Bearer " + token);
        }
        return TestDevice.CLIENT.send(request.build(), HttpResponse.BodyHandlers.ofString());
    }

    private JsonNode get(String path, String token) throws Exception {
        HttpResponse<String> answer = call("GET", path, token, "");
        assertThat(answer.statusCode()).as(path + answer.body()).isEqualTo(200);
        return new JsonMapper().readTree(answer.body());
    }

    private static String concrete(String template) {
        return template.replace("{button}", "gate").replace("{gear}", "house").replace("{reading}", "locked/gate")
                .replace("{run}", "999999").replace("{question}", "999999");
    }

    @Test
    void theDocumentNamesAllCallsThatThereAreAndNoOthers() throws Exception {
        Set<String> documented = new TreeSet<>();
        document.path("paths").properties().forEach(p -> p.getValue().properties().forEach(m -> documented.add(m
                .getKey().toUpperCase(java.util.Locale.ROOT) + " " + p.getKey())));
        String token = token(ALL);
        for (String call : documented) {
            if (!call.endsWith("/events") && !call.endsWith("/stop-all")) {
                String[] parts = call.split(" ");
                HttpResponse<String> answer = call(parts[0], concrete(parts[1]), token, "");
                assertThat(answer.body()).as(call).doesNotContain("no such call");
            }
        }
        assertThat(documented).isEqualTo(new TreeSet<>(new ProgramApi(deck, access, Executors
                .newSingleThreadScheduledExecutor(Thread.ofVirtual().factory())).calls()));
    }

    @Test
    void whatIsAnsweredIsAsTheDocumentSays() throws Exception {
        String token = token(ALL);
        deck.port("test").press("record");
        deck.port("test").release("record");
        for (Map.Entry<String, JsonNode> path : document.path("paths").properties()) {
            JsonNode schema = path.getValue().path("get").path("responses").path("200").path("content").path(
                    "application/json").path("schema");
            if (!schema.isMissingNode()) {
                String concrete = concrete(path.getKey());
                soon(() -> call("GET", concrete, token, "").statusCode() == 200);
                assertThat(trouble(schema, call("GET", concrete, token, "").body())).as(concrete).isEmpty();
            }
        }
        assertThat(trouble(document.path("components").path("schemas").path("Problem"), call("GET", "/nothing", token,
                "").body())).isEmpty();
    }

    /** Where a body is not what a schema of the document allows. */
    private List<String> trouble(JsonNode schema, String body) {
        var whole = WebJson.MAPPER.createObjectNode();
        whole.set("components", document.path("components"));
        whole.setAll((tools.jackson.databind.node.ObjectNode) schema);
        return SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12).getSchema(whole).validate(
                new JsonMapper().readTree(body)).stream().map(Object::toString).toList();
    }

    @Test
    void aProgramPressesHoldsMovesAndReads() throws Exception {
        String token = token(ALL);
        int before = get("/buttons/countdown", token).path("state").asInt();
        assertThat(call("POST", "/buttons/countdown/press", token, "").statusCode()).isEqualTo(202);
        soon(() -> get("/buttons/countdown", token).path("state").asInt() != before);
        assertThat(call("POST", "/buttons/host-talk/press", token, "{\"holdMs\": 60000}").statusCode()).isEqualTo(202);
        soon(() -> get("/buttons/host-talk", token).path("held").asBoolean());
        assertThat(call("POST", "/buttons/host-talk/release", token, "").statusCode()).isEqualTo(202);
        soon(() -> !get("/buttons/host-talk", token).path("held").asBoolean());
        assertThat(call("POST", "/buttons/host-talk/press", token, "{\"holdMs\": 150}").statusCode()).isEqualTo(202);
        soon(() -> !get("/buttons/host-talk", token).path("held").asBoolean());
        soon(() -> call("GET", "/readings/house/locked/gate", token, "").statusCode() == 200); // Once the gear has said it.
        assertThat(get("/readings/house/locked/gate", token).path("value").isBoolean()).isTrue();
        assertThat(get("/log?limit=5", token).size()).isBetween(1, 5);
    }

    @Test
    void aTokenDoesWhatItMayAndNoMore() throws Exception {
        String watch = token(Set.of());
        assertThat(call("GET", "/buttons", watch, "").statusCode()).isEqualTo(200);
        assertThat(call("POST", "/buttons/gate/press", watch, "").statusCode()).isEqualTo(403);
        assertThat(call("POST", "/stop-all", watch, "").statusCode()).isEqualTo(403);
        assertThat(call("GET", "/log", watch, "").statusCode()).isEqualTo(403);
        String press = token(Set.of(Right.PRESS), "trouble");
        assertThat(call("POST", "/stop-all", press, "").statusCode()).isEqualTo(403);
        assertThat(call("POST", "/buttons/gate/press", press, "").statusCode()).isEqualTo(404);
        assertThat(get("/pages", press).size()).isEqualTo(1);
        assertThat(call("GET", "/buttons", "", "").statusCode()).isEqualTo(401);
        assertThat(call("GET", "/buttons", "wrong", "").statusCode()).isEqualTo(401);
        assertThat(call("GET", "/openapi.json", "", "").statusCode()).isEqualTo(200);
    }

    @Test
    void aRevokedTokenIsWorthNothingAndItsHoldEnds() throws Exception {
        String token = token(ALL);
        call("POST", "/buttons/host-talk/press", token, "{\"holdMs\": 60000}");
        soon(() -> deck.feed().state().play("host-talk").held());
        access.remove(access.all().getFirst().id());
        soon(() -> !deck.feed().state().play("host-talk").held());
        assertThat(call("GET", "/buttons", token, "").statusCode()).isEqualTo(401);
    }

    @Test
    void badCallsAreToldInProblemDetails() throws Exception {
        String token = token(ALL);
        Map<String, Integer> wrong = Map.of("POST /buttons/none/press", 404, "POST /buttons/gate/move", 400,
                "DELETE /buttons/gate", 405, "GET /log?limit=0", 400, "GET /log?limit=x", 400, "POST /runs/1x/stop",
                404, "GET /readings/house/none", 404);
        for (Map.Entry<String, Integer> w : wrong.entrySet()) {
            String[] parts = w.getKey().split(" ");
            HttpResponse<String> answer = call(parts[0], parts[1], token, "");
            assertThat(answer.statusCode()).as(w.getKey()).isEqualTo(w.getValue());
            assertThat(answer.headers().firstValue("content-type")).contains("application/problem+json");
        }
        assertThat(call("POST", "/buttons/gate/press", token, "{").statusCode()).isEqualTo(400);
        assertThat(call("POST", "/buttons/gate/press", token, "[".repeat(9000)).statusCode()).isEqualTo(400);
        assertThat(call("POST", "/buttons/gate/press", token, " ".repeat(20000)).statusCode()).isEqualTo(413);
    }

    @Test
    void everythingIsFollowedUntilTheTokenIsRevoked() throws Exception {
        String token = token(ALL);
        HttpResponse<InputStream> stream = TestDevice.CLIENT.send(HttpRequest.newBuilder(URI.create(server.address()
                + "api/v1/events")).header("Authorization", "Bearer " + token).build(), HttpResponse.BodyHandlers
                        .ofInputStream());
        List<String> lines = new CopyOnWriteArrayList<>();
        Thread reader = Thread.ofVirtual().start(() -> {
            try (BufferedReader in = new BufferedReader(new InputStreamReader(stream.body(),
                    StandardCharsets.UTF_8))) {
                in.lines().forEach(lines::add);
            } catch (java.io.IOException | java.io.UncheckedIOException e) {
                // It was ended.
            }
        });
        soon(() -> lines.contains("event: status"));
        call("POST", "/buttons/record/press", token, "");
        soon(() -> lines.contains("event: run-started") && lines.contains("event: run-ended") && lines.contains(
                "event: reading"));
        assertThat(new ArrayList<>(lines)).anyMatch(l -> l.startsWith("data: ") && l.contains(
                "\"source\":\"program “Script 0”\""));
        access.remove(access.all().getFirst().id());
        assertThat(reader.join(Duration.ofSeconds(20))).isTrue();
    }

    /** A hold for a minute stayed for ever, as nobody was left to end it. */
    @Test
    void aHoldOfAProgramEndsWhenPagesAreTurnedOff() throws Exception {
        String token = token(ALL);
        assertThat(call("POST", "/buttons/host-talk/press", token, "{\"holdMs\": 60000}").statusCode()).isEqualTo(202);
        soon(() -> deck.feed().state().play("host-talk").held());
        server.close();
        soon(() -> !deck.feed().state().play("host-talk").held());
    }
}
