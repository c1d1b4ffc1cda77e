package rombix.bench;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.SplittableRandom;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.IntStream;
import javax.sound.sampled.AudioFileFormat;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioInputStream;
import javax.sound.sampled.AudioSystem;
import javax.sound.sampled.DataLine;
import javax.sound.sampled.SourceDataLine;
import rombix.bench.measure.Figure;
import rombix.bench.measure.Measured;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Face;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.card.Card.Item;
import rombix.core.card.Protocol;
import rombix.core.chain.Chain;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.engine.Conductor;
import rombix.core.event.Event;
import rombix.core.store.CardLibrary;
import rombix.core.value.Value;
import rombix.links.Links;
import rombix.links.MachineClock;
import rombix.running.Player;
import rombix.standins.sound.Speaker;
import rombix.standins.sound.Speakers;

/**
 * From a press to the first sample that the line is given, against a bare thread that is handed an object and writes the
 * same block; and 32 clips at once on a line that takes blocks of 10 ms at its own pace: how often it ran dry.
 */
final class SoundLatency implements Measured {
    private static final int RATE = 48_000;
    private static final int BLOCK = RATE / 100;
    private static final int CLIPS = 32;
    private static final int WARM_UP = 1500;
    private static final int ROUNDS = 600;
    private static final long PAUSE_NANOS = 3_000_000;
    private static final long SECONDS = 10;
    private static final AudioFormat FORMAT = new AudioFormat(RATE, 16, 2, true, false);

    @Override
    public List<Figure> measure() throws Exception {
        Path folder = Files.createTempDirectory("rombix-bench");
        List<Item> clips = IntStream.range(0, CLIPS).mapToObj(i -> new Item("clip-" + i, "Clip " + i, Map.of("file",
                clip(folder, i, i == 0 ? BLOCK : (int) SECONDS * RATE).toString(), "seconds", i == 0 ? 0.01 : SECONDS)))
                .toList();
        List<Figure> figures = new ArrayList<>(press(clips));
        figures.addAll(many(clips));
        return figures;
    }

    private static Path clip(Path folder, int number, int frames) {
        byte[] bytes = new byte[frames * FORMAT.getFrameSize()];
        for (int i = 0; i < bytes.length; i += 2) {
            int sample = (int) (900 * Math.sin(i / 4.0 * (number + 3) / 50)) + 1;
            bytes[i] = (byte) sample;
            bytes[i + 1] = (byte) (sample >> 8);
        }
        Path file = folder.resolve(number + ".wav");
        try {
            AudioSystem.write(new AudioInputStream(new ByteArrayInputStream(bytes), FORMAT, frames),
                    AudioFileFormat.Type.WAVE, file.toFile());
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
        return file;
    }

    private static Rig rig(String output, List<Item> clips, Chain chain) {
        State state = new State("on", "on", Face.PLAIN, State.STAY, null, Map.of(Gesture.PRESS, chain), Map.of());
        Button button = new Button("b", "b", 0, 0, 1, 1, Button.Busy.OVERLAP, List.of(state), Map.of());
        rombix.core.board.Gear player = new rombix.core.board.Gear("player", "Player", "player",
                new rombix.core.board.Gear.Link(Protocol.of("sound"), output, Map.of()), Map.of("clip", clips), Map
                        .of());
        return Rig.of(new Board(1, "Bench", List.of(player), List.of(new Page("p", "P", 1, 1, List.of(button), Map
                .of())), Map.of()), Map.of("player", Objects.requireNonNull(CardLibrary.shipped().get("player"))));
    }

    private static Step play(String clip) {
        return new GearStep.Do("player", "play", Map.of("clip", Value.of(clip), "wait", Value.of(false)));
    }

    private static List<Figure> press(List<Item> clips) throws Exception {
        Speaker speaker = Speakers.plug("Bench", false);
        Speaker bareSpeaker = Speakers.plug("Bare", false);
        Links[] links = new Links[1];
        try (Conductor conductor = new Conductor(new MachineClock(), new SplittableRandom(1), post -> {
            links[0] = new Links(new MachineClock(), post);
            return links[0];
        }, _ -> {
        }); Bare bare = new Bare(bareSpeaker)) {
            Rig rig = rig("Bench", clips, Chain.of(play("clip-0")));
            conductor.post(new Event.Load(rig));
            links[0].connect(rig, Map.of());
            LockSupport.parkNanos(3_000_000_000L);
            Event press = new Event.Perform("b", Gesture.PRESS, "bench");
            List<Long> ours = new ArrayList<>();
            List<Long> theirs = new ArrayList<>();
            for (int i = 0; i < WARM_UP + ROUNDS; i++) {
                long mine = once(speaker, () -> conductor.post(press));
                long other = once(bareSpeaker, bare::go);
                if (i >= WARM_UP) {
                    ours.add(mine);
                    theirs.add(other);
                }
            }
            links[0].close();
            return List.of(Figure.of("first-sample-p50", Figure.percentile(ours, 0.5) / 1e3, Figure.percentile(theirs,
                    0.5) / 1e3, "µs", 3), Figure.of("first-sample-p95", Figure.percentile(ours, 0.95) / 1e3,
                            Figure
                                    .percentile(theirs, 0.95) / 1e3,
                            "µs", 3));
        }
    }

    private static long once(Speaker speaker, Runnable press) {
        LockSupport.parkNanos(PAUSE_NANOS);
        speaker.clear();
        long start = System.nanoTime();
        press.run();
        while (speaker.firstNanos() == 0) {
            LockSupport.parkNanos(PAUSE_NANOS); // Not spun: a core that waits would be one that does not play.
        }
        return speaker.firstNanos() - start;
    }

    private static List<Figure> many(List<Item> clips) throws Exception {
        Speaker speaker = Speakers.plug("Bench many", true);
        Links[] links = new Links[1];
        try (Conductor conductor = new Conductor(new MachineClock(), new SplittableRandom(1), post -> {
            links[0] = new Links(new MachineClock(), post);
            return links[0];
        }, _ -> {
        })) {
            Rig rig = rig("Bench many", clips, Chain.of(IntStream.range(1, CLIPS).mapToObj(i -> play("clip-" + i))
                    .toArray(Step[]::new)));
            conductor.post(new Event.Load(rig));
            links[0].connect(rig, Map.of());
            LockSupport.parkNanos(6_000_000_000L);
            speaker.clear();
            conductor.post(new Event.Perform("b", Gesture.PRESS, "bench"));
            conductor.post(new Event.Perform("b", Gesture.PRESS, "bench")); // Each begins anew: for 20 ms there are 62.
            LockSupport.parkNanos((SECONDS - 1) * 1_000_000_000L);
            long dry = speaker.underruns();
            links[0].close();
            return List.of(new Figure("dry-with-32-clips", dry, 0, dry, "times", 1e-9));
        }
    }

    /** A bare thread that is handed objects, and writes a block to a line for each. */
    private static final class Bare implements AutoCloseable {
        private final LinkedBlockingQueue<Object> queue = new LinkedBlockingQueue<>();
        private final SourceDataLine line;
        private final Thread thread;
        private final byte[] block = new byte[BLOCK * FORMAT.getFrameSize()];

        Bare(Speaker speaker) throws Exception {
            block[0] = 1;
            line = (SourceDataLine) AudioSystem.getMixer(speaker.getMixerInfo()).getLine(new DataLine.Info(
                    SourceDataLine.class, FORMAT));
            line.open(FORMAT, block.length * 4);
            line.start();
            thread = Thread.ofPlatform().daemon().name("bare").start(() -> {
                try {
                    while (true) {
                        queue.take();
                        line.write(block, 0, block.length);
                    }
                } catch (InterruptedException e) {
                    // Closed.
                }
            });
        }

        void go() {
            queue.add(line);
        }

        @Override
        public void close() {
            thread.interrupt();
            line.close();
        }
    }
}
