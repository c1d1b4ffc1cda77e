package rombix.wire.midi;

import java.util.Optional;
import rombix.wire.Malformed;

/** Reads and writes MIDI 1.0 channel messages (MIDI 1.0 Detailed Specification, table I). */
public final class MidiCodec {
    private static final int NOTE_OFF = 0x80;
    private static final int NOTE_ON = 0x90;
    private static final int CONTROL = 0xB0;
    private static final int PROGRAM = 0xC0;

    private MidiCodec() {
    }

    public static byte[] encode(MidiMessage message) {
        int channel = message.channel() - 1;
        return switch (message) {
            case MidiMessage.Note n -> new byte[]{(byte) (NOTE_ON | channel), (byte) n.number(), (byte) n.velocity()};
            case MidiMessage.Control c ->
                new byte[]{(byte) (CONTROL | channel), (byte) c.number(), (byte) c.value()};
            case MidiMessage.Program p -> new byte[]{(byte) (PROGRAM | channel), (byte) p.program()};
        };
    }

    /**
     * The message in some bytes; empty for a sound message of a kind that decks do not use.
     *
     * @throws Malformed with the reason
     */
    public static Optional<MidiMessage> decode(byte[] bytes) throws Malformed {
        if (bytes.length == 0) {
            throw new Malformed("an empty MIDI message");
        }
        int status = bytes[0] & 0xFF;
        if (status < 0x80) {
            throw new Malformed("a MIDI message without its status byte");
        }
        int length = length(status);
        if (status >= 0xF0) {
            return Optional.empty();
        }
        if (bytes.length < length) {
            throw new Malformed("a MIDI message of %d bytes cut short at %d".formatted(length, bytes.length));
        }
        for (int i = 1; i < length; i++) {
            if (bytes[i] < 0) {
                throw new Malformed("a MIDI data byte over 127");
            }
        }
        int channel = (status & 0x0F) + 1;
        return switch (status & 0xF0) {
            case NOTE_OFF -> Optional.of(new MidiMessage.Note(channel, bytes[1], 0));
            case NOTE_ON -> Optional.of(new MidiMessage.Note(channel, bytes[1], bytes[2]));
            case CONTROL -> Optional.of(new MidiMessage.Control(channel, bytes[1], bytes[2]));
            case PROGRAM -> Optional.of(new MidiMessage.Program(channel, bytes[1]));
            default -> Optional.empty();
        };
    }

    /** How many bytes a message with this status has; system exclusive has as many as it wants. */
    static int length(int status) {
        return switch (status & 0xF0) {
            case PROGRAM, 0xD0 -> 2;
            case 0xF0 -> switch (status) {
                case 0xF1, 0xF3 -> 2;
                case 0xF2 -> 3;
                default -> 1;
            };
            default -> 3;
        };
    }
}
