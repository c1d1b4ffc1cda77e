package rombix.web;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static rombix.web.TestDevice.soon;

import java.io.InputStream;
import java.net.InetAddress;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CopyOnWriteArrayList;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.ResourceLock;
import rombix.core.event.Happening;
import rombix.core.board.Rig;
import rombix.core.event.Mode;
import rombix.core.event.Status.Phase;
import rombix.core.store.BoardFile;
import rombix.running.RunningDeck;
import rombix.running.owner.Trust;
import rombix.standins.set.StandIns;
import rombix.web.access.Access;
import rombix.web.access.AccessList;
import rombix.web.access.Right;

/** The demo board with its stand-ins, worked by devices over real sockets. */
@Timeout(120)
@ResourceLock(DemoDeck.CABLES)
class WebServerTest {
    private static final Set<Right> ALL = Set.of(Right.PRESS, Right.STOP_ALL);

    private static DemoDeck demo;
    private static Rig rig;
    private static RunningDeck deck;

    @TempDir
    private Path folder;
    private AccessList access;
    private WebServer server;
    private final List<String> notices = new CopyOnWriteArrayList<>();
    private final List<Happening> happened = new CopyOnWriteArrayList<>();
    private final List<TestDevice> devices = new ArrayList<>();

    private RunningDeck.Watching watching;

    @BeforeAll
    static void start() throws Exception {
        demo = DemoDeck.open(null);
        rig = demo.rig();
        deck = demo.deck();
    }

    @AfterAll
    static void end() throws Exception {
        demo.close();
    }

    @BeforeEach
    void open() throws Exception {
        watching = deck.watch(happened::add);
        access = new AccessList(folder.resolve("devices"));
        server = WebServer.open(deck, access, InetAddress.getLoopbackAddress(), 0, notices::add);
    }

    @AfterEach
    void close() {
        devices.forEach(TestDevice::close);
        server.close();
        watching.close();
        deck.port("test").stopAll();
        soon(() -> deck.feed().state().running().isEmpty());
    }

    private TestDevice device() {
        TestDevice made = new TestDevice(server.address());
        devices.add(made);
        return made;
    }

    private TestDevice letIn(String name, Set<String> pages, Set<Right> rights) throws Exception {
        TestDevice made = device();
        assertThat(made.join(server.invitations().open(pages, rights).code(), name).statusCode()).isEqualTo(204);
        made.open();
        soon(() -> !made.faces().isEmpty());
        return made;
    }

    private boolean held(String button) {
        return deck.feed().state().play(button).held();
    }

    private long started(String button) {
        return happened.stream().filter(h -> h instanceof Happening.Started s && s.button().equals(button)).count();
    }

    @Test
    void aDeviceThatWasLetInSeesTheFacesOfItsPage() throws Exception {
        TestDevice phone = letIn("Door phone", Set.of(), ALL);
        assertThat(phone.pages()).contains("doors", "trouble");
        assertThat(phone.last("page").path("id").asString()).isEqualTo("doors");
        assertThat(phone.faces().get("host-talk").path("label").asString()).isEqualTo("Host talk");
        assertThat(phone.faces().get("host-talk").path("icon").asString()).hasSize(2);
        assertThat(phone.last("scene").path("mode").asString()).isEqualTo("live");
    }

    @Test
    void aPressGoesToTheDeckAndItsFaceComesBack() throws Exception {
        TestDevice phone = letIn("Phone", Set.of(), ALL);
        int before = phone.faces().get("record").path("state").asInt(0);
        phone.say(Map.of("do", "press", "b", "record"));
        phone.say(Map.of("do", "release", "b", "record"));
        soon(() -> phone.faces().get("record").path("state").asInt(0) != before);
        assertThat(happened).anySatisfy(h -> assertThat(h).isInstanceOfSatisfying(Happening.Started.class,
                s -> assertThat(s.source()).isEqualTo("device “Phone”")));
    }

    @Test
    void aHoldEndsOnceWhenTheConnectionDoes() throws Exception {
        TestDevice phone = letIn("Phone", Set.of(), ALL);
        phone.say(Map.of("do", "press", "b", "host-talk"));
        soon(() -> held("host-talk"));
        phone.abort();
        soon(() -> !held("host-talk"));
    }

    @Test
    void aHoldEndsWithinTwoSecondsWhenTheNetworkIsPulledAndNobodySaysSo() throws Exception {
        TestDevice phone = letIn("Phone", Set.of(), ALL);
        phone.say(Map.of("do", "press", "b", "host-talk"));
        soon(() -> held("host-talk"));
        long from = System.nanoTime();
        soon(() -> !held("host-talk")); // It says no longer that it holds: no byte comes, and the socket stays open.
        assertThat((System.nanoTime() - from) / 1e9).isLessThan(10); // On a busy machine; 1.5 to 1.75 where there is time.
        assertThat(phone.closedWith).isEqualTo(-1);
    }

    @Test
    void aHoldLastsAsLongAsTheDeviceSaysSo() throws Exception {
        TestDevice phone = letIn("Phone", Set.of(), ALL);
        phone.say(Map.of("do", "press", "b", "host-talk"));
        soon(() -> held("host-talk"));
        long from = System.nanoTime();
        soon(() -> {
            phone.say(Map.of("do", "holding"));
            return System.nanoTime() - from > 2_500_000_000L;
        });
        assertThat(held("host-talk")).isTrue();
        phone.say(Map.of("do", "release", "b", "host-talk"));
        soon(() -> !held("host-talk"));
    }

    @Test
    void aDeviceThatOnlyWatchesPressesNothing() throws Exception {
        TestDevice watcher = letIn("Screen", Set.of(), Set.of());
        watcher.say(Map.of("do", "press", "b", "record"));
        watcher.say(Map.of("do", "stop-all"));
        TestDevice other = letIn("Phone", Set.of(), ALL);
        other.say(Map.of("do", "press", "b", "countdown"));
        other.say(Map.of("do", "release", "b", "countdown"));
        soon(() -> started("countdown") == 1);
        assertThat(started("record")).isZero();
    }

    @Test
    void aDeviceForOnePageSeesAndWorksNoOther() throws Exception {
        TestDevice phone = letIn("Phone", Set.of("trouble"), ALL);
        assertThat(phone.pages()).containsExactly("trouble");
        phone.say(Map.of("do", "press", "b", "record"));
        phone.say(Map.of("do", "page", "id", "doors"));
        phone.say(Map.of("do", "press", "b", "clouded-out"));
        phone.say(Map.of("do", "release", "b", "clouded-out"));
        soon(() -> started("clouded-out") == 1);
        assertThat(started("record")).isZero();
        assertThat(phone.faces()).doesNotContainKey("record");
    }

    @Test
    void eachDeviceTurnsItsOwnPage() throws Exception {
        TestDevice one = letIn("One", Set.of(), ALL);
        TestDevice two = letIn("Two", Set.of(), ALL);
        one.say(Map.of("do", "page", "id", "levels"));
        soon(() -> one.last("page").path("id").asString("").equals("levels"));
        assertThat(two.last("page").path("id").asString()).isEqualTo("doors");
    }

    @Test
    void aLevelUnderAFingerIsMoved() throws Exception {
        TestDevice phone = letIn("Phone", Set.of(), ALL);
        phone.say(Map.of("do", "page", "id", "levels"));
        soon(() -> !faders(phone).isEmpty());
        String fader = faders(phone).getFirst();
        phone.say(Map.of("do", "move", "b", fader, "axis", 0, "at", 0.25));
        soon(() -> Math.abs(phone.faces().get(fader).path("levels").path(0).path("at").asDouble(-1) - 0.25) < 0.02);
        phone.say(Map.of("do", "move", "b", fader, "axis", 7, "at", 1e300));
        phone.say(Map.of("do", "move", "b", fader, "axis", 0, "at", 0.75));
        soon(() -> Math.abs(phone.faces().get(fader).path("levels").path(0).path("at").asDouble(-1) - 0.75) < 0.02);
    }

    private static List<String> faders(TestDevice phone) {
        List<String> all = new ArrayList<>();
        phone.last("page").path("buttons").forEach(b -> {
            if (b.path("control").asString("").equals("fader")) {
                all.add(b.path("id").asString());
            }
        });
        return all;
    }

    @Test
    void aCodeThatWasUsedLetsNobodyElseIn() throws Exception {
        String code = server.invitations().open(Set.of(), ALL).code();
        assertThat(device().join(code, "First").statusCode()).isEqualTo(204);
        HttpResponse<String> again = device().join(code, "Second");
        assertThat(again.statusCode()).isEqualTo(403);
        assertThat(again.headers().firstValue("content-type")).contains("application/problem+json");
        assertThat(again.headers().firstValue("set-cookie")).isEmpty();
        assertThat(notices).containsExactly("“First” was let in and shows pages in its browser.");
    }

    @Test
    void twentyWrongCodesCloseTheDoorAndSaySo() throws Exception {
        List<Integer> answers = new ArrayList<>();
        try (var many = java.util.concurrent.Executors.newVirtualThreadPerTaskExecutor()) {
            var all = new ArrayList<java.util.concurrent.Future<Integer>>();
            for (int i = 0; i < 22; i++) {
                all.add(many.submit(() -> device().join("WRONGS", "Nobody").statusCode()));
            }
            for (var a : all) {
                answers.add(a.get());
            }
        }
        assertThat(answers).contains(403, 429);
        assertThat(notices).hasSize(1).first().asString().contains("Too many wrong codes");
        assertThat(device().join(server.invitations().open(Set.of(), ALL).code(), "Late").statusCode()).isEqualTo(429);
    }

    @Test
    void whoIsThrownOutIsGoneAtOnceAndLetsGo() throws Exception {
        TestDevice phone = letIn("Phone", Set.of(), ALL);
        phone.say(Map.of("do", "press", "b", "host-talk"));
        soon(() -> held("host-talk"));
        assertThat(server.presence().of(access.all().getFirst().id()).connections()).isEqualTo(1);
        access.remove(access.all().getFirst().id());
        soon(() -> phone.closedWith == 1008 && !held("host-talk"));
        assertThatThrownBy(phone::open).hasMessageContaining("WebSocketHandshakeException");
        assertThat(phone.get("/live").statusCode()).isEqualTo(401);
    }

    @Test
    void whoMayNoLongerPressLetsGoAndIsToldSo() throws Exception {
        TestDevice phone = letIn("Phone", Set.of(), ALL);
        phone.say(Map.of("do", "press", "b", "host-talk"));
        soon(() -> held("host-talk"));
        Access now = access.all().getFirst();
        access.change(now.with(now.name(), Set.of("trouble"), Set.of()));
        soon(() -> !held("host-talk") && phone.pages().equals(List.of("trouble")));
        assertThat(phone.last("board").path("press").asBoolean()).isFalse();
    }

    @Test
    void backShowsNoPageThatADeviceMayNoLongerSee() throws Exception {
        TestDevice phone = letIn("Phone", Set.of(), ALL);
        Access now = access.all().getFirst();
        access.change(now.with("Phone", Set.of("trouble"), ALL));
        soon(() -> phone.last("page").path("id").asString("").equals("trouble"));
        int before = phone.count();
        phone.say(Map.of("do", "back"));
        phone.say(Map.of("do", "holding")); // Answered after it.
        soon(() -> phone.count() > before);
        assertThat(phone.since(before)).doesNotContain("host-talk", "record");
    }

    @Test
    void anotherOriginAndAnotherHostGetNothing() throws Exception {
        TestDevice phone = letIn("Phone", Set.of(), ALL);
        TestDevice thief = device();
        thief.cookie = phone.cookie;
        assertThatThrownBy(() -> thief.open("https://evil.example")).hasMessageContaining(
                "WebSocketHandshakeException");
        assertThat(raw("GET / HTTP/1.1\r\nHost: evil.example\r\n\r\n")).startsWith("HTTP/1.1 421");
        assertThat(raw("GET / HTTP/1.1\r\n\r\n")).startsWith("HTTP/1.1 421");
        assertThat(raw("POST /join HTTP/1.1\r\nHost: " + host() + "\r\nContent-Length: 2\r\n\r\n{}")).startsWith(
                "HTTP/1.1 403");
        assertThat(raw("nonsense\r\n\r\n")).startsWith("HTTP/1.1 4");
    }

    private String host() {
        return URI.create(server.address()).getAuthority();
    }

    private String raw(String request) throws Exception {
        URI at = URI.create(server.address());
        try (Socket socket = new Socket(at.getHost(), at.getPort())) {
            socket.setSoTimeout(20_000);
            socket.getOutputStream().write(request.getBytes(StandardCharsets.US_ASCII));
            InputStream in = socket.getInputStream();
            byte[] head = in.readNBytes(12);
            return new String(head, StandardCharsets.US_ASCII);
        }
    }

    @Test
    void noFileIsServedThatIsNotPartOfThePage() throws Exception {
        TestDevice phone = letIn("Phone", Set.of(), ALL);
        for (String path : List.of("/../pom.xml", "/%2e%2e/pom.xml", "/page/", "/fonts/", "/picture/../x",
                "/picture/none", "/WebServer.class", "/start.js/..", "//etc/passwd")) {
            assertThat(raw("GET " + path + " HTTP/1.1\r\nHost: " + host() + "\r\n\r\n")).as(path).startsWith(
                    "HTTP/1.1 404");
        }
        HttpResponse<String> page = phone.get("/");
        assertThat(page.statusCode()).isEqualTo(200);
        assertThat(page.headers().firstValue("content-security-policy")).hasValueSatisfying(p -> assertThat(p).contains(
                "default-src 'none'").doesNotContain("unsafe"));
        assertThat(page.body()).doesNotContain("http:", "https:", "style=", "onclick");
    }

    @Test
    void aMessageThatIsTooLongOrTooManyEndTheConnectionAndNoOther() throws Exception {
        TestDevice long1 = letIn("Long", Set.of(), ALL);
        TestDevice many = letIn("Many", Set.of(), ALL);
        TestDevice good = letIn("Good", Set.of(), ALL);
        long1.say("{\"do\":\"" + "x".repeat(5000) + "\"}");
        soon(() -> long1.closedWith >= 0);
        for (String nonsense : List.of("", "{", "[]", "null", "{\"do\":7}", "{\"do\":\"press\"}",
                "{\"do\":\"press\",\"b\":[1]}", "{\"do\":\"answer\",\"q\":99}", "[".repeat(2000))) {
            good.say(nonsense);
        }
        try {
            for (int i = 0; i < 3000; i++) {
                many.say("{\"do\":\"holding\"}");
            }
        } catch (java.util.concurrent.CompletionException e) {
            // It is closed by now.
        }
        soon(() -> many.closedWith >= 0);
        assertThat(notices).anyMatch(n -> n.contains("“Many” sent too much"));
        good.say(Map.of("do", "press", "b", "record"));
        good.say(Map.of("do", "release", "b", "record"));
        soon(() -> started("record") == 1);
    }

    @Test
    void aThousandHandshakesWithoutATokenLeaveTheDeckAsItWas() throws Exception {
        TestDevice phone = letIn("Phone", Set.of(), ALL);
        TestDevice nobody = device();
        for (int i = 0; i < 1000; i++) {
            assertThat(nobody.get("/live").statusCode()).isEqualTo(401);
        }
        phone.say(Map.of("do", "press", "b", "record"));
        phone.say(Map.of("do", "release", "b", "record"));
        soon(() -> started("record") == 1);
        assertThat(phone.closedWith).isEqualTo(-1);
    }

    @Test
    void aQuestionSaysWhoseItIsAndAnyDeviceAnswersIt() throws Exception {
        TestDevice one = letIn("One", Set.of(), ALL);
        TestDevice two = letIn("Two", Set.of(), ALL);
        one.say(Map.of("do", "press", "b", "ring-colour"));
        one.say(Map.of("do", "release", "b", "ring-colour"));
        soon(() -> two.last("scene").path("asks").size() == 1);
        assertThat(two.last("scene").path("asks").path(0).path("on").asString()).isEqualTo("device “One”");
        two.say(Map.of("do", "answer", "q", two.last("scene").path("asks").path(0).path("id").asLong(), "value", 0));
        soon(() -> one.last("scene").path("asks").isEmpty() && !one.last("scene").path("asks").isMissingNode() || one
                .last("scene").path("asks").isMissingNode());
        soon(() -> deck.feed().state().questions().isEmpty());
    }

    @Test
    void theTokenIsInNoMessageAndNoNotice() throws Exception {
        TestDevice phone = letIn("Phone", Set.of(), ALL);
        String token = phone.cookie.split("=", 2)[1];
        assertThat(token).hasSizeGreaterThan(40);
        assertThat(phone.last("board").toString() + notices + access.all()).doesNotContain(token);
    }

    @Test
    void anotherBoardIsShownAtOnce() throws Exception {
        TestDevice phone = letIn("Phone", Set.of(), ALL);
        deck.load(Rig.of(rombix.core.board.Board.empty("Another night"), Map.of()));
        soon(() -> phone.last("board").path("name").asString("").equals("Another night"));
        assertThat(phone.last("page").path("buttons").size()).isZero();
        deck.load(rig);
        soon(() -> phone.last("page").path("id").asString("").equals("doors"));
    }
}
