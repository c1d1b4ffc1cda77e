package rombix.app.edit;

import org.jspecify.annotations.Nullable;
import rombix.core.chain.Gesture;

/** The chain being edited: that of a gesture, what the button does at the start, or a chain of the board. */
public record Part(@Nullable Gesture gesture, @Nullable String chain) {
    public static final Part START = new Part(null, null);

    public static Part of(Gesture gesture) {
        return new Part(gesture, null);
    }

    /** What the places of its steps begin with. */
    public String place() {
        return chain != null ? "chain" : gesture == null ? "on-start" : gesture.id();
    }
}
