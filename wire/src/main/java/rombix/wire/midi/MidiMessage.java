package rombix.wire.midi;

/** A MIDI 1.0 channel message that decks use. Channels count from 1 to 16; data from 0 to 127. */
public sealed interface MidiMessage {
    int channel();

    /** A key; velocity 0 lets it go. */
    record Note(int channel, int number, int velocity) implements MidiMessage {
        public Note {
            check(channel, number, velocity);
        }
    }

    /** A control change. */
    record Control(int channel, int number, int value) implements MidiMessage {
        public Control {
            check(channel, number, value);
        }
    }

    /** A program change. */
    record Program(int channel, int program) implements MidiMessage {
        public Program {
            check(channel, program, 0);
        }
    }

    private static void check(int channel, int first, int second) {
        if (channel < 1 || channel > 16 || first < 0 || first > 127 || second < 0 || second > 127) {
            throw new IllegalArgumentException(
                    "MIDI has channels 1 to 16 and data 0 to 127, not %d, %d, %d".formatted(channel, first, second));
        }
    }
}
