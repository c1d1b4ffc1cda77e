package rombix.standins.sound;

import java.util.Arrays;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.Control;
import javax.sound.sampled.DataLine;
import javax.sound.sampled.Line;
import javax.sound.sampled.LineListener;
import javax.sound.sampled.LineUnavailableException;
import javax.sound.sampled.Mixer;
import javax.sound.sampled.SourceDataLine;

/**
 * A loudspeaker: an output that keeps what it is given, as 16-bit stereo at 48 kHz. It takes sound at its own pace, or,
 * where it is made so, as fast as it comes. Safe to use from any thread.
 */
public final class Speaker implements Mixer, SourceDataLine {
    private static final long LOUD_NANOS = 400_000_000L;
    private static final int RATE = 48_000;
    private static final AudioFormat FORMAT = new AudioFormat(RATE, 16, 2, true, false);
    private static final Line.Info LINE = new DataLine.Info(SourceDataLine.class, FORMAT);
    private static final int KEPT = RATE * 2 * 60;

    /** The output's description. */
    static final class Label extends Mixer.Info {
        Label(String name) {
            super(name, "Rombix", "A loudspeaker that keeps what it is given", "1");
        }
    }

    private final Mixer.Info info;
    private final boolean paced;
    private short[] kept = new short[RATE];
    private int length;
    private long takenFrames;
    private long underruns;
    private volatile long firstNanos;
    private int buffer = RATE / 10 * FORMAT.getFrameSize();
    private boolean open;
    private boolean running;
    private boolean gone;
    private boolean stuck;
    private volatile long loudNanos;
    /** When the line began to take what it has, and how much of it that was then. */
    private long sinceNanos;
    private long sinceFrames;

    Speaker(Mixer.Info info, boolean paced) {
        this.info = info;
        this.paced = paced;
    }

    /** What it was given, left and right in turn: at most the first minute since it was cleared. */
    public synchronized short[] kept() {
        return Arrays.copyOf(kept, length);
    }

    public synchronized void clear() {
        length = 0;
        underruns = 0;
        firstNanos = 0;
    }

    /** When it was given its first sample since it was cleared, by {@link System#nanoTime()}; 0 as long as it was not. */
    public long firstNanos() {
        return firstNanos;
    }

    /** How often it had nothing to play in the midst of a stream. */
    public synchronized long underruns() {
        return underruns;
    }

    /** Whether it takes nothing any more, as a device with a driver in trouble does. */
    public synchronized void stick(boolean on) {
        stuck = on;
        notifyAll();
    }

    /** Its plug is pulled: whoever plays through it finds that out. */
    synchronized void pull() {
        gone = true;
        open = false;
        notifyAll();
    }

    @Override
    public synchronized int write(byte[] bytes, int off, int len) {
        int done = 0;
        while (done < len && open && !gone) {
            long waiting = takenFrames - played();
            int room = paced ? (int) (buffer / FORMAT.getFrameSize() - waiting) * FORMAT.getFrameSize() : len;
            if (room <= 0 || !running || stuck) {
                try {
                    wait(1); // As a device does, it holds up who is too fast.
                } catch (InterruptedException e) {
                    Thread.currentThread().interrupt();
                    return done;
                }
                continue;
            }
            int now = Math.min(room, len - done);
            keep(bytes, off + done, now);
            done += now;
        }
        return done;
    }

    private long played() {
        if (!running || !paced) {
            return takenFrames;
        }
        long due = sinceFrames + (System.nanoTime() - sinceNanos) * RATE / 1_000_000_000L;
        if (due > takenFrames) {
            if (takenFrames > sinceFrames) {
                underruns++;
            }
            sinceNanos = System.nanoTime();
            sinceFrames = takenFrames;
        }
        return Math.min(due, takenFrames);
    }

    /** Whether something is to be heard from it. */
    public boolean sounds() {
        return loudNanos != 0 && System.nanoTime() - loudNanos < LOUD_NANOS;
    }

    private void keep(byte[] bytes, int off, int len) {
        for (int i = off; i < off + len; i++) {
            if (bytes[i] != 0) {
                loudNanos = System.nanoTime();
                break;
            }
        }
        if (firstNanos == 0) {
            firstNanos = System.nanoTime();
        }
        for (int i = off; i + 1 < off + len && length < KEPT; i += 2) {
            if (length == kept.length) {
                kept = Arrays.copyOf(kept, kept.length * 2);
            }
            kept[length++] = (short) (bytes[i] & 0xFF | bytes[i + 1] << 8);
        }
        takenFrames += len / FORMAT.getFrameSize();
    }

    @Override
    public void open(AudioFormat format, int bufferSize) throws LineUnavailableException {
        if (!format.matches(FORMAT)) {
            throw new IllegalArgumentException("takes 16-bit stereo at 48 kHz alone");
        }
        synchronized (this) {
            if (gone) {
                throw new LineUnavailableException("it is not plugged in");
            }
            buffer = bufferSize;
            open = true;
        }
    }

    @Override
    public void open(AudioFormat format) throws LineUnavailableException {
        open(format, buffer);
    }

    @Override
    public void open() throws LineUnavailableException {
        open(FORMAT, buffer);
    }

    @Override
    public synchronized void start() {
        running = true;
        sinceNanos = System.nanoTime();
        sinceFrames = takenFrames;
        notifyAll();
    }

    @Override
    public synchronized void stop() {
        running = false;
    }

    @Override
    public synchronized void close() {
        open = false;
        running = false;
        notifyAll();
    }

    @Override
    public void drain() {
        // What it was given is kept: there is nothing to wait for.
    }

    @Override
    public void flush() {
        // What it was given is kept.
    }

    @Override
    public synchronized boolean isOpen() {
        return open;
    }

    @Override
    public synchronized boolean isRunning() {
        return running;
    }

    @Override
    public boolean isActive() {
        return isRunning();
    }

    @Override
    public AudioFormat getFormat() {
        return FORMAT;
    }

    @Override
    public synchronized int getBufferSize() {
        return buffer;
    }

    @Override
    public synchronized int available() {
        return (int) (buffer - (takenFrames - played()) * FORMAT.getFrameSize());
    }

    @Override
    public int getFramePosition() {
        return (int) getLongFramePosition();
    }

    @Override
    public synchronized long getLongFramePosition() {
        return played();
    }

    @Override
    public long getMicrosecondPosition() {
        return getLongFramePosition() * 1_000_000L / RATE;
    }

    @Override
    public float getLevel() {
        return NOT_SPECIFIED;
    }

    private static final int NOT_SPECIFIED = -1;

    @Override
    public Mixer.Info getMixerInfo() {
        return info;
    }

    @Override
    public Line.Info getLineInfo() {
        return LINE;
    }

    @Override
    public Line.Info[] getSourceLineInfo() {
        return new Line.Info[]{LINE};
    }

    @Override
    public Line.Info[] getTargetLineInfo() {
        return new Line.Info[0];
    }

    @Override
    public Line.Info[] getSourceLineInfo(Line.Info wanted) {
        return isLineSupported(wanted) ? getSourceLineInfo() : new Line.Info[0];
    }

    @Override
    public Line.Info[] getTargetLineInfo(Line.Info wanted) {
        return new Line.Info[0];
    }

    @Override
    public boolean isLineSupported(Line.Info wanted) {
        return wanted.matches(LINE);
    }

    @Override
    public Line getLine(Line.Info wanted) {
        return this;
    }

    @Override
    public int getMaxLines(Line.Info wanted) {
        return 1;
    }

    @Override
    public Line[] getSourceLines() {
        return isOpen() ? new Line[]{this} : new Line[0];
    }

    @Override
    public Line[] getTargetLines() {
        return new Line[0];
    }

    @Override
    public void synchronize(Line[] lines, boolean maintainSync) {
        throw new IllegalArgumentException("it has one line");
    }

    @Override
    public void unsynchronize(Line[] lines) {
        // It has one line.
    }

    @Override
    public boolean isSynchronizationSupported(Line[] lines, boolean maintainSync) {
        return false;
    }

    @Override
    public Control[] getControls() {
        return new Control[0];
    }

    @Override
    public boolean isControlSupported(Control.Type control) {
        return false;
    }

    @Override
    public Control getControl(Control.Type control) {
        throw new IllegalArgumentException("it has no controls");
    }

    @Override
    public void addLineListener(LineListener listener) {
        // It tells nobody.
    }

    @Override
    public void removeLineListener(LineListener listener) {
        // It tells nobody.
    }
}
