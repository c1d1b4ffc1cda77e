package rombix.core.value;

import com.fasterxml.jackson.annotation.JsonProperty;

/** What kind of value a parameter takes or a reading reports. */
public enum ValueType {
    @JsonProperty("number")
    NUMBER, @JsonProperty("text")
    TEXT, @JsonProperty("flag")
    FLAG,
    /** The id of one item of a list. */
    @JsonProperty("choice")
    CHOICE,
    /** A text {@code #RRGGBB}. */
    @JsonProperty("colour")
    COLOUR,
    /** A reading that lists choices; never a parameter. */
    @JsonProperty("list")
    LIST
}
