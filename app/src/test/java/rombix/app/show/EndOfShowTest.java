package rombix.app.show;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import java.io.File;
import java.io.IOException;
import java.lang.ProcessBuilder.Redirect;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.file.Path;
import java.time.Duration;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Face;
import rombix.core.board.Gear;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.chain.Chain;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.edit.Edits;
import rombix.core.event.Status;
import rombix.core.store.BoardFile;
import rombix.core.value.Value;
import rombix.running.RunningDeck;
import rombix.standins.set.StandIns;

/** Whatever ends a show ends its holds, on gear of every protocol. */
@Timeout(300)
class EndOfShowTest {
    private static final int SLOT_OF_DESK_KEY = 1;
    private static final List<String> HOLDS = List.of("studio", "desk", "lamps", "house", "chat");

    @TempDir
    Path folder;

    private static Step told(String gear, String command, Map<String, Value> args) {
        return new GearStep.Do(gear, command, args);
    }

    private static final Chain PRESS = Chain.of(told("studio", "start-stream", Map.of()), told("desk", "unmute", Map.of(
            "channel", Value.of("host"))), told("lamps", "level",
                    Map.of("lamp", Value.of("desk-key"), "level", Value
                            .of(100))),
            told("house", "unlock", Map.of("lock", Value.of("gate"))), told("chat", "slow-on", Map
                    .of("room", Value.of("star-night"))));
    private static final Chain RELEASE = Chain.of(told("studio", "stop-stream", Map.of()), told("desk", "mute", Map.of(
            "channel", Value.of("host"))), told("lamps", "level",
                    Map.of("lamp", Value.of("desk-key"), "level", Value
                            .of(0))),
            told("house", "lock", Map.of("lock", Value.of("gate"))), told("chat", "slow-off", Map.of(
                    "room", Value.of("star-night"))));

    /** The demo's gear, with one button that holds something of each while it is pressed, and one for ten minutes. */
    private static Rig rig() throws Exception {
        Rig demo = BoardFile.read(Path.of("../demo/star-night.json"));
        Board board = demo.board().withPages(List.of(Page.empty("p", "P")));
        Map<Gesture, Chain> on = new EnumMap<>(Map.of(Gesture.PRESS, PRESS, Gesture.RELEASE, RELEASE));
        Map<Gesture, Chain> awhile = new EnumMap<>(Map.of(Gesture.PRESS, new Chain(List.of(new Step.ForAWhile(PRESS,
                600_000, StepOptions.PLAIN, Map.of())), List.of())));
        board = Edits.addButton(board, "p", button("hold", 0, on));
        board = Edits.addButton(board, "p", button("awhile", 1, awhile));
        return Rig.of(board, demo.cards());
    }

    private static Button button(String id, int column, Map<Gesture, Chain> on) {
        return new Button(id, id, column, 0, 1, 1, Button.Busy.RESTART, List.of(new State("s", "s", Face.PLAIN,
                State.STAY, null, on, Map.of())), Map.of());
    }

    private static void soon(Callable<Boolean> so) {
        await().atMost(Duration.ofSeconds(60)).pollInterval(Duration.ofMillis(10)).until(so);
    }

    private static String left(StandIns gear) {
        return "stream " + gear.studio().streaming() + ", host muted " + gear.desk().muted(0) + ", desk key " + gear
                .lamps().slot(SLOT_OF_DESK_KEY) + ", gate " + gear.house().state("house/lock/gate").orElse("")
                + ", slow " + gear.chat().has('m');
    }

    private static void shows(StandIns gear, String what) {
        await().atMost(Duration.ofSeconds(60)).pollInterval(Duration.ofMillis(10)).untilAsserted(() -> assertThat(left(
                gear)).isEqualTo(what));
    }

    private static final String HELD = "stream true, host muted false, desk key 255, gate UNLOCKED, slow true";
    private static final String RELEASED = "stream false, host muted true, desk key 0, gate LOCKED, slow false";

    /** What can end a show from within. */
    enum Ends {
        CLOSED, OTHER_BOARD, BUTTON_DELETED, GEAR_ELSEWHERE
    }

    @ParameterizedTest
    @EnumSource(Ends.class)
    void aHoldIsReleasedOnGearOfEveryProtocolWhateverEndsTheShow(Ends how) throws Exception {
        try (StandIns gear = StandIns.onFreePorts()) {
            for (int i = 0; i < 3; i++) {
                try (RunningDeck deck = new RunningDeck(gear.addresses(), null)) {
                    deck.load(rig());
                    soon(() -> HOLDS.stream().allMatch(g -> phase(deck, g) == Status.Phase.READY));
                    deck.port("test").press("hold");
                    shows(gear, HELD);
                    switch (how) {
                        case CLOSED -> deck.close();
                        case OTHER_BOARD -> deck.load(Rig.of(Board.empty("Other"), Map.of()));
                        case BUTTON_DELETED -> deck.load(rig().with(Edits.removeButton(rig().board(), "hold")));
                        case GEAR_ELSEWHERE -> deck.load(rig().with(rig().board().withGear(rig().board().gear().stream()
                                .map(g -> g.withLink(new Gear.Link(g.link().protocol(), "elsewhere:9",
                                        Map.of())))
                                .toList())));
                    }
                    shows(gear, RELEASED);
                }
                assertThat(left(gear)).isEqualTo(RELEASED);
            }
        }
    }

    @Test
    void aHoldIsReleasedOnGearOfEveryProtocolWhereAGuestTakesTheBoardsPlace() throws Exception {
        try (StandIns gear = StandIns.onFreePorts(); RunningDeck deck = new RunningDeck(gear.addresses(), null)) {
            deck.load(rig());
            soon(() -> HOLDS.stream().allMatch(g -> phase(deck, g) == Status.Phase.READY));
            deck.port("test").press("hold");
            shows(gear, HELD);
            deck.guest(true);
            deck.load(rig());
            shows(gear, RELEASED);
            soon(() -> HOLDS.stream().noneMatch(g -> phase(deck, g) == Status.Phase.READY));
        }
    }

    @Test
    void theGearOfAGuestIsNotReachedWhereATrustedBoardTakesItsPlace() throws Exception {
        AtomicInteger met = new AtomicInteger();
        try (StandIns gear = StandIns.onFreePorts();
                ServerSocket elsewhere = new ServerSocket(0, 5, InetAddress.getLoopbackAddress())) {
            Thread.ofVirtual().start(() -> {
                while (!elsewhere.isClosed()) {
                    try (Socket _ = elsewhere.accept()) {
                        met.incrementAndGet();
                    } catch (IOException e) {
                        return;
                    }
                }
            });
            Rig own = rig();
            Rig guest = own.with(own.board().withGear(own.board().gear().stream().map(g -> g.withLink(new Gear.Link(g
                    .link().protocol(), "127.0.0.1:" + elsewhere.getLocalPort(), Map.of()))).toList()));
            Map<String, String> addresses = new HashMap<>(gear.addresses());
            addresses.keySet().removeAll(List.of("house", "chat"));
            try (RunningDeck deck = new RunningDeck(addresses, null)) {
                deck.guest(true);
                deck.load(guest);
                soon(() -> deck.known().statuses().size() == guest.twins().size());
                for (int i = 0; i < 20; i++) {
                    deck.guest(false);
                    deck.load(own.with(own.board().withGear(own.board().gear().stream().filter(g -> !List.of("house",
                            "chat").contains(g.id())).toList())));
                    soon(() -> phase(deck, "studio") == Status.Phase.READY);
                    deck.guest(true);
                    deck.load(guest);
                    soon(() -> phase(deck, "studio") != Status.Phase.READY);
                }
            }
        }
        assertThat(met).hasValue(0);
    }

    private static Status.Phase phase(RunningDeck deck, String gear) {
        return deck.known().statuses().getOrDefault(gear, Status.UNTRIED).phase();
    }

    /** Starts a command that hears SIGINT even where this process was started in the background, which ignores it. */
    private static List<String> signalsRestored() throws IOException {
        List<String> restored = List.of("env", "--default-signal=INT");
        Process tried = new ProcessBuilder(restored).redirectErrorStream(true).redirectOutput(Redirect.DISCARD).start();
        return tried.onExit().join().exitValue() == 0 ? restored : List.of();
    }

    /** A command line in a process of its own, with the stand-ins of this one for gear. */
    private Process rombix(StandIns gear, String... args) throws IOException {
        List<String> command = new java.util.ArrayList<>(signalsRestored());
        command.addAll(List.of(ProcessHandle.current().info().command().orElseThrow(),
                "--enable-native-access=ALL-UNNAMED", "-Duser.home=" + folder, "-cp", System.getProperty(
                        "java.class.path"),
                "rombix.app.Main"));
        command.addAll(List.of(args));
        gear.addresses().forEach((id, at) -> {
            if (!id.equals("desk")) { // A cable does not leave its process.
                command.addAll(List.of("--at", id + "=" + at));
            }
        });
        ProcessBuilder builder = new ProcessBuilder(command).redirectErrorStream(true).redirectOutput(new File(folder
                .toFile(), "out.txt"));
        builder.environment().remove("DISPLAY");
        return builder.start();
    }

    @ParameterizedTest
    @ValueSource(strings = {"TERM", "INT"})
    void aPressThatASignalInterruptsPutsBackWhatItHeldForAWhile(String signal) throws Exception {
        Path board = folder.resolve("b.json");
        Rig rig = rig();
        List<Step> steps = PRESS.steps().stream().filter(s -> !((GearStep.Do) s).gear().equals("desk")).toList();
        BoardFile.save(board, Edits.chain(rig.board(), "awhile", 0, Gesture.PRESS, _ -> Chain.of(new Step.ForAWhile(
                Chain.of(told("lamps", "level", Map.of("lamp", Value.of("desk-key"), "level", Value.of(0))),
                        new Step.Wait(10), steps.get(0), steps.get(1), steps.get(2), steps.get(3)),
                600_000, StepOptions.PLAIN, Map.of()))));
        try (StandIns gear = StandIns.onFreePorts()) {
            Process press = rombix(gear, "press", board.toString(), "awhile");
            try {
                soon(() -> gear.studio().streaming() && gear.house().state("house/lock/gate").orElse("").equals(
                        "UNLOCKED") && gear.chat().has('m'));
                new ProcessBuilder("kill", "-" + signal, String.valueOf(press.pid())).start().waitFor();
                assertThat(press.waitFor(30, TimeUnit.SECONDS)).as("it ends on SIG" + signal).isTrue();
            } finally {
                press.destroyForcibly().waitFor();
            }
            assertThat(gear.studio().streaming()).isFalse();
            assertThat(gear.house().state("house/lock/gate")).hasValue("LOCKED");
            soon(() -> !gear.chat().has('m'));
        }
    }
}
