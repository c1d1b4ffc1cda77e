package rombix.links;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.links.link.GearUnderTest.soon;

import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ExecutionMode;
import rombix.core.board.Board;
import rombix.core.board.Gear;
import rombix.core.board.Rig;
import rombix.core.card.Card;
import rombix.core.card.Protocol;
import rombix.core.event.Cause.Reason;
import rombix.core.event.Event;
import rombix.core.event.Status;
import rombix.core.event.Status.Phase;
import rombix.core.store.CardLibrary;
import rombix.core.traffic.WhyNot;
import rombix.core.traffic.WhyNot.Stage;
import rombix.core.traffic.WhyNot.Verdict;
import rombix.core.trust.Permission;
import rombix.core.value.Value;
import rombix.links.link.StandInGear;
import rombix.links.link.TlsFront;
import rombix.standins.DemoLogin;
import rombix.standins.House;
import rombix.standins.Projector;

/** Causes for which gear cannot be worked, each made to happen: where the way ends, and what is said of it. */
@Execution(ExecutionMode.CONCURRENT)
class WhyNotTest {
    /** What was found on the way, and how the link was by then. */
    private record Found(WhyNot way, Status status) {
        @Nullable
        Stage end() {
            return way.end();
        }
    }

    /** Reaches a gear, waits for what becomes of it, and asks why. */
    private static Found why(Card card, String protocol, String address, UnaryOperator<Gear.Link> set, boolean leave) {
        return why(card, protocol, address, set, leave, s -> s.phase() != Phase.CONNECTING);
    }

    private static Found why(Card card, String protocol, String address, UnaryOperator<Gear.Link> set, boolean leave,
            Predicate<Status> until) {
        Gear gear = new Gear("it", "It", card.id(), set.apply(new Gear.Link(Protocol.of(protocol), address, Map.of())),
                Map.of(), Map.of());
        Map<String, Card> cards = new HashMap<>(CardLibrary.shipped());
        cards.put(card.id(), card);
        Rig rig = Rig.of(Board.empty("B").withGear(List.of(gear)), cards);
        AtomicReference<Status> status = new AtomicReference<>(Status.UNTRIED);
        try (Links links = new Links(new MachineClock(), e -> {
            if (e instanceof Event.Linked l) {
                status.set(l.status());
            }
        }, StandInGear.KEYS)) {
            links.connect(rig, Map.of(), leave ? Permission.TRUSTED : Permission.GUEST);
            soon(() -> until.test(status.get()));
            return new Found(links.why("it"), status.get());
        }
    }

    private static Found why(String card, String protocol, String address, UnaryOperator<Gear.Link> set) {
        return why(Objects.requireNonNull(CardLibrary.shipped().get(card)), protocol, address, set, true);
    }

    private static void ends(Reason reason, Found all, String at, String words, String next) {
        WhyNot found = all.way();
        assertThat(all.status().reason()).as(all.status().words()).isEqualTo(reason);
        Stage end = Objects.requireNonNull(found.end(), "the way is open");
        assertThat(end.what()).as(found.stages().toString()).isEqualTo(at);
        assertThat(end.words()).contains(words);
        assertThat(end.next()).contains(next);
        int from = found.stages().indexOf(end);
        assertThat(found.stages().subList(0, from)).noneMatch(s -> s.verdict() == Verdict.UNTRIED);
        assertThat(found.stages().subList(from + 1, found.stages().size())).allMatch(s -> s
                .verdict() == Verdict.UNTRIED);
    }

    private static int closed() throws Exception {
        try (ServerSocket free = new ServerSocket(0)) {
            return free.getLocalPort();
        }
    }

    @Test
    void itHasNoAddress() {
        ends(Reason.WRONGLY_SET, why("studio", "osc", "", l -> l), "Address", "has no address", "Set the address");
    }

    @Test
    void nobodyKnowsItsName() {
        ends(Reason.NAME_UNKNOWN, why("music", "websocket", "nobody.invalid:80", l -> l), "Name lookup",
                "“nobody.invalid”", "Check the spelling");
    }

    @Test
    void nothingListensAtItsPort() throws Exception {
        ends(Reason.NOTHING_LISTENS, why("camera-head", "http", "127.0.0.1:" + closed(), l -> l), "Port",
                "nothing is listening on port",
                "Start the program");
    }

    @Test
    void itDoesNotSpeakTls() throws Exception {
        try (House house = new House(0)) {
            ends(Reason.UNREACHABLE, why("house", "mqtt", "127.0.0.1:" + house.port(), l -> l.withTls(new Gear.Tls(
                    Gear.Tls.Trust.FIRST_SEEN, null))), "TLS", "TLS", "turn TLS off");
        }
    }

    @Test
    void itsCertificateIsNotTaken() throws Exception {
        try (House house = new House(0); TlsFront front = new TlsFront("elsewhere", "", house.port())) {
            ends(Reason.TLS_UNTRUSTED,
                    why("house", "mqtt", "127.0.0.1:" + front.port(), l -> l.withTls(new Gear.Tls(Gear.Tls.Trust.ROOTS,
                            null))),
                    "TLS", "isn't signed by a trusted authority", "trust the first certificate seen");
        }
    }

    @Test
    void itsPasswordIsNotTaken() throws Exception {
        try (Projector projector = new Projector(0)) {
            ends(Reason.LOGIN_REFUSED,
                    why("projector", "line", "127.0.0.1:" + projector.port(), l -> l.withUser("booth").withSecret(
                            "wrong")),
                    "Login", "", "secret");
        }
    }

    @Test
    void itsSecretIsNotHere() throws Exception {
        try (Projector projector = new Projector(0)) {
            ends(Reason.SECRET_MISSING,
                    why("projector", "line", "127.0.0.1:" + projector.port(), l -> l.withSecret("gone")), "Login",
                    "“gone”, which isn't on this computer", "rombix secrets set gone");
        }
    }

    @Test
    void itSpeaksSomethingElse() throws Exception {
        try (House house = new House(0)) {
            ends(Reason.UNREACHABLE, why("music", "websocket", "127.0.0.1:" + house.port(), l -> l), "Response", "",
                    "");
        }
    }

    @Test
    void nothingComesBack() throws Exception {
        try (DatagramSocket deaf = new DatagramSocket(0, InetAddress.getLoopbackAddress())) {
            ends(Reason.SILENT, why("studio", "osc", "127.0.0.1:" + deaf.getLocalPort(), l -> l), "Response",
                    "nothing comes back",
                    "");
        }
    }

    @Test
    void whatItSaysIsNotOnItsCard() throws Exception {
        Card card = CardLibrary.read(Path.of("deaf.json"), """
                {"card": 2, "id": "deaf", "title": "Deaf", "readings": [
                  {"id": "on", "type": "flag", "arrives": {"mqtt": {"from": "nowhere/at/all"}}}], "commands": []}
                """);
        try (House house = new House(0)) {
            // A busy broker may close a connection once, and take the next.
            ends(Reason.NONE, why(card, "mqtt", "127.0.0.1:" + house.port(), l -> l, true,
                    s -> s.phase() == Phase.READY), "Readings", "none received yet",
                    "Operate the gear by hand");
        }
    }

    @Test
    void itsPortIsNotPluggedIn() {
        ends(Reason.UNREACHABLE, why("relay-box", "line", "/dev/larkmoor-nothing", l -> l), "Port",
                "no serial port", "");
        ends(Reason.UNREACHABLE, why("any-midi", "midi", "Larkmoor Nothing", l -> l), "Port", "no MIDI port", "");
    }

    /** “UDP” instead of “udp” silently meant TCP. */
    @Test
    void aSettingHasAValueThatCannotBeChosen() {
        ends(Reason.WRONGLY_SET, why("relay-box", "line", "127.0.0.1:9", l -> l.withSetting("transport", Value.of(
                "UDP"))), "Port", "", "");
        assertThat(why("relay-box", "line", "127.0.0.1:9", l -> l.withSetting("transport", Value.of("UDP"))).status()
                .words()).contains("is one of", "not “UDP”");
    }

    @Test
    void theBoardIsAGuest() {
        ends(Reason.NOT_PERMITTED,
                why(Objects.requireNonNull(CardLibrary.shipped().get("studio")), "osc", "127.0.0.1:9", l -> l, false),
                "Address", "guest", "Trust the board");
    }

    @Test
    void whereAllIsWellTheWholeWayIsOpen() throws Exception {
        try (Projector projector = new Projector(0)) {
            soon(() -> why("projector", "line", "127.0.0.1:" + projector.port(), l -> l.withUser("booth").withSecret(
                    DemoLogin.SECRET)).end() == null);
        }
    }
}
