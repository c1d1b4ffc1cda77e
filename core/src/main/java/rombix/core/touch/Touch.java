package rombix.core.touch;

import java.util.List;
import java.util.Locale;
import java.util.Map;
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

    /** An MQTT message came in by a gear. */
    record Mqtt(String gear, String topic, String text) implements Touch {
        /** What a chain knows of it. */
        public static final List<String> NAMES = List.of("says", "topic");

        @Override
        public String words() {
            return "MQTT " + topic;
        }

        /** What a chain knows of it, by name. */
        Map<String, Value> said() {
            return Map.of("says", Value.of(text), "topic", Value.of(topic));
        }
    }

    /**
     * A part of a gamepad or a joystick moved.
     *
     * @param x for what is pushed, 1 or 0; for what is pulled, from 0 to 1; else across, from -1 to 1
     * @param y up, from -1 to 1
     */
    record Gamepad(String device, String part, double x, double y) implements Touch {
        @Override
        public String words() {
            return part + " of " + device;
        }
    }

    /**
     * A controller, or what sees keys, is gone: what it held is let go.
     *
     * @param port empty for the keys
     * @param kind what it was, in a word
     */
    record Gone(String port, String kind) implements Touch {
        /** A MIDI port is gone, or the keys are. */
        public Gone(String port) {
            this(port, "MIDI");
        }

        @Override
        public String words() {
            return port.isEmpty() ? "keys lost" : kind + " " + port + " gone";
        }
    }
}
