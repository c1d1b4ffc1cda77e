package rombix.core.engine;

import org.jspecify.annotations.Nullable;
import rombix.core.board.Rig;
import rombix.core.chain.Gesture;
import rombix.core.value.Value;

/** What the engine tells those who watch. Told on the conductor's thread, in order. */
public sealed interface Happening {

    record Loaded(Rig rig) implements Happening {
    }

    /** A button's face: the state shown, the one on its way or -1, and whether it is held. */
    record Shows(String button, int state, int onItsWay, boolean held) implements Happening {
    }

    /** A chain starts; {@code expectedNanos} is its length as far as it is known. */
    record Started(long run, String button, Gesture gesture, String source, long atNanos, long expectedNanos)
            implements
                Happening {
    }

    /** A chain ended. */
    record Ended(long run, String button, End end, long atNanos) implements Happening {
    }

    /** A step that reached the gear, or failed to. */
    record Ran(AsRun line) implements Happening {
    }

    /** Something went wrong on a button's face, or with it when {@code message} is null: all is well again. */
    record Faulted(String button, @Nullable String gear, @Nullable String message) implements Happening {
    }

    record Came(String gear, String reading, Value value) implements Happening {
    }

    record Linked(String gear, Status status) implements Happening {
    }

    /** Nothing runs any more, and no answer is awaited. */
    record Rested() implements Happening {
    }

    /** How a chain ended. */
    enum End {
        DONE, FAILED, STOPPED
    }
}
