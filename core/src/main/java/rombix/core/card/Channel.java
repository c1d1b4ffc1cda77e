package rombix.core.card;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonProperty;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * What one slot of a fixture means, in the order in which its manual lists them. The channels of a card are the
 * fixture's personality.
 *
 * @param name what it is called where its kind does not say: of a wheel, of another level
 * @param fine whether it is the second part, of 16 bits, of the channel of the same kind and name
 * @param from the value at the slot's lowest level, and {@code to} that at its highest; of pan and tilt in degrees, of
 *            a colour temperature in kelvin; usual ones when absent
 * @param steps of a wheel: what it shows, each with the level {@code value} that shows it
 * @param value the level that it always has, where it is a fixed one
 */
@JsonInclude(JsonInclude.Include.NON_EMPTY)
public record Channel(Kind is, @Nullable String name, @JsonInclude(JsonInclude.Include.NON_DEFAULT) boolean fine,
        @Nullable Double from, @Nullable Double to, List<Step> steps, @Nullable Integer value) {
    /** The highest level of a slot. */
    public static final int FULL = 255;

    /** What a channel is for. */
    public enum Kind {
        @JsonProperty("dimmer")
        DIMMER("dimmer"), @JsonProperty("red")
        RED("red"), @JsonProperty("green")
        GREEN("green"), @JsonProperty("blue")
        BLUE("blue"), @JsonProperty("white")
        WHITE("white"), @JsonProperty("warmth")
        WARMTH("colour temperature"), @JsonProperty("pan")
        PAN("pan"), @JsonProperty("tilt")
        TILT("tilt"), @JsonProperty("strobe")
        STROBE("strobe"), @JsonProperty("wheel")
        WHEEL("wheel"), @JsonProperty("level")
        LEVEL("another level"), @JsonProperty("fixed")
        FIXED("constant");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    public Channel {
        Objects.requireNonNull(is, "a channel needs an \"is\"");
        steps = List.copyOf(Objects.requireNonNullElse(steps, List.of()));
        if ((from == null) != (to == null) || from != null && from.equals(to)) {
            throw new IllegalArgumentException("\"from\" and \"to\" go together, two different numbers");
        }
        if (is == Kind.LEVEL && (name == null || name.isBlank())) {
            throw new IllegalArgumentException("a level of another kind needs a \"name\"");
        }
        if (is == Kind.WHEEL && !fine && steps.isEmpty()) {
            throw new IllegalArgumentException("a wheel needs \"steps\", each with the \"value\" that shows it");
        }
        if (value != null && (value < 0 || value > FULL)) {
            throw new IllegalArgumentException("\"value\" is a level from 0 to " + FULL);
        }
    }

    /**
     * What a wheel shows.
     *
     * @param value the level that shows it
     */
    public record Step(String name, int value) {
        public Step {
            Objects.requireNonNull(name, "a step needs a \"name\"");
            if (value < 0 || value > FULL) {
                throw new IllegalArgumentException("the step “" + name + "” needs a \"value\" from 0 to " + FULL);
            }
        }

        /** What it is called in ids. */
        public String id() {
            return slug(name);
        }
    }

    /** One that is nothing but of its kind. */
    public static Channel of(Kind is) {
        return new Channel(is, null, false, null, null, List.of(), null);
    }

    /** What people call it. */
    public String label() {
        return (name == null || name.isBlank() ? is.words() : name) + (fine ? " fine" : "");
    }

    /** Whether it is the fine part of another. */
    boolean fines(Channel coarse) {
        return fine && !coarse.fine && is == coarse.is && Objects.equals(name, coarse.name);
    }

    /** What its kind is called in ids. */
    String slugOfKind() {
        return is.name().toLowerCase(Locale.ROOT);
    }

    /** What it is called in ids. */
    String slug() {
        return slug(label());
    }

    private static String slug(String words) {
        return words.toLowerCase(Locale.ROOT).replaceAll("[^\\p{L}\\p{N}]+", "-").replaceAll("^-|-$", "");
    }
}
