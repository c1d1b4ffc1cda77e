package rombix.standins.set;

import java.io.IOException;
import java.util.List;
import java.util.Set;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.locks.LockSupport;
import rombix.standins.midi.Sockets;
import rombix.wire.Malformed;
import rombix.wire.midi.MidiEar;
import rombix.wire.midi.MidiStream;

/**
 * A recorder and a lighting desk on one MIDI port: the one takes machine control (RP-013) and tells its time in quarter
 * frames while it runs, the other takes show control (RP-002) and knows the cue that it was sent to.
 */
public final class ShowPort implements AutoCloseable {
    private static final int FRAMES = 25;
    private static final int PARTS = 8;
    private static final long PART_NANOS = 1_000_000_000L / FRAMES / 4;
    private static final Set<String> RUNS = Set.of("play", "deferred-play", "record");
    private static final Set<String> RESTS = Set.of("stop", "pause", "rewind");

    private final Sockets cables;
    private final AtomicInteger frame = new AtomicInteger();
    private volatile boolean running;
    private volatile boolean closed;
    private volatile String machine = "stop";
    private volatile String cue = "";

    /** @param port 0 for any free one */
    public ShowPort(int port) throws IOException {
        cables = new Sockets("show-port", port);
        cables.serve(_ -> {
            MidiEar ear = new MidiEar(this::take);
            MidiStream stream = new MidiStream(bytes -> handle(ear, bytes));
            return (bytes, length) -> stream.feed(bytes, 0, length);
        });
        Thread.ofVirtual().name("show-port time").start(this::run);
    }

    private static void handle(MidiEar ear, byte[] bytes) {
        try {
            ear.take(bytes, System.nanoTime());
        } catch (Malformed e) {
            // It passes over what it does not understand.
        }
    }

    private void take(String address, List<String> args) {
        String[] words = address.split(" ");
        if (words[0].equals("mmc") && words.length == 3) {
            machine = words[2];
            running = RUNS.contains(machine) || running && !RESTS.contains(machine);
            if (machine.equals("rewind")) {
                frame.set(0);
            }
        } else if (words[0].equals("msc") && words.length == 4) {
            cue = words[3] + " " + String.join("/", args);
        }
    }

    /** Tells the time, a part every quarter of a frame; two frames go by until all eight parts are told. */
    private void run() {
        while (!closed) {
            if (running) {
                int now = frame.getAndAdd(2);
                for (int part = 0; part < PARTS; part++) {
                    byte[] quarter = {(byte) 0xF1, (byte) (part << 4 | nibble(now, part))};
                    cables.send(quarter, quarter.length, null);
                    LockSupport.parkNanos(PART_NANOS);
                }
            } else {
                LockSupport.parkNanos(PART_NANOS);
            }
        }
    }

    private static int nibble(int frame, int part) {
        int seconds = frame / FRAMES;
        int value = switch (part / 2) {
            case 0 -> frame % FRAMES;
            case 1 -> seconds % 60;
            case 2 -> seconds / 60 % 60;
            default -> seconds / 3600 % 24 | 1 << 5; // 25 frames a second.
        };
        return part % 2 == 0 ? value & 0xF : value >> 4;
    }

    public int port() {
        return cables.port();
    }

    /** What the recorder was told last. */
    public String machine() {
        return machine;
    }

    public boolean running() {
        return running;
    }

    /** What the desk was told last, and of which cue and list. */
    public String cue() {
        return cue;
    }

    @Override
    public void close() throws IOException {
        closed = true;
        cables.close();
    }
}
