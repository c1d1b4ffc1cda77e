package rombix.links.midi;

import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import javax.sound.midi.InvalidMidiDataException;
import javax.sound.midi.Receiver;
import javax.sound.midi.ShortMessage;
import org.jspecify.annotations.Nullable;
import rombix.links.link.GearReport;
import rombix.links.link.Loop;

/** The MIDI clock that goes out: 24 ticks a beat, for as long as there are beats. Safe to use from any thread. */
final class Ticking implements AutoCloseable {
    private static final int TICKS = 24;
    private static final double MINUTE_NANOS = 60e9;
    private static final double FASTEST = 300;

    private final GearReport report;
    private volatile long period;
    private volatile @Nullable Receiver to;
    /** Guarded by this. */
    private @Nullable Loop loop;
    private long next;

    Ticking(GearReport report) {
        this.report = report;
    }

    /** @param beats a minute; none where it is 0 or less */
    synchronized void beats(double beats, Receiver receiver) {
        to = receiver;
        period = beats > 0 ? (long) (MINUTE_NANOS / Math.min(FASTEST, beats) / TICKS) : 0;
        if (period > 0 && loop == null) {
            next = System.nanoTime();
            loop = Loop.startOften("midi-clock " + report.twin().gear(), this::tick, report::troubled);
        } else if (period == 0) {
            stop();
        }
    }

    private void tick() throws InvalidMidiDataException {
        next += period;
        long now = System.nanoTime();
        if (next < now - TimeUnit.SECONDS.toNanos(1)) {
            next = now; // The computer slept: what was missed is not made up for.
        }
        while (next - now > 0) {
            LockSupport.parkNanos(next - now);
            now = System.nanoTime();
            if (Thread.currentThread().isInterrupted()) {
                return;
            }
        }
        Receiver receiver = to;
        if (receiver != null) {
            receiver.send(new ShortMessage(ShortMessage.TIMING_CLOCK), -1);
        }
    }

    synchronized void stop() {
        to = null;
        if (loop != null) {
            loop.close();
            loop = null;
        }
    }

    @Override
    public void close() {
        stop();
    }
}
