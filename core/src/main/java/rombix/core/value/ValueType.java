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
    /** A chord of keys by their names, such as {@code Ctrl+Shift+F5}. */
    @JsonProperty("keys")
    KEYS,
    /** A place for the pointer; see {@link rombix.core.computer.Place}. */
    @JsonProperty("place")
    PLACE,
    /** A program, a file or a folder of this computer, or the address of a page. */
    @JsonProperty("path")
    PATH,
    /** The name of a text that this computer's owner keeps here, and that no board and no log ever shows. */
    @JsonProperty("secret")
    SECRET,
    /** A reading that lists choices; never a parameter. */
    @JsonProperty("list")
    LIST
}
