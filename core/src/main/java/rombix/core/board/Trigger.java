package rombix.core.board;

import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonProperty;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import com.fasterxml.jackson.annotation.JsonTypeName;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rombix.core.chain.Condition;
import rombix.core.value.Extra;

/**
 * What presses a button beside the hand on its face. Keys, notes and OSC messages press and release; the others run the
 * press chain, without a hold.
 */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "trigger")
public sealed interface Trigger
        permits Trigger.Key, Trigger.Midi, Trigger.Gamepad, Trigger.Osc, Trigger.Clock, Trigger.Becomes, Trigger.When,
        MessageTrigger {

    /** In words. */
    String words();

    /** The same for all triggers that are pulled by the same thing. */
    Trigger normal();

    /**
     * A key, in Live and in Rehearse: {@code F5}, {@code Ctrl+K}, {@code 7}.
     *
     * @param everywhere whether also while another application is in front
     */
    @RecordBuilder
    @JsonTypeName("key")
    @JsonInclude(JsonInclude.Include.NON_DEFAULT)
    record Key(String key, boolean everywhere,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Trigger, TriggerKeyBuilder.With {
        public Key {
            Objects.requireNonNull(key, "a key trigger needs a \"key\"");
            extra = Extra.kept(extra);
        }

        public Key(String key, boolean everywhere) {
            this(key, everywhere, Map.of());
        }

        public Key(String key) {
            this(key, false);
        }

        @Override
        public String words() {
            return "key " + key;
        }

        /** The modifiers in order, in capitals, wherever it is seen. */
        @Override
        public Key normal() {
            List<String> parts = new ArrayList<>(List.of(key.toUpperCase(Locale.ROOT).split("\\+")));
            String last = parts.removeLast();
            Collections.sort(parts);
            parts.add(last);
            return new Key(String.join("+", parts));
        }
    }

    /**
     * A control of a MIDI controller.
     *
     * @param port the name of the port that it is plugged into
     * @param channel from 1 to 16
     * @param number the note, the control or the program, from 0 to 127
     * @param turns for a control: how it says where it is; {@code null} for one that is pushed
     * @param leds what lights it, by the id of the button's state; none where it has no led
     * @param motor whether it can be moved: it follows the button's level
     */
    @RecordBuilder
    @JsonTypeName("midi")
    @JsonInclude(JsonInclude.Include.NON_EMPTY)
    record Midi(String port, Message message, int channel, @JsonInclude(JsonInclude.Include.ALWAYS) int number,
            @Nullable Turns turns, @JsonProperty("lamps") Map<String, Led> leds,
            @JsonInclude(JsonInclude.Include.NON_DEFAULT) boolean motor,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Trigger, TriggerMidiBuilder.With {
        /** What it sends. */
        public enum Message {
            @JsonProperty("note")
            NOTE, @JsonProperty("control")
            CONTROL, @JsonProperty("program")
            PROGRAM
        }

        /** How a control that is turned or pulled says so. */
        public enum Turns {
            /** Where it is, from 0 to 127. */
            @JsonProperty("absolute")
            ABSOLUTE("absolute"),
            /** By how much: 1 is one to the right, 127 one to the left. */
            @JsonProperty("twos-complement")
            TWOS_COMPLEMENT("relative, 1 and 127"),
            /** By how much: 1 is one to the right, 65 one to the left. */
            @JsonProperty("signed-bit")
            SIGNED_BIT("relative, 1 and 65");

            private final String words;

            Turns(String words) {
                this.words = words;
            }

            public String words() {
                return words;
            }

            /** By how many detents a value turns, negative to the left. */
            public int detents(int value) {
                return switch (this) {
                    case ABSOLUTE -> 0;
                    case TWOS_COMPLEMENT -> value < 64 ? value : value - 128;
                    case SIGNED_BIT -> value < 64 ? value : 64 - value;
                };
            }
        }

        /**
         * What is sent to light a led.
         *
         * @param number the note or control, where it is not the one that is pressed
         * @param value the velocity or value
         */
        @RecordBuilder
        @JsonInclude(JsonInclude.Include.NON_NULL)
        public record Led(@Nullable Integer number, @JsonInclude(JsonInclude.Include.ALWAYS) int value,
                @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements TriggerMidiLedBuilder.With {
            public Led {
                if (value < 0 || value > 127 || number != null && (number < 0 || number > 127)) {
                    throw new IllegalArgumentException("an LED's \"number\" and \"value\" go from 0 to 127");
                }
                extra = Extra.kept(extra);
            }

            public Led(@Nullable Integer number, int value) {
                this(number, value, Map.of());
            }

        }

        public Midi {
            Objects.requireNonNull(port, "a MIDI trigger needs a \"port\"");
            Objects.requireNonNull(message, "a MIDI trigger needs a \"message\"");
            leds = leds == null ? Map.of() : Map.copyOf(leds);
            if (channel < 1 || channel > 16 || number < 0 || number > 127) {
                throw new IllegalArgumentException("MIDI has channels 1 to 16 and numbers 0 to 127");
            }
            extra = Extra.kept(extra);
        }

        public Midi(String port, Message message, int channel, int number, @Nullable Turns turns, Map<String, Led> leds,
                boolean motor) {
            this(port, message, channel, number, turns, leds, motor, Map.of());
        }

        /** Another control of the same controller; only one that sends a control change can be turned. */
        public Midi withControl(Message sends, int onChannel, int at) {
            return new Midi(port, sends, onChannel, at, sends == Message.CONTROL ? turns : null, leds,
                    motor && sends == Message.CONTROL, extra);
        }

        /** Only one that says where it is can be moved. */
        public Midi withTurns(@Nullable Turns next) {
            return new Midi(port, message, channel, number, next, leds, motor && next == Turns.ABSOLUTE, extra);
        }

        @Override
        public String words() {
            return "%s %d, channel %d, of %s".formatted(message.name().toLowerCase(Locale.ROOT), number, channel, port);
        }

        @Override
        public Midi normal() {
            return new Midi(port, message, channel, number, null, Map.of(), false);
        }
    }

    /**
     * A part of a gamepad or a joystick: what is pushed presses and releases, sticks and triggers move levels.
     *
     * @param device its name, as it says itself
     * @param part {@code lower button}, {@code left stick}; of a joystick {@code button 3}, {@code axis 2}, {@code hat 1}
     */
    @RecordBuilder
    @JsonTypeName("gamepad")
    record Gamepad(String device, String part,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Trigger, TriggerGamepadBuilder.With {
        public Gamepad {
            Objects.requireNonNull(device, "a gamepad trigger needs a \"device\"");
            Objects.requireNonNull(part, "a gamepad trigger needs a \"part\"");
            extra = Extra.kept(extra);
        }

        public Gamepad(String device, String part) {
            this(device, part, Map.of());
        }

        @Override
        public Gamepad normal() {
            return new Gamepad(device, part);
        }

        @Override
        public String words() {
            return part + " of " + device;
        }
    }

    @RecordBuilder
    /**
     * An OSC message to the board's port. A number over 0, true, or nothing at all presses; 0 and false release. For a
     * fader it is where it goes, from 0 to 1; for a pad, the two of them.
     */
    @JsonTypeName("osc")
    record Osc(String address,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Trigger, TriggerOscBuilder.With {
        public Osc {
            Objects.requireNonNull(address, "an OSC trigger needs an \"address\"");
            if (!address.matches("/[^ #*,?\\[\\]{}]+")) {
                throw new IllegalArgumentException("an OSC address begins with / and has no wildcards, such as /go");
            }
            extra = Extra.kept(extra);
        }

        public Osc(String address) {
            this(address, Map.of());
        }

        @Override
        public Osc normal() {
            return new Osc(address);
        }

        @Override
        public String words() {
            return "OSC " + address;
        }
    }

    /** A time of day. */
    @RecordBuilder
    @JsonTypeName("clock")
    @JsonInclude(JsonInclude.Include.NON_DEFAULT)
    record Clock(Schedule at, boolean late,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Trigger, TriggerClockBuilder.With {
        /** @param late whether one that was missed, the machine being asleep, is made up for as soon as it is awake */
        public Clock {
            Objects.requireNonNull(at, "a clock trigger needs an \"at\"");
            extra = Extra.kept(extra);
        }

        public Clock(Schedule at, boolean late) {
            this(at, late, Map.of());
        }

        @Override
        public String words() {
            return at.words();
        }

        @Override
        public Clock normal() {
            return new Clock(at, false);
        }
    }

    /**
     * A condition that becomes so; that it was so already does not count.
     *
     * @param each whether it counts each time that what it asks for arrives, though it was so before
     */
    @RecordBuilder
    @JsonTypeName("becomes")
    @JsonInclude(JsonInclude.Include.NON_DEFAULT)
    record Becomes(Condition condition, boolean each,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Trigger, TriggerBecomesBuilder.With {
        public Becomes {
            Objects.requireNonNull(condition, "a trigger by a condition needs its \"condition\"");
            extra = Extra.kept(extra);
        }

        public Becomes(Condition condition) {
            this(condition, false, Map.of());
        }

        @Override
        public Becomes normal() {
            return new Becomes(condition, each, Map.of());
        }

        @Override
        public String words() {
            return Condition.readings(condition).stream().map(r -> r.gear() + ": " + r.reading()).distinct().collect(
                    Collectors.joining(", "));
        }
    }

    /**
     * Something that happens to the board or its gear.
     *
     * @param gear which gear, for what happens to one; any where it is null
     */
    @RecordBuilder
    @JsonTypeName("when")
    @JsonInclude(JsonInclude.Include.NON_NULL)
    record When(What what, @Nullable String gear,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Trigger, TriggerWhenBuilder.With {
        /** What happens. */
        public enum What {
            /** In every mode, as it is meant to make things ready. */
            @JsonProperty("board-opened")
            BOARD_OPENED("the board is opened"), @JsonProperty("went-live")
            WENT_LIVE("the board goes live"), @JsonProperty("gear-lost")
            GEAR_LOST("gear is lost"), @JsonProperty("gear-back")
            GEAR_BACK("gear is back");

            private final String words;

            What(String words) {
                this.words = words;
            }

            public String words() {
                return words;
            }
        }

        public When {
            Objects.requireNonNull(what, "a trigger by what happens needs a \"what\"");
            extra = Extra.kept(extra);
        }

        public When(What what, @Nullable String gear) {
            this(what, gear, Map.of());
        }

        @Override
        public When normal() {
            return new When(what, gear);
        }

        @Override
        public String words() {
            return gear == null ? what.words() : what.words() + ": " + gear;
        }
    }
}
