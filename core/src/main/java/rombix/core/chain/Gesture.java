package rombix.core.chain;

import com.fasterxml.jackson.annotation.JsonProperty;

/** What a hand does to a button. */
public enum Gesture {
    @JsonProperty("press")
    PRESS, @JsonProperty("release")
    RELEASE
}
