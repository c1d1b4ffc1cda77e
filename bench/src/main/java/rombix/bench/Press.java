package rombix.bench;

import java.net.InetSocketAddress;
import java.nio.ByteBuffer;
import java.nio.channels.DatagramChannel;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.locks.LockSupport;
import rombix.bench.measure.BenchGear;
import rombix.bench.measure.Figure;
import rombix.bench.measure.Measured;
import rombix.bench.measure.Rounds;
import rombix.core.board.Rig;
import rombix.core.chain.Chain;
import rombix.core.chain.Gesture;
import rombix.core.engine.Conductor;
import rombix.core.event.Event;
import rombix.links.Links;
import rombix.links.MachineClock;

/** From a press to its datagram received on loopback, against a thread that is handed an object and sends the bytes. */
final class Press implements Measured {

    @Override
    public List<Figure> measure() throws Exception {
        try (BenchGear gear = new BenchGear()) {
            Rig rig = BenchGear.osc(List.of(gear.address()), Chain.of(BenchGear.go(0, 7)));
            Links[] links = new Links[1];
            try (Conductor conductor = new Conductor(new MachineClock(), new SplittableRandom(1), post -> {
                links[0] = new Links(new MachineClock(), post);
                return links[0];
            }, _ -> {
            }); BareSender sender = new BareSender(gear.socketAddress())) {
                conductor.post(new Event.Load(rig));
                links[0].connect(rig, Map.of());
                LockSupport.parkNanos(1_000_000_000L);
                Event press = new Event.Perform("b", Gesture.PRESS, "bench");
                List<Figure> figures = new Rounds().figures("press", gear, () -> conductor.post(press), () -> sender
                        .hand(press), 2);
                links[0].close();
                return figures;
            }
        }
    }

    /** A bare thread that is handed objects, and sends the same bytes for each. */
    private static final class BareSender implements AutoCloseable {
        /** {@code /go ,f 7.0} as OSC. */
        private static final byte[] BYTES = {'/', 'g', 'o', 0, ',', 'f', 0, 0, 0x40, (byte) 0xE0, 0, 0};
        private final ConcurrentLinkedQueue<Object> queue = new ConcurrentLinkedQueue<>();
        private final DatagramChannel channel;
        private final ByteBuffer out = ByteBuffer.allocateDirect(BYTES.length);
        private final Thread thread;
        private volatile boolean closed;

        BareSender(InetSocketAddress to) throws java.io.IOException {
            channel = DatagramChannel.open();
            channel.connect(to);
            thread = Thread.ofPlatform().name("bare").daemon().start(this::run);
        }

        void hand(Object what) {
            queue.add(what);
            LockSupport.unpark(thread);
        }

        private void run() {
            try {
                while (!closed) {
                    while (queue.poll() != null) {
                        out.clear();
                        out.put(BYTES).flip();
                        channel.write(out);
                    }
                    LockSupport.park(this);
                }
            } catch (java.io.IOException e) {
                throw new java.io.UncheckedIOException(e);
            }
        }

        @Override
        public void close() throws java.io.IOException {
            closed = true;
            LockSupport.unpark(thread);
            channel.close();
        }
    }
}
