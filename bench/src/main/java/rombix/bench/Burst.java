package rombix.bench;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.DatagramChannel;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.locks.LockSupport;
import rombix.bench.measure.BenchGear;
import rombix.bench.measure.Figure;
import rombix.bench.measure.Measured;
import rombix.core.board.Rig;
import rombix.core.chain.Chain;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.engine.Conductor;
import rombix.core.event.Event;
import rombix.core.event.Happening;
import rombix.links.Links;
import rombix.links.MachineClock;

/** Ten thousand steps due at once, to eight gears, against the same sends from a bare loop. */
final class Burst implements Measured {
    private static final int STEPS = 10_000;
    private static final int GEARS = 8;
    private static final int ROUNDS = 25;

    @Override
    public List<Figure> measure() throws Exception {
        List<BenchGear> gears = new ArrayList<>();
        List<String> addresses = new ArrayList<>();
        List<DatagramChannel> channels = new ArrayList<>();
        for (int i = 0; i < GEARS; i++) {
            BenchGear gear = new BenchGear();
            gears.add(gear);
            addresses.add(gear.address());
            DatagramChannel channel = DatagramChannel.open();
            channel.connect(gear.socketAddress());
            channels.add(channel);
        }
        List<Step> steps = new ArrayList<>();
        for (int i = 0; i < STEPS; i++) {
            steps.add(BenchGear.go(i % GEARS, i));
        }
        Rig rig = BenchGear.osc(addresses, new Chain(steps));
        Links[] links = new Links[1];
        CountDownLatch[] done = {new CountDownLatch(1)};
        double ours = Double.MAX_VALUE;
        double bare = Double.MAX_VALUE;
        try (Conductor conductor = new Conductor(new MachineClock(), new SplittableRandom(1), post -> {
            links[0] = new Links(new MachineClock(), post);
            return links[0];
        }, h -> {
            if (h instanceof Happening.Rested) {
                done[0].countDown();
            }
        })) {
            conductor.post(new Event.Load(rig));
            links[0].connect(rig, Map.of());
            LockSupport.parkNanos(1_000_000_000L);
            for (int round = 0; round < ROUNDS; round++) {
                done[0] = new CountDownLatch(1);
                long start = System.nanoTime();
                conductor.post(new Event.Perform("b", Gesture.PRESS, "bench"));
                done[0].await();
                ours = Math.min(ours, System.nanoTime() - start);
                bare = Math.min(bare, loop(channels));
            }
            links[0].close();
        }
        for (BenchGear gear : gears) {
            gear.close();
        }
        return List.of(Figure.of("burst", ours / 1e6, bare / 1e6, "ms", 3));
    }

    private static long loop(List<DatagramChannel> channels) throws IOException {
        byte[] bytes = {'/', 'g', 'o', 0, ',', 'f', 0, 0, 0x40, (byte) 0xE0, 0, 0};
        ByteBuffer out = ByteBuffer.allocateDirect(bytes.length);
        long start = System.nanoTime();
        for (int i = 0; i < STEPS; i++) {
            out.clear();
            out.put(bytes).flip();
            channels.get(i % GEARS).write(out);
        }
        return System.nanoTime() - start;
    }
}
