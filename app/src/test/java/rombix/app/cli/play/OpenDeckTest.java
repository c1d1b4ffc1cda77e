package rombix.app.cli.play;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import java.io.FilterWriter;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.net.InetAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.Map;
import java.util.concurrent.FutureTask;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import rombix.app.cli.RombixCommand;
import rombix.core.board.Rig;
import rombix.core.event.Mode;
import rombix.core.store.BoardFile;
import rombix.core.value.Value;
import rombix.running.RunningDeck;
import rombix.running.input.TriggerInputs;
import rombix.running.log.LogStore;
import rombix.running.owner.Trust;
import rombix.standins.DemoLogin;
import rombix.standins.Lamps;
import rombix.running.owner.Settings;
import rombix.standins.set.StandIns;
import rombix.web.BrowserPages;
import rombix.web.access.AccessList;

/** What commands do in a Rombix that has their board open. */
@Timeout(300)
class OpenDeckTest {
    @TempDir
    static Path folder;
    private static Path board;
    private static StandIns gear;
    private static RunningDeck deck;
    private static Playing.Stage stage;
    private static BrowserPages pages;

    private record Result(int code, String out, String err) {
    }

    @BeforeAll
    static void open() throws Exception {
        board = Files.copy(Path.of("../demo/star-night.json"), folder.resolve("b.json"));
        gear = StandIns.onFreePorts();
        Map<String, String> addresses = new HashMap<>(gear.addresses());
        addresses.put(TriggerInputs.OSC, "0");
        deck = new RunningDeck(addresses, LogStore.ofBoard(LogStore.beside(board), System.err::println));
        pages = new BrowserPages(deck, new AccessList(folder.resolve("devices")), new Settings(folder.resolve(
                "settings")));
        stage = Playing.in(deck, pages, () -> false);
        Rig rig = BoardFile.read(board);
        deck.play(rig, Trust.all());
        deck.whenReached(rig, () -> deck.mode(Mode.LIVE, true));
        await().untilAsserted(() -> {
            Result status = run("status");
            assertThat(status.code()).as(status.out() + status.err()).isZero();
            assertThat(status.out()).contains(", Live,");
            assertThat(status.out()).as("mode, page, faces").containsPattern("face +Gate +locked, LOCKED");
            assertThat(run("status", "--json").out()).contains("\"button\":\"gate\"", "\"tally\":\"LOCKED\"");
        });
    }

    @AfterAll
    static void close() throws Exception {
        deck.close();
        gear.close();
    }

    private static void mode(Mode mode) {
        deck.mode(mode, false);
    }

    private static Result run(String command, String... more) {
        String[] args = new String[more.length + 2];
        args[0] = command;
        args[1] = board.toString();
        System.arraycopy(more, 0, args, 2, more.length);
        StringWriter out = new StringWriter();
        StringWriter err = new StringWriter();
        int code = RombixCommand.line(stage, args).setOut(new PrintWriter(out)).setErr(new PrintWriter(
                err)).execute(args);
        return new Result(code, out.toString(), err.toString());
    }

    @Test
    void aPressIsThatOfTheDeckAndStandsInItsLog() {
        Result r = run("press", "host-desk");
        assertThat(r.code()).as(r.err()).isZero();
        assertThat(r.out()).contains("sent", "Scene Host Desk");
        await().until(() -> run("status").out().contains("Star Night, Live, page"));
        await().until(() -> log().contains("command line"));
        assertThat(log()).contains("Scene Host Desk");
    }

    @Test
    void devicesAndProgramsAreLetInListedAndRemoved() throws Exception {
        Result off = run("devices");
        assertThat(off.code()).isEqualTo(2);
        assertThat(off.err()).contains("Pages in a browser are off");
        pages.on(InetAddress.getLoopbackAddress(), 0);
        try {
            String address = pages.server().orElseThrow().address();
            assertThat(run("devices", "--invite").out()).contains(address + "#", "Code: ", "valid for 2 minutes", "█");
            String token = run("devices", "--token", "Dome sensor", "--pages", "doors,trouble", "--may", "press,log")
                    .out().strip();
            assertThat(pages.access().holder(token)).isPresent();
            assertThat(run("devices").out()).contains(address).containsPattern(
                    "program +Dome sensor +press, read the log, pages doors, trouble");
            assertThat(run("devices", "--json").out()).contains("\"name\":\"Dome sensor\"").doesNotContain(token);
            assertThat(run("devices", "--token", "x", "--may", "fly").err()).contains("no such right");
            assertThat(run("devices", "--invite", "--pages", "door").err()).contains("no page “door”", "doors");
            assertThat(run("devices", "--remove", "Dome").err()).contains("Dome sensor");
            assertThat(run("devices", "--remove", "Dome sensor").code()).isZero();
            assertThat(pages.access().all()).isEmpty();
        } finally {
            pages.close();
        }
    }

    private static String log() {
        return run("log").out();
    }

    @Test
    void inRehearsalAPressLeavesTheGearAlone() {
        mode(Mode.REHEARSE);
        int before = gear.cues().cue("house-lights");
        Result r = run("press", "next-cue");
        assertThat(r.code()).as(r.out() + r.err()).isZero();
        await().until(() -> run("status").out().contains("twin"));
        assertThat(run("status").out()).contains("Rehearse");
        assertThat(gear.cues().cue("house-lights")).isEqualTo(before);
        mode(Mode.LIVE);
    }

    @Test
    void aHoldLastsUntilItIsReleased() {
        assertThat(run("press", "cough", "--hold").code()).isZero();
        await().until(() -> deck.feed().state().play("cough").held());
        Result r = run("release", "cough");
        assertThat(r.code()).as(r.out() + r.err()).isZero();
        await().until(() -> !deck.feed().state().play("cough").held());
    }

    @Test
    void whatRunsIsSaidAndCanBeStopped() {
        deck.port("test").perform("lights-out", rombix.core.chain.Gesture.PRESS, -1);
        await().until(() -> run("status").out().contains("runs   Lights out in ten"));
        assertThat(run("status", "--json").out()).contains("\"button\":\"lights-out\"", "secondsLeft");
        assertThat(run("stop", "gate").out()).contains("Nothing was running.");
        assertThat(run("stop", "lights-out").out()).contains("Stopped 1 chain.");
        await().until(() -> !run("status").out().contains("runs "));
        assertThat(run("stop").code()).isZero();
    }

    @Test
    void aDialIsTurned() {
        assertThat(run("turn", "no-dial", "2").code()).isEqualTo(2);
        int slot = Lamps.FIXTURES.stream().filter(f -> f.name().equals("Walkway")).findFirst().orElseThrow().level();
        int before = gear.lamps().slot(slot);
        Result r = run("turn", "walkway-dial", "2");
        assertThat(r.code()).as(r.out() + r.err()).isZero();
        await().until(() -> gear.lamps().slot(slot) != before);
    }

    @Test
    void aValueIsSetAndARunDownGoesOn() {
        assertThat(run("set", "visitors", "7").out()).contains("Visitors let in: 7");
        await().until(() -> Value.of(7).equals(deck.feed().state().known().named("visitors")));
        assertThat(run("set", "night", "next").out()).contains("The night: 1, Sky tonight");
        await().until(() -> Value.of("The Moon").equals(deck.feed().state().known().named("night.next")));
        assertThat(run("set", "night", "Tea").out()).contains("8, Tea");
        await().until(() -> Value.of("Tea").equals(deck.feed().state().known().named("night.item")));
        assertThat(run("read", "visitors", "night.item").out()).contains("Visitors let in", "7", "night.item", "Tea");
        assertThat(run("read", "visitors", "--json").out()).contains("\"reading\":\"visitors\"", "\"value\":\"7\"");
        assertThat(run("set", "visitors", "many")).satisfies(r -> {
            assertThat(r.code()).isEqualTo(2);
            assertThat(r.err()).contains("is a number");
        });
        assertThat(run("set", "visitor", "1").err()).contains("no value “visitor”", "visitors");
        assertThat(run("set", "night", "Coffee").err()).contains("has no item “Coffee”");
    }

    @Test
    void anUnknownButtonIsToldOf() {
        Result r = run("press", "gatee");
        assertThat(r.code()).isEqualTo(2);
        assertThat(r.err()).contains("no button “gatee”; the nearest are gate");
    }

    @Test
    void aBoardThatIsOpenAlreadyIsShownAndNotOpenedOnceMore() {
        assertThat(run("show")).satisfies(r -> {
            assertThat(r.code()).isZero();
            assertThat(r.out()).contains("b.json is already open");
        });
    }

    @Test
    void whatGoesToAndFroIsToldAndWhyAGearCannotBeWorked() {
        mode(Mode.LIVE);
        assertThat(run("press", "gate").code()).isZero();
        await().untilAsserted(() -> assertThat(run("traffic", "--gear", "house", "--commands").out()).contains(
                "\tout\tHouse\t", "lock/gate/set", "\tdone in "));
        assertThat(run("traffic", "--gear", "projector", "--json").out()).contains("\"way\":\"in\"",
                "(secret “").doesNotContain(DemoLogin.secret(DemoLogin.SECRET).orElseThrow());
        assertThat(run("traffic", "--gear", "nobody").code()).isEqualTo(2);
        Result way = run("why", "house");
        assertThat(way.code()).as(way.out() + way.err()).isZero();
        assertThat(way.out()).contains("Port", " is open", "The connection works.");
        assertThat(run("why", "house", "--json").out()).contains("\"verdict\":\"good\"");
        assertThat(run("why", "nobody").code()).isEqualTo(2);
    }

    /** Ctrl+C in a shell that followed wrote a stack trace where Rombix ran. */
    @Test
    void whoeverFollowsIsInterruptedWithoutAWord() throws Exception {
        StringWriter err = new StringWriter();
        AtomicInteger code = new AtomicInteger(-1);
        String[] args = {"traffic", board.toString(), "--follow"};
        Thread shell = Thread.ofPlatform().start(() -> code.set(RombixCommand.line(stage, args).setOut(
                new PrintWriter(new StringWriter())).setErr(new PrintWriter(err)).execute(args)));
        await().until(() -> shell.getState() == Thread.State.TIMED_WAITING);
        shell.interrupt();
        shell.join();
        assertThat(code).hasValue(130);
        assertThat(err.toString()).isEmpty();
    }

    private static boolean held(String button) {
        return deck.feed().state().play(button).held();
    }

    /** A press of a hold button left the microphone open, and said nothing. */
    @Test
    void aPressOfAHoldButtonReleasesIt() {
        Result r = run("press", "host-talk");
        assertThat(r.code()).as(r.out() + r.err()).isZero();
        assertThat(r.out().lines()).as(r.out()).hasSizeGreaterThanOrEqualTo(2);
        await().until(() -> !held("host-talk"));
        long began = System.nanoTime();
        assertThat(run("press", "host-talk", "--for", "600ms").code()).isZero();
        assertThat(System.nanoTime() - began).isGreaterThanOrEqualTo(600_000_000L);
        await().until(() -> !held("host-talk"));
        assertThat(run("press", "host-talk", "--for", "1s", "--hold").code()).isEqualTo(2);
    }

    @Test
    void aGuardedButtonWantsToBeConfirmed() {
        Result r = run("press", "everything-quiet");
        assertThat(r.code()).isEqualTo(2);
        assertThat(r.err()).contains("is guarded", "--confirm");
        assertThat(run("press", "everything-quiet", "--confirm").out()).contains("sent");
    }

    @Test
    void whatCannotBeTurnedSaysSo() {
        Result r = run("turn", "host-desk", "1");
        assertThat(r.code()).isEqualTo(2);
        assertThat(r.err()).contains("can't be turned");
    }

    /** A forecast connected the gear anew, and took the first state for the present one. */
    @Test
    void aForecastStartsFromWhatTheDeckKnows() {
        assertThat(run("press", "dark-sky").code()).isZero();
        String state = deck.rig().button("dark-sky").orElseThrow().states().get(deck.feed().state().play("dark-sky")
                .state()).id();
        assertThat(run("forecast", "dark-sky", "--live", "--json").out()).contains("\"state\":\"" + state + "\"");
        Result gate = run("forecast", "gate", "--live");
        assertThat(gate.out()).as("what the gate is now is known").doesNotContain(": — →");
        assertThat(run("opposite", "gate", "--live").code()).isZero();
    }

    /** Ends when nobody reads on, as a pipe does. */
    private static final class Pipe extends StringWriter {
        private final AtomicBoolean broken = new AtomicBoolean();

        PrintWriter out() {
            return new PrintWriter(new FilterWriter(this) {
                @Override
                public void flush() throws IOException {
                    if (broken.get()) {
                        throw new IOException("nobody reads on");
                    }
                }
            });
        }
    }

    @Test
    void readingsAreFollowedAsTheyChange() throws Exception {
        Pipe pipe = new Pipe();
        String[] args = {"read", board.toString(), "desk:muted/host", "house:locked/gate", "--follow"};
        FutureTask<Integer> reading = new FutureTask<>(() -> RombixCommand.line(stage, args).setOut(pipe.out())
                .execute(args));
        Thread.ofPlatform().start(reading);
        await().until(() -> pipe.toString().contains("Sound desk: ready"));
        boolean muted = Value.of(true).equals(deck.feed().state().reading("desk", "muted/host"));
        deck.tell("desk", muted ? "unmute" : "mute", Map.of("channel", Value.of("host")));
        deck.tell("desk", muted ? "unmute" : "mute", Map.of("channel", Value.of("dome")));
        await().until(() -> pipe.toString().contains(muted ? "Sound desk Host: OPEN" : "Sound desk Host: MUTED"));
        assertThat(pipe.toString()).as("only what is asked for").doesNotContain("Dome");
        deck.tell("desk", muted ? "mute" : "unmute", Map.of("channel", Value.of("host")));
        pipe.broken.set(true);
        assertThat(reading.get(30, TimeUnit.SECONDS)).isZero();
    }
}
