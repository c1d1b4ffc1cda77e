package rombix.links.sound;

import java.io.IOException;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Consumer;
import java.util.stream.Stream;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioSystem;
import javax.sound.sampled.DataLine;
import javax.sound.sampled.LineUnavailableException;
import javax.sound.sampled.Mixer;
import javax.sound.sampled.SourceDataLine;
import org.jspecify.annotations.Nullable;
import rombix.core.event.Cause;
import rombix.core.sound.Clip;
import rombix.core.sound.Mix;
import rombix.core.thread.Bounded;
import rombix.links.link.LinkType;
import rombix.links.link.Loop;
import rombix.links.link.Refused;

/**
 * One output of this machine, found by its name, and the thread that mixes for it: blocks of 10 ms, of which at most
 * {@value #BLOCKS} wait in the line. Safe to use from any thread.
 */
final class AudioOutput implements AutoCloseable {
    /** Frames a block. */
    static final int BLOCK = Clip.RATE / 100;
    private static final int FIRST = BLOCK / 10;
    private static final int BLOCKS = 4;
    private static final int BITS = 16;
    private static final int MOST_WAITING = 1000;
    private static final long REST_NANOS = 1_000_000_000L;
    private static final AudioFormat FORMAT = new AudioFormat(Clip.RATE, BITS, Clip.CHANNELS, true, false);
    private static final DataLine.Info LINE = new DataLine.Info(SourceDataLine.class, FORMAT);

    /** What happens on it; called on its thread. */
    interface Listener {
        /** What plays now; said after each block. */
        void playing(AudioOutput on, List<Mix.Playing> now, List<Long> ended);
    }

    private final String name;
    private final Listener listener;
    private final SourceDataLine line;
    private final Mix mix = new Mix();
    private final Bounded<Consumer<Mix>> asked = new Bounded<>(MOST_WAITING, Bounded.Full.REFUSE);
    private volatile @Nullable Thread mixing;
    private final float[] mixed = new float[BLOCK * Clip.CHANNELS];
    private final byte[] bytes = new byte[BLOCK * Clip.CHANNELS * BITS / 8];
    private final Loop loop;
    private volatile boolean closed;
    private volatile @Nullable String trouble;

    /** The names of all outputs that are there now. */
    static List<String> names() {
        return infos().map(Mixer.Info::getName).distinct().toList();
    }

    /** The names of all that could be outputs, which takes far less than to ask each whether it is one. */
    static List<String> devices() {
        return Stream.of(AudioSystem.getMixerInfo()).map(Mixer.Info::getName).toList();
    }

    /** Those of them that are stand-ins, which say so as their maker. */
    static List<String> standIns() {
        return infos().filter(i -> i.getVendor().equals(LinkType.STAND_IN)).map(Mixer.Info::getName).toList();
    }

    private static Stream<Mixer.Info> infos() {
        return Stream.of(AudioSystem.getMixerInfo()).filter(i -> AudioSystem.getMixer(i).isLineSupported(LINE));
    }

    private static Optional<Mixer.Info> info(String name) {
        return infos().filter(i -> i.getName().equals(name)).findFirst();
    }

    /** @throws IOException in plain words where there is no such output, or somebody else has it alone */
    AudioOutput(String name, Listener listener) throws IOException {
        this.name = name;
        this.listener = listener;
        Mixer.Info info = info(name).orElseThrow(() -> new Refused(Cause.NO_OUTPUT, name));
        try {
            line = (SourceDataLine) AudioSystem.getMixer(info).getLine(LINE);
            line.open(FORMAT, bytes.length * BLOCKS);
        } catch (LineUnavailableException | IllegalArgumentException e) {
            throw new Refused(e, Cause.OUTPUT_TAKEN, name, String.valueOf(e.getMessage()));
        }
        loop = Loop.startOften("sound " + name, this::turn, e -> trouble = String.valueOf(e.getMessage()));
    }

    /** Has something done to the mix before its next block. @return false if the output is stuck and too much waits */
    boolean ask(Consumer<Mix> what) {
        boolean taken = asked.offer(what);
        LockSupport.unpark(mixing);
        return taken;
    }

    /** Why it no longer plays; null while it does. */
    @Nullable
    String lostReason(List<String> devices) {
        String why = trouble;
        return why != null ? why : devices.contains(name) ? null : "the output “" + name + "” is gone";
    }

    private void turn() throws InterruptedException {
        if (trouble != null) {
            Thread.sleep(Duration.ofNanos(REST_NANOS)); // Its owner finds that out.
            return;
        }
        boolean fresh = mix.idle();
        if (fresh) {
            rest();
        }
        for (Consumer<Mix> what = asked.poll(); what != null; what = asked.poll()) {
            what.accept(mix);
        }
        if (mix.idle()) {
            return;
        }
        if (!line.isRunning()) {
            line.start();
        }
        int frames = fresh ? FIRST : BLOCK; // The first goes out as soon as may be; the line is filled behind it.
        int length = frames * FORMAT.getFrameSize();
        List<Long> ended = mix.render(mixed, frames);
        for (int i = 0; i < frames * Clip.CHANNELS; i++) {
            int sample = Math.round(Math.clamp(mixed[i], -1f, 1f) * Short.MAX_VALUE);
            bytes[2 * i] = (byte) sample;
            bytes[2 * i + 1] = (byte) (sample >> 8);
        }
        if (line.write(bytes, 0, length) < length && !closed) {
            trouble = "the output “" + name + "” is gone";
        }
        listener.playing(this, mix.playing(), ended);
    }

    /** Waits until something is asked for; after a while the line rests, too: silence takes nothing of the machine. */
    private void rest() throws InterruptedException {
        mixing = Thread.currentThread();
        long since = System.nanoTime();
        while (asked.isEmpty()) {
            if (!line.isRunning()) {
                LockSupport.park(this);
            } else if (System.nanoTime() - since < REST_NANOS) {
                LockSupport.parkNanos(this, REST_NANOS);
            } else {
                line.stop();
                line.flush();
            }
            if (Thread.interrupted()) {
                throw new InterruptedException();
            }
        }
    }

    @Override
    public void close() {
        closed = true;
        loop.close();
        line.close();
    }
}
