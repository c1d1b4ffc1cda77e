package rombix.core.engine;

import java.util.Map;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Rig;
import rombix.core.chain.Gesture;
import rombix.core.value.Value;

/** What reaches the engine from outside. */
public sealed interface Event {

    /** A board takes the place of the present one. States and runs of buttons that stay go on. */
    record Load(Rig rig) implements Event {
    }

    /** A hand, a key or a controller works a button; {@code source} says which. */
    record Worked(String button, Gesture gesture, String source) implements Event {
    }

    /** The chain of a gesture is run without a hold, as from a script or a clock. */
    record Perform(String button, Gesture gesture, String source) implements Event {
    }

    /** A gear is told something by hand, outside any chain. */
    record Told(String gear, String command, Map<String, Value> args) implements Event {
    }

    /** A gear reports a value. */
    record Came(String gear, String reading, Value value) implements Event {
    }

    /** A gear can be reached, or no longer. */
    record Linked(String gear, Status status) implements Event {
    }

    /** A link is done with an order: sent at {@code atNanos}, or not, and why. */
    record Answered(long ticket, long atNanos, @Nullable String fault) implements Event {
    }

    /** Every hold ends, as when the focus is lost. */
    record LetGo() implements Event {
    }

    /** One running chain is stopped. */
    record StopRun(long run) implements Event {
    }

    /** Everything that runs is stopped. */
    record StopAll() implements Event {
    }
}
