package rombix.links.desktop;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import rombix.core.card.Card;
import rombix.core.card.Packet;
import rombix.core.computer.Power;
import rombix.core.trust.Grants;
import rombix.core.twin.Order;
import rombix.core.value.Value;
import rombix.links.MachineClock;
import rombix.links.desktop.machine.NoDesktop;
import rombix.links.desktop.machine.SentKeys;
import rombix.links.link.GearReport;
import rombix.standins.booth.Booth;
import rombix.standins.booth.BoothLook;

/** A computer as gear: its keys, pointer, windows and programs. */
@Timeout(300)
class ComputerTest extends ComputerUnderTest {
    /** A key stayed down that its board was to let go as it went: by then the board was another. */
    @Test
    void whatWaitsAsItsBoardGoesIsDoneAllTheSame() {
        long typing = send("type-text", with("text", "x".repeat(20), "pace", 20));
        long release = send("let-go-keys", with("keys", "F9"));
        link.granted(Grants.NONE);
        soon(() -> answers.containsKey(typing) && answers.containsKey(release));
        assertThat(answers.values()).containsOnly("sent");
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
                "Booth: the secret “elsewhere” isn't on this computer: set it in the step");
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
                "Booth: “kettle” has no window: open it first");
        assertThat(done("click", with("place", "screen 3 at 1 1"))).isEqualTo("Booth: there is no screen 3");
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
    void aProgramHasAVolumeOfItsOwnAndTheOneInFrontIsFoundByItsWindow() {
        soon(() -> Value.of(70).equals(now("sound-volume/booth")) && Value.of(70).equals(now("sound-volume/front")));
        assertThat(done("program-volume", with("program", "front", "volume", 25))).isEqualTo("sent");
        soon(() -> Value.of(25).equals(now("sound-volume/booth")) && Value.of(25).equals(now("sound-volume/front")));
        done("program-mute", with("program", "booth"));
        soon(() -> Value.of(true).equals(now("sound-mute/front")));
        done("minimise", with("app", "booth"));
        done("open", with("what", "chart.pdf"));
        soon(() -> Value.of("chart").equals(now("front")));
        assertThat(done("program-volume", with("program", "front", "volume", 25))).isEqualTo(
                "Booth: “chart” is in front, but isn't playing sound");
    }

    @Test
    void whatRombixSendsItselfIsHeardOnce() {
        SentKeys.sent("F7", true);
        assertThat(SentKeys.consume("F7", true)).isTrue();
        assertThat(SentKeys.consume("F7", true)).isFalse();
        assertThat(SentKeys.consume("F8", true)).isFalse();
    }
}
