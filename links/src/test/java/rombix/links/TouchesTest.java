package rombix.links;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.links.LinkBench.soon;

import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.ByteBuffer;
import java.util.List;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import rombix.core.board.Trigger.Midi.Message;
import rombix.core.touch.Touch;
import rombix.core.value.Value;
import rombix.links.midi.Controllers;
import rombix.links.osc.OscIn;
import rombix.standins.midi.CableProvider;
import rombix.standins.midi.Pads;
import rombix.wire.osc.OscCodec;
import rombix.wire.osc.OscPacket;

/** What comes in from controllers and as OSC, over real ports. */
@Timeout(300)
class TouchesTest {
    private static final String PORT = "Test Pads";
    private final Queue<Touch> seen = new ConcurrentLinkedQueue<>();
    private final Queue<String> arrived = new ConcurrentLinkedQueue<>();

    private static void plug(Pads pads) {
        CableProvider.plug(PORT, new InetSocketAddress(InetAddress.getLoopbackAddress(), pads.port()));
    }

    @Test
    void aControllerIsHeardLitPulledOutAndPluggedInAgain() throws IOException {
        try (Controllers controllers = new Controllers(seen::add, arrived::add)) {
            controllers.use(List.of(PORT), false);
            try (Pads pads = new Pads(0)) {
                plug(pads);
                soon().until(() -> controllers.open().contains(PORT) && pads.ends() == 1);
                pads.play(0x90, 36, 100, 0x80, 36, 0, 0xB1, 7, 64, 0xC0, 5);
                soon().until(() -> seen.size() == 4);
                assertThat(seen).containsExactly(new Touch.Midi(PORT, Message.NOTE, 1, 36, 100), new Touch.Midi(PORT,
                        Message.NOTE, 1, 36, 0), new Touch.Midi(PORT, Message.CONTROL, 2, 7, 64),
                        new Touch.Midi(PORT,
                                Message.PROGRAM, 1, 5, 127));
                seen.clear();
            }
            soon().until(() -> seen.contains(new Touch.Gone(PORT)));
            assertThat(controllers.open()).isEmpty();
            try (Pads again = new Pads(0)) {
                plug(again);
                soon().until(() -> arrived.size() == 2 && again.ends() == 1);
            }
        } finally {
            CableProvider.unplug(PORT);
        }
    }

    @Test
    void onlyTheLastValueOfALampWaitsForASlowPort() throws Exception {
        try (Controllers controllers = new Controllers(seen::add, arrived::add);
                Pads pads = new Pads(0);
                java.net.Socket end = new java.net.Socket(InetAddress.getLoopbackAddress(), pads.port())) {
            plug(pads);
            controllers.use(List.of(PORT), false);
            soon().until(() -> controllers.open().contains(PORT) && pads.ends() == 2);
            for (int i = 0; i < 100_000; i++) {
                controllers.send(new Touch.Midi(PORT, Message.NOTE, 1, 36, i % 128));
            }
            controllers.send(new Touch.Midi(PORT, Message.NOTE, 1, 36, 99));
            byte[] three = new byte[3];
            int count = 0;
            do {
                assertThat(end.getInputStream().readNBytes(three, 0, 3)).isEqualTo(3);
                count++;
            } while (three[2] != 99 || end.getInputStream().available() > 0);
            assertThat(count).isLessThan(100_000);
        } finally {
            CableProvider.unplug(PORT);
        }
    }

    @Test
    void oscIsHeardAtItsPortAndNonsenseIsNot() throws IOException {
        try (OscIn osc = new OscIn(seen::add); DatagramSocket socket = new DatagramSocket()) {
            osc.listen(0);
            ByteBuffer out = ByteBuffer.allocate(64);
            OscCodec.encode(new OscPacket.Message("/go", List.of(1f, true)), out);
            InetAddress here = InetAddress.getLoopbackAddress();
            socket.send(new DatagramPacket(new byte[]{'/', 'x'}, 2, here, osc.port()));
            socket.send(new DatagramPacket(out.array(), out.flip().limit(), here, osc.port()));
            soon().until(() -> !seen.isEmpty());
            assertThat(seen).containsExactly(new Touch.Osc("/go", List.of(Value.of(1), Value.of(true))));
            try (OscIn other = new OscIn(seen::add)) {
                other.listen(osc.port());
                assertThat(other.port()).isEqualTo(-1);
                assertThat(other.trouble()).contains("another program is using port");
            }
            osc.listen(-1);
            assertThat(osc.port()).isEqualTo(-1);
        }
    }
}
