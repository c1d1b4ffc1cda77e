package rombix.standins.midi;

import java.io.IOException;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.locks.LockSupport;
import org.jspecify.annotations.Nullable;
import rombix.standins.Music;
import rombix.standins.Received;
import rombix.wire.Malformed;
import rombix.wire.midi.MidiCodec;
import rombix.wire.midi.MidiMessage;
import rombix.wire.midi.MidiMessage.Control;
import rombix.wire.midi.MidiStream;

/**
 * The sound desk: mute and level of five channels, over MIDI control changes on channel 1, with feedback of every
 * change to all who are plugged in. Controls 20 to 24 mute Host, Guest, Dome, Music Bed and Stings (127 is muted), 30 to
 * 34 are their levels. Control 127 on channel 16 asks for everything.
 *
 * <p>
 * MIDI bytes come over a socket, the far end of a {@link CableProvider cable}, so that the desk can be another process.
 */
public final class SoundDesk implements AutoCloseable {
    public static final int CHANNELS = 5;
    private static final int FIRST_MUTE = 20;
    private static final int FIRST_LEVEL = 30;

    private static final int STINGS = 10;
    private static final long STING_NANOS = 1_200_000_000L;

    private final List<Integer> played = new CopyOnWriteArrayList<>();
    private final Sockets cables;
    private final Received came = new Received();
    private final int[] mutes = {127, 127, 0, 0, 0};
    private final int[] levels = {98, 98, 80, 40, 98};

    /** @param port 0 for any free one */
    public SoundDesk(int port) throws IOException {
        cables = new Sockets("sound-desk", port);
        cables.serve(_ -> {
            MidiStream stream = new MidiStream(this::take);
            return (bytes, length) -> stream.feed(bytes, 0, length);
        });
    }

    public int port() {
        return cables.port();
    }

    /** Whether a channel, counted from 0, is muted. */
    public synchronized boolean muted(int channel) {
        return mutes[channel] >= 64;
    }

    /** A channel's level, from 0 to 127. */
    public synchronized int level(int channel) {
        return levels[channel];
    }

    /** What came. */
    public Received received() {
        return came;
    }

    /** Works a control by hand, as on the desk itself. */
    public void work(int number, int value) {
        take(new Control(1, number, value));
    }

    private void take(byte[] bytes) {
        try {
            MidiMessage message = MidiCodec.decode(bytes).orElse(null);
            came.add(words(message, bytes.length));
            switch (message) {
                case Control c -> take(c);
                case MidiMessage.Note n when n.channel() == STINGS && n.velocity() > 0 -> play(n.number());
                case null, default -> {
                    // A desk passes over the rest.
                }
            }
        } catch (Malformed e) {
            // A desk ignores what it does not understand.
        }
    }

    private static String words(@Nullable MidiMessage message, int length) {
        return switch (message) {
            case Control c -> "control " + c.channel() + " " + c.number() + " " + c.value();
            case MidiMessage.Note n -> "note " + n.channel() + " " + n.number() + " " + n.velocity();
            case null, default -> length + " bytes";
        };
    }

    /** Plays a sting: says that it plays, and after its length that it is over. */
    private void play(int note) {
        played.add(note);
        babble(MidiCodec.encode(new MidiMessage.Note(STINGS, note, 127)));
        Thread.ofVirtual().start(() -> {
            LockSupport.parkNanos(STING_NANOS);
            babble(MidiCodec.encode(new MidiMessage.Note(STINGS, note, 0)));
        });
    }

    /** The stings that were played, by their notes, oldest first. */
    public List<Integer> played() {
        return List.copyOf(played);
    }

    private synchronized void take(Control c) {
        if (c.channel() == 16 && c.number() == 127) {
            for (int i = 0; i < CHANNELS; i++) {
                tell(new Control(1, FIRST_MUTE + i, mutes[i]));
                tell(new Control(1, FIRST_LEVEL + i, levels[i]));
            }
        } else if (c.channel() == 1 && c.number() >= FIRST_MUTE && c.number() < FIRST_MUTE + CHANNELS) {
            mutes[c.number() - FIRST_MUTE] = c.value() >= 64 ? 127 : 0;
            tell(new Control(1, c.number(), mutes[c.number() - FIRST_MUTE]));
        } else if (c.channel() == 1 && c.number() >= FIRST_LEVEL && c.number() < FIRST_LEVEL + CHANNELS) {
            levels[c.number() - FIRST_LEVEL] = c.value();
            tell(c);
        }
    }

    /** Sends raw bytes to all who are plugged in, sound or not. */
    public void babble(byte[] bytes) {
        cables.send(bytes, bytes.length, null);
    }

    private void tell(Control c) {
        babble(MidiCodec.encode(c));
    }

    @Override
    public void close() throws IOException {
        cables.close();
    }

    @Override
    public String toString() {
        return "mutes " + Arrays.toString(mutes) + ", levels " + Arrays.toString(levels);
    }
}
