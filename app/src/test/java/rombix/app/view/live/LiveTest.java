package rombix.app.view.live;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.Socket;
import java.nio.ByteBuffer;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentLinkedQueue;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Labeled;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.ScrollEvent;
import org.junit.jupiter.api.Test;
import org.testfx.util.WaitForAsyncUtils;
import rombix.app.view.page.SmallWindow;
import rombix.app.view.tile.Tile;
import rombix.app.view.window.AtTheWindow;
import rombix.core.board.Trigger;
import rombix.core.chain.Arg;
import rombix.core.chain.Condition;
import rombix.core.chain.DeckStep.Show.Way;
import rombix.core.chain.DeckStep;
import rombix.core.chain.GearStep;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.edit.Edits;
import rombix.core.event.Mode;
import rombix.core.value.Value;
import rombix.running.input.Touches;
import rombix.running.log.LogRow;
import rombix.standins.midi.CableProvider;
import rombix.wire.osc.OscCodec;
import rombix.wire.osc.OscPacket;

/** The deck during a show: pressed by hand, key, controller and OSC, on real stand-ins, offscreen. */
class LiveTest extends AtTheWindow {
    private static final int WALKWAY = 20;
    private static final int NOTE = 0x90;
    private static final int CONTROL = 0xB0;

    private interface Act {
        void run() throws Exception;
    }

    /** Does something once, when all that is touched is listened to, and waits for its effect. */
    private void touch(boolean armed, Act act, java.util.concurrent.Callable<Boolean> so) throws Exception {
        soon(() -> {
            Touches.Sources s = session.window().touches().sources();
            return s.armed() == armed && s.oscPort() > 0 && s.open().contains(CableProvider.PADS);
        });
        act.run();
        soon(so);
    }

    private void plugged() {
        soon(() -> gear.pads().ends() > 0);
    }

    private void osc(String address, Object... args) throws Exception {
        soon(() -> session.window().touches().sources().oscPort() > 0);
        ByteBuffer out = ByteBuffer.allocate(256);
        OscCodec.encode(new OscPacket.Message(address, List.of(args)), out);
        try (DatagramSocket socket = new DatagramSocket()) {
            socket.send(new DatagramPacket(out.array(), out.flip().limit(), InetAddress.getLoopbackAddress(), session
                    .window().touches().sources().oscPort()));
        }
    }

    /** Tells a gear something by hand; parameters and values in turn. */
    private void tell(String gearId, String command, Object... with) {
        Map<String, Value> args = new LinkedHashMap<>();
        for (int i = 0; i < with.length; i += 2) {
            args.put((String) with[i], (Value) with[i + 1]);
        }
        session.deck().tell(gearId, command, args);
    }

    private boolean logged(String who, String what, String button) {
        return this.<LogRow>rowsOf("#log").stream()
                .anyMatch(r -> r.who().contains(who) && r.words().equals(what) && r.button().equals(button));
    }

    @Test
    void aControllerPressesHoldsAndIsPulledOut() throws Exception {
        mode(Mode.LIVE);
        plugged();
        touch(true, () -> gear.pads().play(NOTE, 36, 100), () -> !gear.desk().muted(0));
        gear.pads().play(NOTE, 36, 0);
        soon(() -> gear.desk().muted(0));
        gear.pads().play(NOTE, 36, 100);
        soon(() -> !gear.desk().muted(0));
        robot.interact(() -> bench().showPage("observing")); // A controller's hold is not of this page.
        soon(() -> tile("cough") != null);
        assertThat(gear.desk().muted(0)).isFalse();
        gear.pads().close(); // Pulled out while it holds.
        soon(() -> gear.desk().muted(0));
        key(KeyCode.L, KeyCode.CONTROL);
        soon(() -> logged("MIDI Larkmoor Pads, note 36", "press", "host-talk") && logged("MIDI Larkmoor Pads gone",
                "release", "host-talk"));
    }

    @Test
    void aControllersFaderKnobAndLampsFollowAndAreFollowed() throws Exception {
        ConcurrentLinkedQueue<String> seen = new ConcurrentLinkedQueue<>();
        try (Socket end = new Socket(InetAddress.getLoopbackAddress(), gear.pads().port())) {
            Thread.startVirtualThread(() -> {
                try {
                    byte[] three = new byte[3];
                    while (end.getInputStream().readNBytes(three, 0, 3) == 3) {
                        seen.add("%02X %d %d".formatted(three[0], three[1], three[2]));
                    }
                } catch (java.io.IOException e) {
                    // Over.
                }
            });
            mode(Mode.LIVE);
            soon(() -> gear.pads().ends() > 1);
            click(tile("music-bed"));
            soon(() -> tile("music-bed").getAccessibleText().contains("MUTED"));
            soon(() -> seen.contains("90 37 1"));
            int before = gear.desk().level(0);
            touch(true, () -> gear.pads().play(CONTROL, 7, 20), () -> gear.desk().level(0) < before);
            robot.interact(() -> bench().showPage("levels"));
            soon(() -> said("#tile-host-level").contains("dB"));
            gear.desk().work(30, 120); // By hand on the desk: the motor fader goes along.
            soon(() -> seen.stream().anyMatch(m -> m.startsWith("B0 7 ") && !m.equals("B0 7 20")));
            tell("lamps", "level", "lamp", Value.of("walkway"), "level", Value.of(40));
            soon(() -> said("#tile-walkway-dial").contains("40"));
            gear.pads().play(CONTROL, 20, 2);
            soon(() -> said("#tile-walkway-dial").contains("50"));
            gear.pads().play(CONTROL, 20, 127);
            soon(() -> said("#tile-walkway-dial").contains("45"));
        }
    }

    @Test
    void oscPressesAndTheLogSaysSoAndStopAllEndsAFadeInItsMiddle() throws Exception {
        chain("keep-that-long",
                new GearStep.Fade("lamps", "level", Map.of("lamp", Arg.of("walkway")), "level", Arg.of(0), Arg
                        .of(100), 60_000, GearStep.Fade.Curve.LINEAR, StepOptions.PLAIN, Map.of()));
        robot.interact(() -> bench().edit("test", b -> Edits.button(b, "keep-that-long", x -> x.withTriggers(List.of(
                new Trigger.Osc("/fade"))))));
        robot.interact(() -> bench().select(null));
        touch(false, () -> osc("/fade"), () -> bench().button().map(b -> b.id()).orElse("").equals("keep-that-long"));
        mode(Mode.LIVE);
        touch(true, () -> osc("/fade"), () -> there(".run-card") != null);
        soon(() -> gear.lamps().slot(WALKWAY) > 0);
        key(KeyCode.PERIOD, KeyCode.CONTROL);
        soon(() -> there(".run-card") == null);
        key(KeyCode.L, KeyCode.CONTROL);
        soon(() -> logged("OSC /fade", "press", "keep-that-long") && logged("", "stopped", "keep-that-long"));
        robot.type(KeyCode.ESCAPE);
        assertThat(gear.lamps().slot(WALKWAY)).isBetween(1, 250); // It stays where it was.
    }

    @Test
    void aPageIsShownWhileAButtonIsHeldAndOthersArePressedOnIt() throws Exception {
        chain("waiting-card", DeckStep.Show.page("observing", Way.WHILE_HELD));
        mode(Mode.LIVE);
        plugged();
        moveTo(tile("waiting-card")).press(MouseButton.PRIMARY);
        soon(() -> tile("wide-field") != null);
        touch(true, () -> gear.pads().play(NOTE, 38, 100, NOTE, 38, 0), () -> gear.lamps().packets() > 0);
        assertThat(bench().page().id()).isEqualTo("observing");
        robot.release(MouseButton.PRIMARY);
        soon(() -> bench().page().id().equals("doors"));
        // A page that follows, and the way back.
        tell("studio", "scene", "scene", Value.of("clouded-out"));
        soon(() -> bench().page().id().equals("trouble"));
        assertThat(label("#page-back")).isEqualTo("← Doors");
        tell("studio", "scene", "scene", Value.of("host-desk"));
        soon(() -> bench().page().id().equals("doors"));
        robot.interact(() -> bench().showPage("close"));
        key(KeyCode.LEFT, KeyCode.ALT);
        soon(() -> bench().page().id().equals("doors"));
    }

    @Test
    void fadersDialsAndPadsAreWorkedByMouseWheelAndKeys() {
        mode(Mode.LIVE);
        robot.interact(() -> bench().showPage("levels"));
        soon(() -> said("#tile-host-level").contains("dB"));
        int before = gear.desk().level(0);
        Tile fader = tile("host-level");
        moveTo(fader);
        assertThat(gear.desk().level(0)).isEqualTo(before);
        robot.press(MouseButton.PRIMARY).moveBy(0, 60).release(MouseButton.PRIMARY);
        soon(() -> gear.desk().level(0) < before);
        int pulled = gear.desk().level(0);
        robot.interact(fader::requestFocus);
        key(KeyCode.UP, KeyCode.CONTROL);
        soon(() -> gear.desk().level(0) > pulled);
        Tile pad = tile("desk-light");
        moveTo(pad).press(MouseButton.PRIMARY).moveBy(40, -30).release(MouseButton.PRIMARY);
        soon(() -> said("#tile-desk-light").matches("(?s).*\\d.K.*\\d.%.*"));
        int packets = (int) gear.lamps().packets();
        Tile dial = tile("warm-room-dial");
        robot.interact(dial::requestFocus);
        tell("lamps", "level", "lamp", Value.of("warm-room"), "level", Value.of(50));
        soon(() -> said("#tile-warm-room-dial").contains("50"));
        robot.interact(() -> dial.fireEvent(wheel(40))); // The offscreen toolkit turns no wheel.
        soon(() -> !said("#tile-warm-room-dial").contains("50"));
        assertThat(gear.lamps().packets()).isGreaterThan(packets);
    }

    @Test
    void aTriggerIsLearntByTouchingAndClashesAreSaid() throws Exception {
        robot.interact(() -> bench().select("tea-urn"));
        key(KeyCode.T, KeyCode.CONTROL);
        click(find("#trigger-learn"));
        plugged();
        touch(false, () -> gear.pads().play(NOTE, 44, 90),
                () -> bench().rig().button("tea-urn").orElseThrow().triggers().size() == 1);
        assertThat(bench().rig().button("tea-urn").orElseThrow().triggers().getFirst()).isEqualTo(new Trigger.Midi(
                CableProvider.PADS, Trigger.Midi.Message.NOTE, 1, 44, null, Map.of(), false));
        assertThat(find("#trigger-trouble")).isNull();
        robot.interact(() -> bench().edit("test", b -> Edits.button(b, "gate", x -> x.withTriggers(List.of(
                new Trigger.Midi(CableProvider.PADS, Trigger.Midi.Message.NOTE, 1, 44, null, Map.of(), false))))));
        soon(() -> label("#trigger-trouble").contains("“Gate”"));
        click(find("#trigger-remove"));
        soon(() -> bench().rig().button("tea-urn").orElseThrow().triggers().isEmpty());
        robot.type(KeyCode.ESCAPE);
        mode(Mode.LIVE);
        touch(true, () -> gear.pads().play(NOTE, 44, 90, NOTE, 44, 0),
                () -> gear.house().state("house/lock/gate").orElse("").equals("UNLOCKED"));
    }

    @Test
    void everyChainThatRunsCanBeStoppedByItselfAndWhatWentWrongIsPutAway() {
        List<String> running = List.of("doors-open", "record", "waiting-card", "host-desk", "gate");
        running.forEach(b -> chain(b, new Step.Wait(60_000)));
        chain("tea-urn", new Step.Wait(0, null, null, Condition.OnReading.is("desk", "muted/host", Value.of(false)), 1L,
                StepOptions.PLAIN, Map.of()));
        mode(Mode.LIVE);
        running.forEach(b -> click(tile(b)));
        soon(() -> running.stream().allMatch(b -> find("#stop-run-" + b) != null));
        running.forEach(
                b -> assertThat(find("#stop-run-" + b).getLayoutBounds().getHeight()).isGreaterThanOrEqualTo(48));
        robot.interact(((Button) find("#stop-run-record"))::fire);
        soon(() -> find("#stop-run-record") == null && find("#stop-run-gate") != null);

        click(tile("tea-urn"));
        soon(() -> find("#fault-seen").isVisible()
                && tile("tea-urn").getAccessibleText().contains("didn't happen in time"));
        key(KeyCode.M, KeyCode.ALT);
        assertThat(find("#fault-seen").isVisible()).isFalse();
        assertThat(tile("tea-urn").getAccessibleText()).as("the button still shows it")
                .contains("didn't happen in time");
        click(tile("tea-urn"));
        soon(() -> find("#fault-seen").isVisible());
    }

    @Test
    void aRehearsalGoesFasterTouchesNothingAndTellsWhatItWouldHaveSent() {
        chain("doors-open", new GearStep.Do("studio", "start-stream", Map.of()), new Step.Wait(60_000),
                new GearStep.Do("studio",
                        "scene", Map.of("scene", Value.of("host-desk"))));
        mode(Mode.REHEARSE);
        robot.interact(() -> ((ToggleButton) find("#pace-20")).fire());
        click(tile("doors-open")); // It takes a minute at its own pace: longer than is waited here.
        soon(() -> label("#rehearsal-report").startsWith("3 commands") && there(".run-card") == null);
        assertThat(gear.studio().streaming()).isFalse();
        mode(Mode.BUILD);
        soon(() -> find("#rehearsal-view") != null);
        assertThat(find("#rehearsal-view").lookupAll(".label").stream().map(n -> ((Labeled) n).getText())).anyMatch(
                t -> t.contains("Start the stream")).anyMatch(t -> t.startsWith("Studio · "));
    }

    /** The first of them was held for ever. */
    @Test
    void aKeyAndTheMouseAtTheSmallWindowHoldOneButtonAtATime() {
        mode(Mode.LIVE);
        key(KeyCode.P, KeyCode.CONTROL);
        soon(() -> session.window().stagework().small() != null && session.window().stagework().small().showing());
        Node talk = inSmall("#small-host-talk");
        Node card = inSmall("#small-waiting-card");
        robot.interact(() -> talk.fireEvent(space(KeyEvent.KEY_PRESSED)));
        soon(() -> Value.of(false).equals(session.deck().known().readings().get("desk").get("muted/host")));
        robot.interact(() -> {
            card.fireEvent(mouse(card, javafx.scene.input.MouseEvent.MOUSE_PRESSED));
            card.fireEvent(mouse(card, javafx.scene.input.MouseEvent.MOUSE_RELEASED));
            talk.fireEvent(space(KeyEvent.KEY_RELEASED));
        });
        soon(() -> Value.of(true).equals(session.deck().known().readings().get("desk").get("muted/host")));
    }

    private static KeyEvent space(javafx.event.EventType<KeyEvent> type) {
        return new KeyEvent(type, " ", " ", KeyCode.SPACE, false, false, false, false);
    }

    @Test
    void theSmallWindowShowsThePageAndPresses() {
        mode(Mode.LIVE);
        key(KeyCode.P, KeyCode.CONTROL);
        soon(() -> session.window().stagework().small() != null && session.window().stagework().small().showing());
        SmallWindow small = session.window().stagework().small();
        Node tile = inSmall("#small-waiting-card");
        robot.interact(() -> {
            Node at = tile;
            at.fireEvent(mouse(at, javafx.scene.input.MouseEvent.MOUSE_PRESSED));
            at.fireEvent(mouse(at, javafx.scene.input.MouseEvent.MOUSE_RELEASED));
        });
        assertThat(tile).isNotNull();
        soon(() -> gear.studio().scene().equals("waiting-card"));
        robot.interact(() -> {
            small.scene().getWindow().setX(20); // The offscreen toolkit cannot size a window at its edge.
            small.scene().getWindow().setY(20);
        });
        robot.interact(() -> small.shrink(true));
        soon(() -> inSmall("#small-mark") != null);
        assertThat(inSmall("#small-waiting-card")).isNull();
        robot.interact(() -> small.shrink(false));
        assertThat(inSmall("#small-waiting-card")).isNotNull();
        robot.interact(() -> session.window().stagework().smallWindow());
        assertThat(small.showing()).isFalse();
    }

    private Node inSmall(String selector) {
        return WaitForAsyncUtils.waitForAsyncFx(60_000,
                () -> session.window().stagework().small().scene().getRoot().lookup(selector));
    }

    private static ScrollEvent wheel(double up) {
        return new ScrollEvent(ScrollEvent.SCROLL, 5, 5, 5, 5, false, false, false, false, false, false, 0, up, 0, up,
                ScrollEvent.HorizontalTextScrollUnits.NONE, 0, ScrollEvent.VerticalTextScrollUnits.NONE, 0, 0, null);
    }

    private static javafx.scene.input.MouseEvent mouse(Node at,
            javafx.event.EventType<javafx.scene.input.MouseEvent> type) {
        return new javafx.scene.input.MouseEvent(at, at, type, 5, 5, 5, 5, MouseButton.PRIMARY, 1, false, false, false,
                false, true, false, false, true, false, true, null);
    }
}
