package rombix.bench;

import java.io.IOException;
import java.lang.management.ManagementFactory;
import java.lang.management.ThreadInfo;
import java.lang.management.ThreadMXBean;
import java.nio.ByteBuffer;
import java.nio.channels.DatagramChannel;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.UUID;
import java.util.concurrent.locks.LockSupport;
import rombix.bench.measure.BenchGear;
import rombix.bench.measure.Figure;
import rombix.bench.measure.Measured;
import rombix.core.board.Rig;
import rombix.core.card.Card.Item;
import rombix.core.card.Protocol;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.engine.Conductor;
import rombix.core.event.Event;
import rombix.links.Links;
import rombix.links.MachineClock;
import rombix.wire.dmx.SacnPacket;

/** Two thousand channels that fade over eight universes, against the packets alone from a bare loop: the CPU time. */
final class Fades implements Measured {
    private static final int UNIVERSES = 8;
    private static final int CHANNELS = 250;
    private static final int SECONDS = 5;
    private static final int RATE = 44;
    private static final int ROUNDS = 2;

    @Override
    public List<Figure> measure() throws Exception {
        double ours = Double.MAX_VALUE;
        double bare = Double.MAX_VALUE;
        try (BenchGear gear = new BenchGear()) {
            for (int i = 0; i < ROUNDS; i++) {
                bare = Math.min(bare, packets(gear));
                ours = Math.min(ours, fades(gear));
            }
        }
        return List.of(Figure.of("fades", ours, bare, "ms/s", 2));
    }

    /** The processor time so far of the threads whose names begin so. */
    private static long cpuNanos(String... names) {
        ThreadMXBean threads = ManagementFactory.getThreadMXBean();
        long sum = 0;
        for (ThreadInfo info : threads.getThreadInfo(threads.getAllThreadIds())) {
            for (String name : names) {
                if (info != null && info.getThreadName().startsWith(name)) {
                    sum += threads.getThreadCpuTime(info.getThreadId());
                }
            }
        }
        return sum;
    }

    private static double fades(BenchGear gear) throws IOException {
        List<Item> lamps = new ArrayList<>();
        List<Chain> fades = new ArrayList<>();
        for (int u = 1; u <= UNIVERSES; u++) {
            for (int c = 1; c <= CHANNELS; c++) {
                String id = "l" + u + "-" + c;
                lamps.add(new Item(id, id, Map.of("universe", u, "slot", c)));
                fades.add(
                        Chain.of(new GearStep.Fade("g0", "level", Map.of("lamp", Arg.of(id)), "level", Arg.of(0),
                                Arg.of(
                                        100),
                                (SECONDS + 4) * 1000L, GearStep.Fade.Curve.S_CURVE, StepOptions.PLAIN, Map.of())));
            }
        }
        Rig rig = BenchGear.rig(List.of(new rombix.core.board.Gear("g0", "G", "bench", new rombix.core.board.Gear.Link(
                Protocol.of("dmx"), gear.address(), Map.of()), Map.of("lamp", lamps), Map.of())),
                Chain.of(new Step.Together(
                        fades)));
        Links[] links = new Links[1];
        try (Conductor conductor = new Conductor(new MachineClock(), new SplittableRandom(1), post -> {
            links[0] = new Links(new MachineClock(), post);
            return links[0];
        }, _ -> {
        })) {
            conductor.post(new Event.Load(rig));
            links[0].connect(rig, Map.of());
            LockSupport.parkNanos(500_000_000L);
            conductor.post(new Event.Perform("b", Gesture.PRESS, "bench"));
            LockSupport.parkNanos(2_000_000_000L);
            long before = cpuNanos("conductor", "dmx");
            LockSupport.parkNanos(SECONDS * 1_000_000_000L);
            double cpu = (cpuNanos("conductor", "dmx") - before) / 1e6 / SECONDS;
            conductor.post(new Event.StopAll());
            links[0].close();
            return cpu;
        }
    }

    /** The packets alone, from one loop, 44 times a second. */
    private static double packets(BenchGear gear) throws IOException {
        UUID source = UUID.randomUUID();
        byte[] levels = new byte[SacnPacket.SLOTS];
        try (DatagramChannel channel = DatagramChannel.open()) {
            channel.connect(gear.socketAddress());
            long before = cpuNanos("main");
            long due = System.nanoTime();
            for (int frame = 0; frame < SECONDS * RATE; frame++) {
                due += 1_000_000_000L / RATE;
                LockSupport.parkNanos(due - System.nanoTime());
                for (int u = 1; u <= UNIVERSES; u++) {
                    channel.write(ByteBuffer.wrap(new SacnPacket(source, "Bare", 100, frame & 0xFF, false, u, levels)
                            .encode()));
                }
            }
            return (cpuNanos("main") - before) / 1e6 / SECONDS;
        }
    }
}
