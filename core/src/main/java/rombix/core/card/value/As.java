package rombix.core.card.value;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Arrays;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/** In what form a value stands on the wire, where its own form does not tell. What a protocol does not know it reads as plain. */
public enum As {
    /** As it is: what a protocol does with numbers, texts and flags where nothing is said. */
    PLAIN("plain"),
    /** A whole number; of 32 bits where the protocol counts them. */
    INT("int"),
    /** A whole number of 64 bits. */
    LONG("long"),
    /** A number with a fraction, of 32 bits. */
    FLOAT("float"),
    /** A number with a fraction, of 64 bits. */
    DOUBLE("double"),
    /** A text. */
    TEXT("text"),
    /** A text that is a name (OSC: {@code S}). */
    SYMBOL("symbol"),
    /** One letter. */
    CHAR("char"),
    /** Yes or no as such, without a number. */
    FLAG("flag"),
    /** Bytes, written as hexadecimal digits. */
    BLOB("blob"),
    /** A point in time, in milliseconds since 1970. */
    TIME("time"),
    /** A MIDI message within another protocol, written as eight hexadecimal digits. */
    MIDI("midi"),
    /** That something happens, without a value. */
    IMPULSE("impulse"),
    /** Nothing, which is said. */
    NIL("nil"),
    /** {@code #RRGGBB} as three whole numbers, or as a colour where the protocol knows such. */
    RGB("rgb"),
    /** {@code #RRGGBB} as four: what all three have in common goes to white. */
    RGBW("rgbw"),
    /** A whole number from 0 to 65,535 as two of eight bits, the coarse one first. */
    WORD("16-bit"),
    /** Of a whole number from 0 to 65,535 the upper eight bits, where the lower ones stand elsewhere. */
    COARSE("coarse"),
    /** The lower ones. */
    FINE("fine"),
    /** Of a colour its red alone, from 0 to 255, where its parts stand apart. */
    RED("red"),
    /** Its green. */
    GREEN("green"),
    /** Its blue. */
    BLUE("blue"),
    /** Its hue, in degrees. */
    HUE("hue"),
    /** Its saturation, in percent. */
    SATURATION("saturation"),
    /** Its brightness, in percent. */
    BRIGHTNESS("brightness"),
    /** Its chromaticity x (CIE 1931). */
    X("x"),
    /** Its chromaticity y. */
    Y("y"),
    /** Its colour temperature, in mireds. */
    MIREDS("mireds"),
    /** Where an array begins; no form of a value. */
    BEGIN("["),
    /** Where an array ends; no form of a value. */
    END("]");

    private final String word;

    As(String word) {
        this.word = word;
    }

    @JsonValue
    public String word() {
        return word;
    }

    /** Of how many slots of eight bits it takes the room, where a protocol counts slots. */
    public int slots() {
        return switch (this) {
            case RGB -> 3;
            case RGBW -> 4;
            case WORD -> 2;
            case BEGIN, END -> 0;
            default -> 1;
        };
    }

    /** Whether it goes by leaps on the wire while its value moves evenly. */
    public boolean leaps() {
        return this == WORD || this == COARSE || this == FINE;
    }

    /** The part of a colour that goes out; null where it is none. */
    @Nullable
    ColourPart part() {
        return switch (this) {
            case RED -> ColourPart.RED;
            case GREEN -> ColourPart.GREEN;
            case BLUE -> ColourPart.BLUE;
            case HUE -> ColourPart.HUE;
            case SATURATION -> ColourPart.SATURATION;
            case BRIGHTNESS -> ColourPart.BRIGHTNESS;
            case X -> ColourPart.X;
            case Y -> ColourPart.Y;
            case MIREDS -> ColourPart.MIREDS;
            default -> null;
        };
    }

    static As of(String word) {
        return Arrays.stream(values()).filter(a -> a.word.equals(word) && a.slots() > 0).findFirst().orElseThrow(
                () -> new IllegalArgumentException("\"as\" is \"" + word + "\"; expected one of " + Arrays.stream(
                        values()).filter(a -> a.slots() > 0).map(As::word).collect(Collectors.joining(", "))));
    }
}
