package rombix.links;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.links.link.GearUnderTest.soon;

import java.io.OutputStream;
import java.net.InetAddress;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import rombix.core.touch.Touch;
import rombix.links.gamepad.Gamepads;
import rombix.standins.Gamepad;

/** Gamepads through the system's library, with one that is plugged into it. */
@Timeout(300)
class GamepadsTest {
    private static final String NAME = "Test Gamepad";

    private final List<Touch> touches = new CopyOnWriteArrayList<>();

    private void told(Touch touch) {
        soon(() -> touches.contains(touch));
    }

    @Test
    void whatIsPushedPulledAndHeldOverIsToldAndPullingThePlugToo() throws Exception {
        try (Gamepads pads = new Gamepads(touches::add)) {
            pads.use(List.of(NAME), false);
            Gamepad pad = new Gamepad(0, NAME);
            soon(() -> pads.connected().contains(NAME));
            soon(() -> {
                pad.button(0, true);
                return touches.contains(new Touch.Gamepad(NAME, "lower button", 1, 0));
            });
            pad.button(0, false);
            told(new Touch.Gamepad(NAME, "lower button", 0, 0));
            pad.axis(2, 1);
            told(new Touch.Gamepad(NAME, "right stick", 1, 0));
            pad.axis(3, -1);
            told(new Touch.Gamepad(NAME, "right stick", 1, 1));
            pad.axis(5, 1);
            told(new Touch.Gamepad(NAME, "right trigger", 1, 0));
            try (Socket hand = new Socket(InetAddress.getLoopbackAddress(), pad.port());
                    OutputStream out = hand.getOutputStream()) {
                out.write("press 9\nnonsense\n".getBytes(StandardCharsets.UTF_8));
                told(new Touch.Gamepad(NAME, "left shoulder", 1, 0));
            }
            pad.close();
            told(new Touch.Gone(NAME, "gamepad"));
        }
    }

    @Test
    void oneThatNoBoardWantsIsNotListenedTo() throws Exception {
        try (Gamepads pads = new Gamepads(touches::add); Gamepad other = new Gamepad(0, "Other Gamepad")) {
            pads.use(List.of(NAME), false);
            soon(() -> pads.connected().contains("Other Gamepad"));
            other.button(0, true);
            pads.use(List.of(), true);
            told(new Touch.Gamepad("Other Gamepad", "lower button", 1, 0));
            pads.use(List.of(), false);
            told(new Touch.Gone("Other Gamepad", "gamepad"));
            assertThat(pads.trouble()).isNull();
        }
    }
}
