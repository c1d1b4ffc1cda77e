package rombix.links.desktop;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Gear;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.card.Card;
import rombix.core.card.Packet;
import rombix.core.card.Protocol;
import rombix.core.chain.Chain;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.computer.Place;
import rombix.core.computer.Power;
import rombix.core.event.Event;
import rombix.core.event.Status.Phase;
import rombix.core.sight.Pixels;
import rombix.core.sight.Sights;
import rombix.core.store.CardLibrary;
import rombix.core.trust.Grants;
import rombix.core.twin.Order;
import rombix.core.twin.Twin;
import rombix.core.value.Value;
import rombix.links.MachineClock;
import rombix.links.desktop.machine.NoDesktop;
import rombix.links.desktop.machine.Own;
import rombix.links.desktop.machine.PngPixels;
import rombix.links.link.GearReport;
import rombix.links.link.Keyring;
import rombix.links.link.Link;
import rombix.links.link.Target;
import rombix.standins.booth.Booth;
import rombix.standins.booth.BoothLook;

/** A computer as gear, against the stand-in of one. */
@Timeout(300)
class ComputerTest {
    @TempDir
    Path folder;
    private final Keyring keeps = new Keyring() {
        @Override
        public Optional<String> secret(String name) {
            return name.equals("stage-door") ? Optional.of("mööp 7") : Optional.empty();
        }

        @Override
        public Optional<String> firstSeen(String address) {
            return Optional.empty();
        }

        @Override
        public void seen(String address, String fingerprint) {
            // Nothing here is seen.
        }
    };
    private Booth booth;
    private Twin twin;
    private Link link;
    private final Map<Long, String> answers = new ConcurrentHashMap<>();
    private final Map<String, Value> readings = new ConcurrentHashMap<>();
    private final Map<String, Phase> phases = new ConcurrentHashMap<>();
    private final List<Step> steps = new ArrayList<>();
    private long ticket;

    @BeforeEach
    void open() throws Exception {
        booth = new Booth(0);
        Card card = CardLibrary.shipped().get("desktop");
        twin = new Twin("computer", "Booth", card, Protocol.of("desktop"), Map.of());
        link = new Desktop().open(new GearReport(twin, new MachineClock(), this::take), new Target("127.0.0.1:" + booth
                .port(), new Gear.Link(Protocol.of("desktop"), "", Map.of()), keeps, Path::of));
        soon(() -> phases.get("computer") == Phase.READY);
    }

    @AfterEach
    void close() throws Exception {
        link.close();
        booth.close();
    }

    private void take(Event event) {
        switch (event) {
            case Event.OrderDone d -> answers.put(d.ticket(), d.fault() == null ? "sent" : d.fault());
            case Event.Came c -> readings.put(c.reading(), c.value());
            case Event.Linked l -> phases.put(l.gear(), l.status().phase());
            default -> {
            }
        }
    }

    private static void soon(Callable<Boolean> so) {
        await().atMost(Duration.ofSeconds(60)).pollInterval(Duration.ofMillis(5)).until(so);
    }

    /** What a board is granted that has all these steps. */
    private Grants granted(String command, Map<String, Value> args) {
        steps.add(new GearStep.Do("computer", command, args));
        Button button = new Button("b", "B", 0, 0, 1, 1, Button.Busy.QUEUE, List.of(State.named("s").withOn(Map.of(
                Gesture.PRESS, new Chain(steps, List.of())))), Map.of());
        Gear gear = new Gear("computer", "Booth", "desktop", new Gear.Link(Protocol.of("desktop"), "here", Map.of()),
                Map.of(), Map.of());
        return Grants.of(Rig.of(Board.empty("B").withGear(List.of(gear)).withPages(List.of(Page.empty("p", "P")
                .withButtons(List.of(button)))), CardLibrary.shipped()));
    }

    /** A key stayed down that its board was to let go as it went: by then the board was another. */
    @Test
    void whatWaitsAsItsBoardGoesIsDoneAllTheSame() {
        long typing = send("type-text", with("text", "x".repeat(20), "pace", 20));
        long release = send("let-go-keys", with("keys", "F9"));
        link.granted(Grants.NONE);
        soon(() -> answers.containsKey(typing) && answers.containsKey(release));
        assertThat(answers.values()).containsOnly("sent");
    }

    private long send(String command, Map<String, Value> args) {
        long mine = ++ticket;
        Order order = twin.order(twin.card().command(command).orElseThrow(), args, r -> readings.get(r));
        link.granted(granted(command, args));
        link.send(mine, order);
        return mine;
    }

    /** A board that was never trusted ran programs: only what a step asks for was looked at, and nothing at the end. */
    @Test
    void whatTheBoardWasNotGrantedIsNotDoneWhoeverAsks() {
        link.granted(granted("type-text", with("text", "yes")));
        List.of("no", "yes").forEach(text -> link.send(text.length(), twin.order(twin.card().command("type-text")
                .orElseThrow(), with("text", text), r -> null)));
        link.send(9, twin.order(twin.card().command("run").orElseThrow(), with("program", "/bin/true"), r -> null));
        soon(() -> answers.size() == 3);
        assertThat(answers.get(3L)).isEqualTo("sent");
        assertThat(answers.get(2L)).contains("isn't allowed");
        assertThat(answers.get(9L)).contains("isn't allowed");
    }

    private String done(String command, Map<String, Value> args) {
        long mine = send(command, args);
        soon(() -> answers.containsKey(mine));
        return answers.get(mine);
    }

    /** A card's command that sends nothing let go of all that was held, and its step waited for ever. */
    @Test
    void aCommandThatSendsNothingIsAnsweredAndLetsGoOfNothing() {
        done("hold-keys", with("keys", "F9"));
        link.send(77, new Order("computer", twin.card().command("hold-keys").orElseThrow(), Map.of(), "Nothing",
                List.of(), Map.of(), Set.of()));
        soon(() -> answers.containsKey(77L));
        assertThat(answers).containsEntry(77L, "sent");
        assertThat(booth.look().down()).containsExactly("F9");
    }

    private static Map<String, Value> with(Object... pairs) {
        Map<String, Value> all = new HashMap<>();
        for (int i = 0; i < pairs.length; i += 2) {
            all.put((String) pairs[i], pairs[i + 1] instanceof Number n
                    ? Value.of(n.doubleValue())
                    : pairs[i + 1] instanceof Boolean b ? Value.of(b) : Value.of((String) pairs[i + 1]));
        }
        return all;
    }

    private @Nullable Value now(String reading) {
        return readings.get(reading);
    }

    /** Has the booth's button for the next slide be looked for. */
    private static String next(String how) {
        return "picture pnext in " + how;
    }

    private Pixels screen() {
        return new Pixels(BoothLook.WIDTH, BoothLook.HEIGHT, booth.picture());
    }

    private void sights(String... watched) throws Exception {
        Path file = folder.resolve("next.png");
        PngPixels.write(screen().part(180, 400, 30, 24), file.toString());
        Sights sights = new Sights(Map.of("pnext", Base64.getEncoder().encodeToString(Files.readAllBytes(file))),
                Map.of(
                        "pnext", Place.OnPicture.of("pnext")),
                Map.of("pnext", "Next"), Set.of(watched));
        link.sights(() -> sights);
    }

    @Test
    void aPictureIsFoundAndClickedWhereverItsWindowIs() throws Exception {
        sights();
        assertThat(done("click", with("place", next("everywhere alike 95 take sole at middle wait 0")))).isEqualTo(
                "sent");
        assertThat(booth.look().slides()).isEqualTo(1);
        done("place-window", with("app", "booth", "x", 640, "y", 300, "width", 360, "height", 420));
        assertThat(done("click", with("place", next("window booth alike 100 take closest at 2 3 wait 0")))).isEqualTo(
                "sent");
        assertThat(booth.look().slides()).isEqualTo(2);
        assertThat(booth.look().pointerX()).isEqualTo(640 + 80 + 2);
        assertThat(done("click", with("place", next("region 1 0 0 300 300 alike 95 take sole at middle wait 0"))))
                .isEqualTo("Booth: “Next” is not to be seen there");
    }

    @Test
    void aPictureThatIsThereOftenIsAFaultThatSaysSoAndEachOfThemIsClickedInTurn() throws Exception {
        Path file = folder.resolve("hole.png");
        PngPixels.write(screen().part(346, 402, 9, 8), file.toString());
        Sights sights = new Sights(Map.of("phole", Base64.getEncoder().encodeToString(Files.readAllBytes(file))),
                Map.of(),
                Map.of("phole", "Hole"), Set.of());
        link.sights(() -> sights);
        String how = "picture phole in window booth alike 100 take %s at middle wait 0";
        assertThat(done("look-for", with("place", how.formatted("sole"), "until", "come"))).matches(
                "Booth: “Hole” is there \\d+ times: choose in the step which of them is meant");
        assertThat(done("click", with("place", how.formatted("each")))).isEqualTo("sent");
        assertThat(booth.look().clips()).isGreaterThan(2);
    }

    @Test
    void aPictureIsWaitedForUntilItComesAndUntilItGoes() throws Exception {
        sights("pnext");
        soon(() -> Value.of(true).equals(now("seen/pnext")));
        done("minimise", with("app", "booth"));
        soon(() -> Value.of(false).equals(now("seen/pnext")));
        assertThat(done("look-for", with("place", next("everywhere alike 95 take sole at middle wait 0")))).isEqualTo(
                "Booth: “Next” is not to be seen");
        link.close();
        booth.close();
    }

    @Test
    void aColourIsReadAndAPictureOfAWindowIsKept() throws Exception {
        assertThat(done("read-colour", with("place", "screen 1 at 5 5"))).isEqualTo("sent");
        soon(() -> Value.of("#101614").equals(now("colour")));
        Path file = folder.resolve("new/shown 21:30.png");
        assertThat(done("take-picture", with("of", "place", "place", "window booth from upper-left at 9 9", "file", file
                .toString()))).isEqualTo("sent");
        var image = javax.imageio.ImageIO.read(file.toFile());
        assertThat(image.getWidth()).isEqualTo(360);
        assertThat(image.getHeight()).isEqualTo(420);
    }

    @Test
    void stopAllEndsAProgramThatIsWaitedFor() throws Exception {
        link.close();
        link = new DesktopLink(new GearReport(twin, new MachineClock(), this::take), () -> new NoDesktop("none here"),
                null, keeps);
        Path began = folder.resolve("began");
        Path endless = Files.writeString(folder.resolve("endless.sh"), "touch " + began
                + "\nexec tail -f /dev/null\n");
        long run = send("run", with("program", "/bin/sh", "arguments", endless.toString(), "wait", true));
        soon(() -> Files.exists(began));
        assertThat(answers).doesNotContainKey(run);
        link.stop();
        soon(() -> answers.containsKey(run));
        assertThat(answers.get(run)).endsWith("stopped");
        soon(() -> ProcessHandle.current().descendants().noneMatch(p -> p.info().commandLine().orElse("").contains(
                "tail -f /dev/null")));
    }

    @Test
    void aSecretIsTypedByItsNameAndNothingElseHoldsItsText() {
        assertThat(done("type-secret", with("secret", "stage-door", "pace", 0))).isEqualTo("sent");
        assertThat(booth.look().text()).isEqualTo("mööp 7");
        assertThat(done("type-secret", with("secret", "elsewhere"))).isEqualTo(
                "Booth: the secret “elsewhere” is not on this computer: set it in the step");
        assertThat(twin.order(twin.card().command("type-secret").orElseThrow(), with("secret", "stage-door"), r -> null)
                .toString()).doesNotContain("mööp");
    }

    @Test
    void aTextArrivesWholeWhateverItsLetters() {
        assertThat(done("type-text", with("text", "Größe: Ω 😀\tok", "pace", 0))).isEqualTo("sent");
        assertThat(booth.look().text()).isEqualTo("Größe: Ω 😀\tok");
    }

    @Test
    void aChordGoesDownInOrderAndUpInTheOther() {
        done("press-keys", with("keys", "shift+ctrl+k", "times", 2, "pace", 0));
        List<String> once = List.of("Shift down", "Ctrl down", "K down", "K up", "Ctrl up", "Shift up");
        List<String> twice = new ArrayList<>(once);
        twice.addAll(once);
        assertThat(booth.look().log()).isEqualTo(twice);
    }

    @Test
    void aKeyThatIsNoneIsRefusedInPlainWords() {
        org.assertj.core.api.Assertions.assertThatIllegalArgumentException().isThrownBy(() -> send("press-keys", with(
                "keys", "Ctrl+Hyperspace"))).withMessage("there is no key “Hyperspace”");
    }

    @Test
    void whatIsHeldIsLetGoByStopAllAndByClosing() {
        done("hold-keys", with("keys", "F9"));
        assertThat(booth.look().down()).containsExactly("F9");
        link.stop();
        soon(() -> booth.look().down().isEmpty());
        done("hold-keys", with("keys", "Right Ctrl+F9"));
        done("button-down", with());
        assertThat(booth.look().down()).hasSize(3);
        link.close();
        assertThat(booth.look().down()).isEmpty();
    }

    /** Of a hundred keys in one chain those in the middle were dropped: they had waited for those before them. */
    @Test
    void whatWaitsBehindOtherKeysIsNotTooOld() {
        List<Long> all = new ArrayList<>(
                List.of(send("type-text", with("text", "x".repeat(30), "pace", 100))));
        for (int i = 0; i < 5; i++) {
            all.add(send("press-keys", with("keys", "F" + (i + 1))));
        }
        soon(() -> answers.size() == all.size());
        assertThat(answers.values()).containsOnly("sent");
    }

    @Test
    void stopAllEndsATextInTheMiddleAndWhatWaitsBehindIt() {
        long typing = send("type-text", with("text", "x".repeat(1000), "pace", 5));
        long behind = send("press-keys", with("keys", "F1"));
        soon(() -> booth.look().text().length() > 3);
        link.stop();
        soon(() -> answers.containsKey(typing) && answers.containsKey(behind));
        assertThat(answers.values()).containsOnly("Booth: stopped");
        assertThat(booth.look().text().length()).isLessThan(1000);
        assertThat(booth.look().log()).doesNotContain("F1 down");
        assertThat(done("press-keys", with("keys", "F2"))).isEqualTo("sent");
    }

    @Test
    void aModifierThatWaitsForTheNextKeyGoesWithItAndOneForATimeGoesByItself() {
        done("modifier-down", with("modifier", "ctrl", "until", "next"));
        soon(() -> Value.of(true).equals(now("held/ctrl")));
        done("press-keys", with("keys", "S"));
        assertThat(booth.look().log()).containsExactly("Ctrl down", "S down", "S up", "Ctrl up");
        soon(() -> Value.of(false).equals(now("held/ctrl")));
        done("modifier-down", with("modifier", "right-alt", "until", "time", "ms", 30));
        soon(() -> booth.look().log().contains("Right Alt up"));
        soon(() -> Value.of(false).equals(now("held/right-alt")));
    }

    @Test
    void aClickInAWindowFindsItFromEachCornerAndThePointerComesBack() {
        booth.look();
        assertThat(done("click", with("place", "window booth from upper-left at 90 322", "back", true))).isEqualTo(
                "sent");
        assertThat(booth.look().slides()).isEqualTo(1);
        assertThat(booth.look().pointerX()).isEqualTo(BoothLook.WIDTH / 2);
        done("place-window", with("app", "booth", "x", 300, "y", 200, "width", 500, "height", 500));
        done("click", with("place", "window booth from lower-left at 200 180", "times", 2));
        assertThat(booth.look().clips()).isEqualTo(2);
        done("drag", with("from", "window booth from upper-left at 60 380", "place",
                "window booth from upper-left at 260 380", "ms", 40));
        assertThat(booth.look().slider()).isEqualTo(75);
        assertThat(booth.look().down()).isEmpty();
    }

    @Test
    void whatIsNotThereIsSaid() {
        assertThat(done("click", with("place", "window kettle from upper-left at 1 1"))).isEqualTo(
                "Booth: “kettle” has no window now: open it first");
        assertThat(done("click", with("place", "screen 3 at 1 1"))).isEqualTo("Booth: there is no screen 3 now");
    }

    @Test
    void keysGoToTheApplicationThatIsNamedAndWhatWasInFrontComesBack() {
        done("bring", with("app", "chart"));
        soon(() -> Value.of("chart").equals(now("front")));
        done("type-text", with("text", "seen", "to", "booth"));
        assertThat(booth.look().text()).isEqualTo("seen");
        assertThat(booth.look().windows().getFirst().application()).isEqualTo("chart");
        done("type-text", with("text", "!", "to", "booth", "back", false));
        assertThat(booth.look().windows().getFirst().application()).isEqualTo("booth");
    }

    @Test
    void theClipboardTheSoundAndAProgramAnswerAsReadings() {
        done("clipboard-put", with("text", "M31"));
        done("clipboard-take", with());
        assertThat(now("clipboard")).isEqualTo(Value.of("M31"));
        done("volume", with("side", "output", "volume", 30));
        done("mute", with("side", "input"));
        soon(() -> Value.of(30).equals(now("volume/output")) && Value.of(true).equals(now("mute/input")));
        done("run", with("program", "seeing", "arguments", "--now", "wait", true));
        assertThat(now("exit")).isEqualTo(Value.of(0));
        assertThat(now("answer")).isEqualTo(Value.of("done"));
        assertThat(booth.look().log()).contains("ran seeing --now");
    }

    @Test
    void everyCommandOfTheCardIsKnownAndTakesAPower() throws Exception {
        for (Card.Command command : twin.card().commands()) {
            for (Packet packet : command.send().get(twin.protocol())) {
                String address = packet.to().toString().replace("{side}", "output");
                assertThat(Doings.power(address)).as(command.id()).isNotNull();
                assertThat(address.equals("programs run") || Doings.of(address) != null).isTrue();
            }
        }
        assertThat(Optional.ofNullable(new Desktop().power("volume {side}"))).contains(Power.SYSTEM);
    }

    @Test
    void whatAKilledRombixHeldIsFoundByTheNextOneAndWhatALivingOneHoldsIsNot() throws Exception {
        Path file = folder.resolve("held");
        HeldFile first = new HeldFile(file);
        first.keep(List.of("Ctrl", "F9"));
        try (HeldFile second = new HeldFile(file)) {
            assertThat(second.found()).isEmpty();
        }
        first.close(); // As the system does it for one that was killed.
        try (HeldFile next = new HeldFile(file)) {
            assertThat(next.found()).containsExactly("Ctrl", "F9");
        }
        try (HeldFile last = new HeldFile(file)) {
            assertThat(last.found()).isEmpty();
        }
        assertThat(Files.getPosixFilePermissions(folder.resolve("held-1"))).hasSize(2);
    }

    @Test
    void whatRombixSendsItselfIsHeardOnce() {
        Own.sent("F7", true);
        assertThat(Own.heard("F7", true)).isTrue();
        assertThat(Own.heard("F7", true)).isFalse();
        assertThat(Own.heard("F8", true)).isFalse();
    }
}
