package rombix.core.event;

import java.util.List;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Rig;
import rombix.core.chain.DeckStep;
import rombix.core.value.Value;

/** What the engine tells those who watch. Told on the conductor's thread, in order. */
public sealed interface Happening {

    record Loaded(Rig rig) implements Happening {
    }

    /** What was told before is to be forgotten: all is told anew. */
    record Anew() implements Happening {
    }

    /** Triggers press from now on, or no more. */
    record Armed(boolean on) implements Happening {
    }

    /** A button's face: the state shown, the one on its way or -1, and whether it is held. */
    record Shows(String button, int state, int onItsWay, boolean held) implements Happening {
    }

    /** A press waits for more: to be held for so many milliseconds, or to come again within them; 0 when it is over. */
    record Guarded(String button, boolean hold, long millis) implements Happening {
    }

    /**
     * A chain starts.
     *
     * @param what the gesture's name, or what else has run it
     * @param expectedNanos its length as far as it is known
     */
    record Started(long run, String button, String what, String source, long atNanos, long expectedNanos)
            implements
                Happening {
    }

    /** A chain ended. */
    record Ended(long run, String button, End end, long atNanos) implements Happening {
    }

    /** A chain has ended, and all that it sent has gone out or failed. */
    record Settled(long run) implements Happening {
    }

    /** A step that reached the gear, or a step that failed. */
    record Ran(AsRun line) implements Happening {
    }

    /**
     * What was waited for has come: the gear shows what a step told it, a face what a press set on its way, or a person
     * has answered a question.
     *
     * @param step where the step stands in its chain; empty for a face
     * @param gear who answered; empty for a person
     * @param dueNanos from when on it was waited for
     */
    record Answered(long run, String button, String step, String gear, String words, long dueNanos, long atNanos)
            implements
                Happening {
    }

    /** What its chain waits for goes on for so long from a moment on, as far as it is known. */
    record Lasts(long run, String button, long atNanos, long nanos) implements Happening {
    }

    /** A step that takes time goes on now; {@code step} is where it stands in its chain. */
    record AtStep(long run, String step) implements Happening {
    }

    /** One of several was picked, or a branch taken. */
    record Picked(long run, String step, int choice, String name) implements Happening {
    }

    /** A question waits for an answer; {@code timeoutMillis} is -1 where it waits for ever. */
    record Asked(long question, long run, String button, String text, DeckStep.Ask.AnswerType kind,
            List<String> options,
            @Nullable Value preset, long timeoutMillis, long atNanos) implements Happening {
        public Asked {
            options = List.copyOf(options);
        }
    }

    /** A question no longer waits. */
    record AskClosed(long question) implements Happening {
    }

    /** A message on the deck. */
    record Said(String button, String text) implements Happening {
    }

    /** A step has something noted in the log, as it is at that moment. */
    record Noted(long run, String button, String step, String text, long atNanos) implements Happening {
    }

    /**
     * A page is to be shown some way; back from it, or from whatever is shown where {@code page} is null.
     *
     * @param source who pressed what shows it: a pop-up belongs where the press came from
     */
    record PageShown(@Nullable String page, DeckStep.Show.Way way, String source) implements Happening {
    }

    /** A page that follows something is to be shown as that is so, or no longer. */
    record PageFollows(String page, boolean so) implements Happening {
    }

    /** A value of the board, or of a button where one is named, has changed. */
    record ValueSet(@Nullable String button, String value, Value to) implements Happening {
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
