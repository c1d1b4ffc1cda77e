package rombix.bench;

import java.net.InetSocketAddress;
import java.nio.ByteBuffer;
import java.nio.channels.DatagramChannel;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.Semaphore;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.locks.LockSupport;
import rombix.core.board.Rig;
import rombix.core.chain.Chain;
import rombix.core.chain.Gesture;
import rombix.core.engine.Conductor;
import rombix.core.engine.Event;
import rombix.links.Links;
import rombix.links.MachineClock;

/** From a press to its datagram received on loopback, against a thread that is handed an object and sends the bytes. */
final class Press implements Bench.Measured {
    private static final int WARM_UP = 4000;
    private static final int ROUNDS = 20;
    private static final int PRESSES = 300;
    private static final long APART_NANOS = 1_000_000;

    private final AtomicLong arrived = new AtomicLong();
    private final Semaphore one = new Semaphore(0);

    @Override
    public List<Figure> measure() throws Exception {
        List<Long> ours = new ArrayList<>();
        List<Long> bare = new ArrayList<>();
        try (Gear gear = new Gear()) {
            Rig rig = Gear.osc(List.of(gear.address()), Chain.of(Gear.go(0, 7)));
            Links[] links = new Links[1];
            try (Conductor conductor = new Conductor(new MachineClock(), new SplittableRandom(1), post -> {
                links[0] = new Links(new MachineClock(), post);
                return links[0];
            }, _ -> {
            }); BareSender sender = new BareSender(gear.socketAddress())) {
                conductor.post(new Event.Load(rig));
                links[0].connect(rig, Map.of());
                LockSupport.parkNanos(1_000_000_000L);
                gear.received(at -> {
                    arrived.set(at);
                    one.release();
                });
                Event press = new Event.Perform("b", Gesture.PRESS, "bench");
                Runnable pressed = () -> conductor.post(press);
                Runnable handed = () -> sender.hand(press);
                one.drainPermits();
                for (int i = 0; i < WARM_UP; i++) {
                    once(pressed);
                    once(handed);
                }
                for (int round = 0; round < ROUNDS; round++) {
                    for (int i = 0; i < PRESSES; i++) {
                        ours.add(once(pressed));
                        LockSupport.parkNanos(APART_NANOS);
                    }
                    for (int i = 0; i < PRESSES; i++) {
                        bare.add(once(handed));
                        LockSupport.parkNanos(APART_NANOS);
                    }
                }
                links[0].close();
            }
        }
        return List.of(Figure.of("press-p50", Figure.percentile(ours, 0.5) / 1e3, Figure.percentile(bare, 0.5) / 1e3,
                "µs", 2),
                Figure.of("press-p99", Figure.percentile(ours, 0.99) / 1e3, Figure.percentile(bare, 0.99)
                        / 1e3, "µs", 2));
    }

    private long once(Runnable what) throws InterruptedException {
        long start = System.nanoTime();
        what.run();
        one.acquire();
        return Math.max(0, arrived.get() - start);
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
