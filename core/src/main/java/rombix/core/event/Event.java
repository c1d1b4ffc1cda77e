package rombix.core.event;

import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Rig;
import rombix.core.chain.Gesture;
import rombix.core.engine.run.Run;
import rombix.core.value.Value;

/** What reaches the engine from outside. */
public sealed interface Event {

    /** A board takes the place of the present one. States and runs of buttons that stay go on. */
    record Load(Rig rig) implements Event {
    }

    /** A hand, a key or a controller begins to press a button; {@code source} says which. */
    record Pressed(String button, String source) implements Event {
    }

    /** What ends a hold: a release, or anything else that does. */
    record Released(String button, String source) implements Event {
    }

    /** A dial is turned by so many detents, negative to the left. */
    record Turned(String button, int detents, boolean fine, String source) implements Event {
    }

    /** One of the states of a row is chosen, counted from 0. */
    record Chosen(String button, int state, String source) implements Event {
    }

    /** A hand slid over a pointer field or a wheel strip: so far across and up, in pixels or in notches. */
    record Stroked(String button, double across, double up, String source) implements Event {
    }

    /** A value is given by hand: one of a button's, or of the board where that is empty; of a run-down where it is. */
    record Given(String button, String value, Value to) implements Event {
    }

    /** These ways of a key pad are held from now on, counted from 0, and no others. */
    record Held(String button, Set<Integer> ways, String source) implements Event {
        public Held {
            ways = Set.copyOf(ways);
        }
    }

    /** A level of a dial, a fader or a pad is moved to a value, in its unit; {@code axis} is 1 for the one up a pad. */
    record Moved(String button, int axis, double value, String source) implements Event {
    }

    /**
     * The chain of a gesture is run without a hand, as from a script or a clock. A press of a state that has something to
     * do at the release, too, is followed by that, so that nothing stays held. Guards do not count.
     *
     * @param holdMillis for how long a press holds, like a hand that may make a long press of it; -1 where it does not
     * @param said what was said by what presses it, by the names that the chain has it under
     */
    record Perform(String button, Gesture gesture, String source, long holdMillis, Map<String, Value> said)
            implements
                Event {
        public Perform(String button, Gesture gesture, String source, long holdMillis) {
            this(button, gesture, source, holdMillis, Map.of());
        }

        public Perform(String button, Gesture gesture, String source) {
            this(button, gesture, source, -1);
        }
    }

    /** A chain that belongs to no button's gesture is run, as when a step is tried; {@code name} says what it is. */
    record Try(String button, rombix.core.chain.Chain chain, String name) implements Event {
    }

    /** The board was opened. */
    record Opened() implements Event {
    }

    /** The board goes live: the buttons' start chains run, and what that triggers. */
    record WentLive() implements Event {
    }

    /** Clocks, readings and what happens to the gear press from now on, or no more. */
    record Arm(boolean on) implements Event {
    }

    /**
     * What a control says now, asked for when it is its turn: many messages of one control are then one event.
     *
     * @param what asked once, on the conductor's thread; null where there is nothing
     */
    record Latest(java.util.function.Supplier<@Nullable Event> what) implements Event {
    }

    /**
     * Something done on the conductor's thread, behind all that was posted before it.
     *
     * @param what done once; it does not wait, as the deck stands still for as long
     */
    record Run(Runnable what) implements Event {
    }

    /** An answer to a question: a choice by its place or name, a number, or a text. */
    record Reply(long question, Value answer) implements Event {
    }

    /** A gear is told something by hand, outside any chain. */
    record Told(String gear, String command, Map<String, Value> args) implements Event {
    }

    /**
     * A gear reports a value.
     *
     * @param moment whether it tells that something happens: it counts though the value is as before
     */
    record Came(String gear, String reading, Value value, boolean moment) implements Event {
        /** One that tells how something is. */
        public Came(String gear, String reading, Value value) {
            this(gear, reading, value, false);
        }
    }

    /** A gear can be reached, or no longer. */
    record Linked(String gear, Status status) implements Event {
    }

    /**
     * A link is done with an order.
     *
     * @param atNanos when that was
     * @param fault null where it is done, else why not
     * @param wiredNanos when it went out, where it did
     * @param behind what it waited behind for long before it went out, in words; empty where it did not
     */
    record OrderDone(long ticket, long atNanos, @Nullable String fault, long wiredNanos, String behind)
            implements
                Event {
        /** One that went out when it was done. */
        public OrderDone(long ticket, long atNanos, @Nullable String fault) {
            this(ticket, atNanos, fault, atNanos, "");
        }
    }

    /** Another event, taken after a time. */
    record Later(long nanos, Event event) implements Event {
    }

    /**
     * A hold ends by something other than its hand: the page has gone, a controller was pulled out. What the hand had
     * not made up its mind about does not happen.
     *
     * @param button whose hold; every one where it is null
     */
    record LetGo(@Nullable String button, String source) implements Event {
        /** Every hold ends. */
        public LetGo() {
            this(null, "let go");
        }
    }

    /** One running chain is stopped. */
    record StopRun(long run) implements Event {
    }

    /** Everything that runs is stopped. */
    record StopAll() implements Event {
    }

    /**
     * The show ends: what runs is stopped and every hold ends, with what those still have to say.
     *
     * @param then done on the conductor's thread once that has gone out, or after two seconds
     */
    record End(Runnable then) implements Event {
    }

    /**
     * A deck goes on from where another is that plays the same board.
     *
     * @param states the states of buttons that follow nothing, by button
     */
    record Resume(Map<String, Integer> states, List<Happening.ValueSet> values) implements Event {
    }
}
