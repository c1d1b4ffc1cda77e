package rombix.core.card;

import com.fasterxml.jackson.annotation.JsonProperty;
import java.util.regex.Pattern;

/** The transports a card can speak, each with the form of its packet addresses. */
public enum Protocol {
    /** {@code /address/of/the/method}. */
    @JsonProperty("osc")
    OSC("OSC", "/[^ #*,?\\[\\]]*", "an OSC address such as /studio/scene"),
    /** {@code control CHANNEL NUMBER}, {@code note CHANNEL NUMBER} or {@code program CHANNEL}; channels count from 1. */
    @JsonProperty("midi")
    MIDI("MIDI", "(control|note) \\S+ \\S+|program \\S+",
            "control CHANNEL NUMBER, note CHANNEL NUMBER or program CHANNEL"),
    /** {@code UNIVERSE SLOT}; both count from 1. */
    @JsonProperty("dmx")
    DMX("sACN", "\\S+ \\S+", "UNIVERSE SLOT, such as 1 12"),
    /** {@code topic/of/the/message}. */
    @JsonProperty("mqtt")
    MQTT("MQTT", "[^#+]+", "a topic without wildcards");

    private final String title;
    private final Pattern form;
    private final String expected;

    Protocol(String title, String form, String expected) {
        this.title = title;
        this.form = Pattern.compile(form);
        this.expected = expected;
    }

    /** The name that people know it by. */
    public String title() {
        return title;
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
