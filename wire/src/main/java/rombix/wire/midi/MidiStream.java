package rombix.wire.midi;

import java.io.ByteArrayOutputStream;
import java.util.Arrays;
import java.util.function.Consumer;

/**
 * Cuts a stream of MIDI bytes into messages, with running status: those of channels, system exclusive from its first
 * byte to its last, other system messages, and real-time bytes, which may stand within any other. Bytes that belong to
 * nothing are counted and passed over. Not safe for use by several threads.
 */
public final class MidiStream {
    private static final int EXCLUSIVE = 0xF0;
    private static final int EXCLUSIVE_ENDS = 0xF7;
    private static final int REAL_TIME = 0xF8;
    /** Of how many bytes a system exclusive message has at most: what goes on for longer is none. */
    private static final int LONGEST = 65_536;

    private final Consumer<byte[]> messages;
    private final byte[] held = new byte[3];
    private final ByteArrayOutputStream exclusive = new ByteArrayOutputStream();
    private int count;
    private boolean within;
    private long stray;

    /** @param messages told of each whole message, on the thread that feeds */
    public MidiStream(Consumer<byte[]> messages) {
        this.messages = messages;
    }

    public void feed(byte[] bytes, int from, int length) {
        for (int i = from; i < from + length; i++) {
            feed(bytes[i]);
        }
    }

    private void feed(byte b) {
        int v = b & 0xFF;
        if (v >= REAL_TIME) {
            messages.accept(new byte[]{b});
        } else if (v == EXCLUSIVE_ENDS && within) {
            exclusive.write(b);
            messages.accept(exclusive.toByteArray());
            reset();
        } else if (v >= 0x80) {
            stray += count > 1 ? count - 1 : 0;
            stray += exclusive.size();
            reset();
            status(b, v);
        } else if (within) {
            data(b);
        } else if (count == 0) {
            stray++;
        } else {
            held[count++] = b;
            whole();
        }
    }

    private void reset() {
        within = false;
        exclusive.reset();
        count = 0;
    }

    private void status(byte b, int v) {
        if (v == EXCLUSIVE) {
            within = true;
            exclusive.write(b);
            return;
        }
        if (v == EXCLUSIVE_ENDS) {
            return; // Of one that was too long, or began before.
        }
        held[0] = b;
        count = 1;
        whole();
    }

    private void data(byte b) {
        if (exclusive.size() < LONGEST) {
            exclusive.write(b);
        } else {
            stray += exclusive.size();
            reset();
        }
    }

    private void whole() {
        int length = MidiCodec.length(held[0] & 0xFF);
        if (count == length) {
            messages.accept(Arrays.copyOf(held, length));
            count = (held[0] & 0xFF) < EXCLUSIVE ? 1 : 0; // Running status is that of channels alone.
        }
    }

    /** How many bytes belonged to no message. */
    public long stray() {
        return stray;
    }
}
