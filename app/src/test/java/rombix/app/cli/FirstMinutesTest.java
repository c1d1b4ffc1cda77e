package rombix.app.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.illposed.osc.OSCMessage;
import com.illposed.osc.OSCSerializerAndParserBuilder;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.nio.ByteBuffer;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.CompletableFuture;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.stage.Window;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.testfx.api.FxRobot;
import org.testfx.util.WaitForAsyncUtils;
import rombix.app.cli.open.Begin;
import rombix.app.show.Session;
import rombix.running.owner.Settings;

/** From nothing said on the command line to a button that works, with what a person does counted. */
@Timeout(300)
class FirstMinutesTest {
    @TempDir
    Path home;
    private final FxRobot robot = new FxRobot();
    private String homeBefore = "";
    private String settingsBefore = "";
    private CompletableFuture<Integer> ended = new CompletableFuture<>();
    private int actions;

    @BeforeEach
    void start() {
        Session.startToolkit(true);
        homeBefore = System.setProperty("user.home", home.toString());
        settingsBefore = System.setProperty("rombix.settings", home.resolve("settings.properties").toString());
        ended = CompletableFuture.supplyAsync(() -> {
            try {
                return Begin.run(RombixCommand::line, new Settings());
            } catch (Exception e) {
                throw new IllegalStateException(e);
            }
        });
    }

    @AfterEach
    void end() {
        Session.onInterface(() -> {
            List.copyOf(Window.getWindows()).forEach(Window::hide);
            return true;
        });
        ended.join();
        System.setProperty("user.home", homeBefore);
        if (settingsBefore == null) {
            System.clearProperty("rombix.settings");
        } else {
            System.setProperty("rombix.settings", settingsBefore);
        }
    }

    /** A node that is shown in one of the windows. */
    private static Node find(String id) {
        return WaitForAsyncUtils.waitForAsyncFx(60_000, () -> Window.getWindows().stream().flatMap(w -> w.getScene()
                .getRoot().lookupAll(id).stream()).filter(n -> n.isVisible() && n.getScene() != null).findFirst()
                .orElse(null));
    }

    private static void soon(Callable<Boolean> what) {
        await().until(what);
    }

    private static Point2D middle(String id) {
        return Session.onInterface(() -> {
            Node node = find(id);
            node.getScene().getRoot().applyCss();
            node.getScene().getRoot().layout();
            Bounds b = node.localToScreen(node.getBoundsInLocal());
            return new Point2D(b.getCenterX(), b.getCenterY());
        });
    }

    private void click(String id) {
        soon(() -> find(id) != null);
        soon(() -> { // A window that was only just opened may still be finding its layout.
            Point2D before = middle(id);
            WaitForAsyncUtils.waitForFxEvents(2);
            return before.equals(middle(id));
        });
        robot.robotContext().getMouseRobot().moveNoWait(middle(id));
        robot.press(MouseButton.PRIMARY).release(MouseButton.PRIMARY);
        actions++;
    }

    /** Types over what stands in the field that has the hand. */
    private void type(String text) {
        robot.push(KeyCode.CONTROL, KeyCode.A);
        robot.write(text, 0);
        actions++;
    }

    private void key(KeyCode key) {
        robot.push(key);
        actions++;
    }

    @Test
    void fromNothingToAButtonThatWorksOnAnOscGearThatNobodyHereWrote() throws Exception {
        OSCMessage heard;
        try (DatagramSocket gear = new DatagramSocket(0, InetAddress.getLoopbackAddress())) {
            gear.setSoTimeout(20_000);
            int port = gear.getLocalPort();
            click("#welcome-new");
            click("#kind-any-osc");
            type("127.0.0.1:" + port);
            key(KeyCode.ENTER);
            click("#gear-tab-items");
            click("#gear-item-any-osc-gear-message-message-1");
            type("House lights");
            key(KeyCode.TAB);
            type("/hall/lights");
            key(KeyCode.ENTER);
            click("#first-button");
            type("house lights 0.5");
            key(KeyCode.ENTER);
            soon(() -> find("#tile-new-button") != null);
            key(KeyCode.F6);
            click("#tile-new-button");
            DatagramPacket in = new DatagramPacket(new byte[1024], 1024);
            gear.receive(in);
            heard = (OSCMessage) new OSCSerializerAndParserBuilder().buildParser()
                    .convert(ByteBuffer.wrap(in.getData(), 0,
                            in.getLength()));
        }
        assertThat(heard.getAddress()).isEqualTo("/hall/lights");
        assertThat(heard.getArguments()).containsExactly(0.5f);
        assertThat(actions).isLessThan(25);
    }

    @Test
    void aStudioThatIsNotHereYetIsStoodInForAndItsPagesAreMade() {
        click("#welcome-new");
        soon(() -> find("#kind-studio") != null && find("#hint-gear") != null);
        click("#kind-studio");
        click("#gear-stand-in-studio");
        soon(() -> find("#rack-studio-scene-host-desk") != null);
        click("#first-pages");
        soon(() -> find("#tile-host-desk") != null && find("#hint-press") != null);
        assertThat(find("#hint-gear")).isNull();
        key(KeyCode.F7);
        click("#tile-host-desk");
        soon(() -> find("#hint-press") == null);
        assertThat(new Settings().get("hint.press")).as("it does not come again").isPresent();
    }
}
