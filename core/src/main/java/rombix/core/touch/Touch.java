package rombix.core.touch;

import java.util.List;
import java.util.Locale;
import rombix.core.board.Trigger.Midi.Message;
import rombix.core.value.Value;

/** Something that came from a keyboard, a controller or the network. */
public sealed interface Touch {
    /** In words, as the log says who pressed. */
    String words();

    /** A key goes down or up, whatever application is in front; named as boards name keys, with its modifiers. */
    record Key(String key, boolean down) implements Touch {
        @Override
        public String words() {
            return "key " + key + " everywhere";
        }
    }

    /** A MIDI message came in; a program has the value 127. Channels count from 1. */
    record Midi(String port, Message message, int channel, int number, int value) implements Touch {
        @Override
        public String words() {
            return "MIDI %s, %s %d".formatted(port, message.name().toLowerCase(Locale.ROOT), number);
        }
    }

    /** An OSC message came in. */
    record Osc(String address, List<Value> args) implements Touch {
        public Osc {
            args = List.copyOf(args);
        }

        @Override
        public String words() {
            return "OSC " + address;
        }
    }

    /** A controller, or what sees keys, is gone: what it held is let go. {@code port} is empty for the keys. */
    record Gone(String port) implements Touch {
        @Override
        public String words() {
            return port.isEmpty() ? "keys lost" : "MIDI " + port + " gone";
        }
    }
}
