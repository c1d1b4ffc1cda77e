package rombix.web;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.web.TestDevice.soon;

import java.net.InetAddress;
import java.nio.file.Path;
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
import rombix.core.event.Mode;
import rombix.running.RunningDeck;
import rombix.web.access.Access;
import rombix.web.access.AccessList;
import rombix.web.access.Right;

/** What the owner does at the desk, as devices see it. */
@Timeout(120)
@ResourceLock(DemoDeck.CABLES)
class OwnerTest {
    private static final Set<Right> ALL = Set.of(Right.values());
    private static DemoDeck demo;
    private static RunningDeck deck;

    @TempDir
    private Path folder;
    private AccessList access;
    private WebServer server;
    private TestDevice phone;

    @BeforeAll
    static void start() throws Exception {
        demo = DemoDeck.open(null);
        deck = demo.deck();
    }

    @AfterAll
    static void end() throws Exception {
        demo.close();
    }

    @BeforeEach
    void open() throws Exception {
        deck.mode(Mode.LIVE, false);
        access = new AccessList(folder.resolve("devices"));
        server = WebServer.open(deck, access, InetAddress.getLoopbackAddress(), 0, _ -> {
        });
        phone = letIn(Set.of());
    }

    @AfterEach
    void close() {
        phone.close();
        server.close();
    }

    private TestDevice letIn(Set<String> pages) throws Exception {
        TestDevice made = new TestDevice(server.address());
        assertThat(made.join(server.invitations().open(pages, ALL).code(), "Phone").statusCode()).isEqualTo(204);
        made.open();
        soon(() -> !made.faces().isEmpty());
        return made;
    }

    private static boolean talks() {
        return deck.feed().state().play("host-talk").held();
    }

    private String mode() {
        return phone.last("scene").path("mode").asString("");
    }

    /** A tap on a phone worked the gear while its owner was still building. */
    @Test
    void inBuildADevicePressesNothingAndSaysSo() {
        deck.mode(Mode.BUILD, false);
        soon(() -> mode().equals("build"));
        phone.say(Map.of("do", "press", "b", "host-talk"));
        int heard = phone.count();
        phone.say(Map.of("do", "holding"));
        soon(() -> phone.count() > heard); // It was answered, so what came before it was done.
        deck.mode(Mode.REHEARSE, false);
        soon(() -> mode().equals("rehearse"));
        assertThat(talks()).isFalse();
        phone.say(Map.of("do", "press", "b", "host-talk"));
        soon(OwnerTest::talks);
        phone.say(Map.of("do", "release", "b", "host-talk"));
        soon(() -> !talks());
    }

    @Test
    void aHoldEndsWhenTheOwnerGoesToBuild() {
        phone.say(Map.of("do", "press", "b", "host-talk"));
        soon(OwnerTest::talks);
        deck.mode(Mode.BUILD, false);
        soon(() -> !talks());
    }

    /** The log went on calling it by the name that it had when it connected. */
    @Test
    void aDeviceThatIsRenamedComesBackUnderItsNewName() throws Exception {
        Access before = access.all().getFirst();
        access.change(before.with("Door", before.pages(), before.rights()));
        soon(() -> phone.closedWith == 1012);
        phone.open();
        soon(() -> phone.last("board").path("device").asString("").equals("Door"));
        List<String> sources = new CopyOnWriteArrayList<>();
        try (RunningDeck.Watching _ = deck.watch(h -> {
            if (h instanceof Happening.Started s) {
                sources.add(s.source());
            }
        })) {
            phone.say(Map.of("do", "press", "b", "record"));
            phone.say(Map.of("do", "release", "b", "record"));
            soon(() -> sources.contains("device “Door”"));
        }
    }

    /** A device that was let in for one page could fetch the pictures of all others. */
    @Test
    void aDeviceSeesThePicturesOfItsPagesAlone() throws Exception {
        String picture = demo.rig().board().buttons().flatMap(b -> b.states().stream()).map(s -> s.face().image())
                .filter(java.util.Objects::nonNull).findFirst().orElseThrow().picture();
        String page = demo.rig().board().pages().stream().filter(p -> p.buttons().stream().anyMatch(b -> b.shows(
                picture))).findFirst().orElseThrow().id();
        String other = demo.rig().board().pages().stream().filter(p -> !p.hidden() && p.buttons().stream().noneMatch(
                b -> b.shows(picture))).findFirst().orElseThrow().id();
        try (TestDevice allowed = letIn(Set.of(page)); TestDevice elsewhere = letIn(Set.of(other))) {
            assertThat(allowed.get("/picture/" + picture).statusCode()).isEqualTo(200);
            assertThat(elsewhere.get("/picture/" + picture).statusCode()).isEqualTo(404);
        }
    }
}
