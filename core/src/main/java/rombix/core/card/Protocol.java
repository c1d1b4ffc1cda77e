package rombix.core.card;

import com.fasterxml.jackson.annotation.JsonProperty;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** The transports a card can speak, each with the form of its packet addresses. */
public enum Protocol {
    /** {@code /address/of/the/method}. */
    @JsonProperty("osc")
    OSC("OSC", "/[^ #*,?\\[\\]]*", "an OSC address such as /studio/scene", 50),
    /** {@code control CHANNEL NUMBER}, {@code note CHANNEL NUMBER} or {@code program CHANNEL}; channels count from 1. */
    @JsonProperty("midi")
    MIDI("MIDI", "(control|note) \\S+ \\S+|program \\S+",
            "control CHANNEL NUMBER, note CHANNEL NUMBER or program CHANNEL", 50),
    /** {@code UNIVERSE SLOT}; both count from 1. */
    @JsonProperty("dmx")
    DMX("sACN", "\\S+ \\S+", "UNIVERSE SLOT, such as 1 12", 44),
    /** {@code topic/of/the/message}. */
    @JsonProperty("mqtt")
    MQTT("MQTT", "[^#+]+", "a topic without wildcards", 10),
    /** {@code COMMAND PARAMS}, such as {@code PRIVMSG #room}; what is carried follows as the last parameters. */
    @JsonProperty("irc")
    IRC("IRC", "[A-Z]+( \\S+)*", "an IRC command and its first parameters, such as PRIVMSG #room", 2),
    /** {@code front}, {@code window} or {@code applications}: what the desktop of this machine shows in front. */
    @JsonProperty("desktop")
    DESKTOP("desktop", "[a-z]+", "front, window or applications", 10);

    private final String title;
    private final Pattern form;
    private final String expected;
    private final int rate;

    Protocol(String title, String form, String expected, int rate) {
        this.title = title;
        this.form = Pattern.compile(form);
        this.expected = expected;
        this.rate = rate;
    }

    /** The name that people know it by. */
    public String title() {
        return title;
    }

    /** How often a second a level that fades is sent. */
    public int rate() {
        return rate;
    }

    /** Where gear is reached as long as nobody has said where; blank where that has to be said. */
    public String usualAddress() {
        return switch (this) {
            case DMX -> "multicast";
            case DESKTOP -> "here";
            case OSC, MIDI, MQTT, IRC -> "";
        };
    }

    /** Why gear cannot be reached at an address in this protocol; null where it may be. */
    public @Nullable String wrongAddress(String address) {
        if (address.isBlank()) {
            return "has no address: set where it is reached";
        }
        return this == MIDI || this == DESKTOP || this == DMX && address.equals("multicast")
                || address.matches("\\S+:\\d{1,5}")
                        ? null
                        : "its address “" + address + "” is not HOST:PORT";
    }

    /** Whether a packet address, places included, has this protocol's form. */
    public boolean takes(String address) {
        return form.matcher(address).matches();
    }

    /** What an address looks like, for a message about one that does not. */
    public String expected() {
        return expected;
    }
}
