package rombix.wire.midi;

import java.util.Arrays;
import java.util.function.Consumer;

/**
 * Cuts a stream of MIDI bytes into channel messages, with running status. Bytes that belong to nothing are counted
 * and passed over. Not safe for use by several threads.
 */
public final class MidiStream {
    private final Consumer<byte[]> messages;
    private final byte[] held = new byte[3];
    private int count;
    private boolean system;
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
        if (v >= 0xF8) {
            return; // Real-time bytes may stand anywhere.
        }
        if (v >= 0x80) {
            stray += count > 1 ? count - 1 : 0;
            system = v >= 0xF0;
            held[0] = b;
            count = system ? 0 : 1;
            return;
        }
        if (count == 0) {
            stray += system ? 0 : 1;
            return;
        }
        held[count++] = b;
        int length = MidiCodec.length(held[0] & 0xFF);
        if (count == length) {
            messages.accept(Arrays.copyOf(held, length));
            count = 1;
        }
    }

    /** How many bytes belonged to no message. */
    public long stray() {
        return stray;
    }
}
