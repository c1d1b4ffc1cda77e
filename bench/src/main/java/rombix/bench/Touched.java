package rombix.bench;

import java.io.InputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.nio.ByteBuffer;
import java.nio.channels.DatagramChannel;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.concurrent.locks.LockSupport;
import rombix.bench.measure.BenchGear;
import rombix.bench.measure.Figure;
import rombix.bench.measure.Measured;
import rombix.bench.measure.Rounds;
import rombix.core.board.Rig;
import rombix.core.board.Trigger;
import rombix.core.board.Trigger.Midi.Message;
import rombix.core.chain.Chain;
import rombix.core.engine.Conductor;
import rombix.core.event.Event;
import rombix.core.touch.Switchboard;
import rombix.links.Links;
import rombix.links.MachineClock;
import rombix.links.midi.Controllers;
import rombix.standins.midi.CableProvider;
import rombix.standins.midi.Pads;

/**
 * From a note of a controller to the datagram that its button sends, received on loopback; against a thread that reads
 * the same bytes from the same kind of socket and sends a datagram for each.
 */
final class Touched implements Measured {
    private static final String PORT = "Bench Pads";
    private static final int NOTE = 36;

    @Override
    public List<Figure> measure() throws Exception {
        try (BenchGear gear = new BenchGear(); Pads pads = new Pads(0); Pads barePads = new Pads(0)) {
            CableProvider.plug(PORT, new InetSocketAddress(InetAddress.getLoopbackAddress(), pads.port()));
            Rig plain = BenchGear.osc(List.of(gear.address()), Chain.of(BenchGear.go(0, 7)));
            Rig rig = plain.with(rombix.core.edit.Edits.button(plain.board(), "b", b -> b.withTriggers(List.of(
                    new Trigger.Midi(PORT, Message.NOTE, 1, NOTE, null, Map.of(), false)))));
            Links[] links = new Links[1];
            try (Conductor conductor = new Conductor(new MachineClock(), new SplittableRandom(1), post -> {
                links[0] = new Links(new MachineClock(), post);
                return links[0];
            }, _ -> {
            })) {
                Switchboard switchboard = new Switchboard(conductor::post, _ -> {
                });
                try (Controllers controllers = new Controllers(switchboard::take, _ -> {
                }); Loop loop = new Loop(barePads.port(), gear.socketAddress())) {
                    switchboard.load(rig);
                    switchboard.arm(true);
                    controllers.use(List.of(PORT), false);
                    conductor.post(new Event.Load(rig));
                    links[0].connect(rig, Map.of());
                    LockSupport.parkNanos(2_000_000_000L);
                    List<Figure> figures = new Rounds().figures("touch", gear, () -> play(pads), () -> play(barePads),
                            3);
                    links[0].close();
                    return figures;
                }
            }
        } finally {
            CableProvider.unplug(PORT);
        }
    }

    private static void play(Pads pads) {
        pads.play(0x90, NOTE, 100, 0x90, NOTE, 0);
    }

    /** Sends the same datagram for each note that begins. */
    private static final class Loop implements AutoCloseable {
        /** {@code /go ,f 7.0} as OSC. */
        private static final byte[] BYTES = {'/', 'g', 'o', 0, ',', 'f', 0, 0, 0x40, (byte) 0xE0, 0, 0};
        private final Socket socket;
        private final DatagramChannel channel;

        Loop(int pads, InetSocketAddress to) throws Exception {
            socket = new Socket(InetAddress.getLoopbackAddress(), pads);
            socket.setTcpNoDelay(true);
            channel = DatagramChannel.open().connect(to);
            Thread.ofVirtual().start(this::run);
        }

        private void run() {
            ByteBuffer out = ByteBuffer.allocateDirect(BYTES.length).put(BYTES);
            byte[] note = new byte[3];
            try {
                InputStream in = socket.getInputStream();
                while (in.readNBytes(note, 0, 3) == 3) {
                    if (note[2] > 0) {
                        channel.write(out.rewind());
                    }
                }
            } catch (java.io.IOException e) {
                // Over.
            }
        }

        @Override
        public void close() throws Exception {
            socket.close();
            channel.close();
        }
    }
}
