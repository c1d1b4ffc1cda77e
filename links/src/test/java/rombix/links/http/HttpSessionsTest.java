package rombix.links.http;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.links.link.GearUnderTest.soon;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import rombix.core.event.Cause;
import rombix.core.event.Status.Phase;
import rombix.core.store.BadFile;
import rombix.core.store.CardLibrary;
import rombix.core.value.Value;
import rombix.links.link.GearUnderTest;
import rombix.links.link.StandInGear;

/** Hubs that hand out tokens for a while, tell what happens as a stream, and hang at times. */
@Timeout(300)
class HttpSessionsTest {
    private static final String LOGIN = "'greeting': {'http': [{'to': 'POST /login', 'reply': {'keep': {'token': {'at':"
            + " '/token'}}}}EVENTS]}, 'commands': [{'id': 'go', 'title': 'Go', 'send': {'http': [{'to': 'PUT /go', 'args':"
            + " ['7'], 'head': {'X-Token': '{gear.token}'}}]}}]";

    private HttpServer server;
    private final ExecutorService threads = Executors.newVirtualThreadPerTaskExecutor();
    private final CountDownLatch over = new CountDownLatch(1);
    private final AtomicInteger token = new AtomicInteger();
    private final AtomicInteger done = new AtomicInteger();
    /** The least token that is taken. */
    private final AtomicInteger valid = new AtomicInteger(1);

    @BeforeEach
    void open() throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.setExecutor(threads);
        server.createContext("/login", x -> answer(x, 200, "{\"token\": \"" + token.incrementAndGet() + "\"}"));
        server.createContext("/go", x -> {
            boolean in = Integer.parseInt(x.getRequestHeaders().getFirst("X-Token")) >= valid.get();
            done.addAndGet(in ? 1 : 0);
            answer(x, in ? 200 : 401, in ? "{}" : "who are you?");
        });
        server.start();
    }

    @AfterEach
    void close() {
        over.countDown();
        server.stop(0);
        threads.shutdownNow();
    }

    private static void answer(HttpExchange x, int status, String text) throws IOException {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        x.getRequestBody().readAllBytes();
        x.sendResponseHeaders(status, bytes.length);
        x.getResponseBody().write(bytes);
        x.close();
    }

    private GearUnderTest gear(String rest) throws BadFile {
        return StandInGear.of(new Http(), CardLibrary.read(Path.of("hub.json"), ("{'card': 3, 'id': 'hub', 'title':"
                + " 'Hub', " + rest + "}").replace('\'', '"')), "127.0.0.1:" + server.getAddress().getPort(),
                link -> link.withSetting("timeout", Value.of(400)));
    }

    @Test
    void aTokenThatHasRunOutIsFetchedAnewAndTheOrderSentOnceMore() throws Exception {
        try (GearUnderTest gear = gear(LOGIN.replace("EVENTS", "")).ready()) {
            assertThat(gear.done("go")).isEqualTo("sent");
            valid.set(2);
            assertThat(gear.done("go")).isEqualTo("sent");
            assertThat(token).hasValue(2);
            assertThat(done).hasValue(2);
            assertThat(gear.status().phase()).isEqualTo(Phase.READY);
            valid.set(9);
            assertThat(gear.done("go")).as("once").contains("refused: 401");
            assertThat(token).hasValue(3);
        }
    }

    @Test
    void itIsReadyWhenItsStreamOfEventsIsOpen() throws Exception {
        CountDownLatch asked = new CountDownLatch(1);
        CountDownLatch may = new CountDownLatch(1);
        server.createContext("/events", x -> {
            asked.countDown();
            await(may);
            x.sendResponseHeaders(200, 0);
            x.getResponseBody().write("data: on\n\n".getBytes(StandardCharsets.UTF_8));
            x.getResponseBody().flush();
            await(over);
            x.close();
        });
        try (GearUnderTest gear = gear(LOGIN.replace("EVENTS", ", {'to': 'events /events'}"))) {
            await(asked);
            assertThat(gear.status().phase()).isNotEqualTo(Phase.READY);
            may.countDown();
            gear.ready();
        }
    }

    @Test
    void oneThatTakesQuestionsAndAnswersNoneHasStoppedAnswering() throws Exception {
        AtomicInteger asked = new AtomicInteger();
        server.createContext("/state", x -> {
            if (asked.incrementAndGet() > 1) {
                await(over);
            }
            answer(x, 200, "{}");
        });
        try (GearUnderTest gear = gear("'polls': {'http': [{'every': 50, 'ask': {'to': 'GET /state'}}]}").ready()) {
            soon(() -> gear.status().cause() == Cause.STOPPED_ANSWERING);
            assertThat(gear.status().phase()).isEqualTo(Phase.OFF);
        }
    }

    private static void await(CountDownLatch latch) {
        try {
            latch.await();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
