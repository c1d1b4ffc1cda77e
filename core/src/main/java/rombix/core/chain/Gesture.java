package rombix.core.chain;

import com.fasterxml.jackson.annotation.JsonProperty;

/** What a hand does to a button. */
public enum Gesture {
    @JsonProperty("press")
    PRESS("press"), @JsonProperty("release")
    RELEASE("release"),
    /** Held for the board's long-press time; the press chain does not run then, unless the button says so. */
    @JsonProperty("long-press")
    LONG_PRESS("long press"),
    /** Pressed twice within the board's double-press time. */
    @JsonProperty("double-press")
    DOUBLE_PRESS("double press"),
    /** Again and again while held. */
    @JsonProperty("held")
    HELD("held"),
    /** Turned by some detents; the value {@code turn} says how many, and which way. */
    @JsonProperty("turn")
    TURN("turn"),
    /** Turned finely. */
    @JsonProperty("turn-fine")
    TURN_FINE("fine turn");

    private final String words;

    Gesture(String words) {
        this.words = words;
    }

    /** What files call it. */
    public String id() {
        return name().toLowerCase(java.util.Locale.ROOT).replace('_', '-');
    }

    /** What people call it. */
    public String words() {
        return words;
    }
}
