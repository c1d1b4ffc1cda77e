package rombix.running;

import java.time.ZonedDateTime;
import java.util.Map;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Rig;
import rombix.core.event.Event;
import rombix.core.event.Known;
import rombix.core.event.Mode;
import rombix.core.found.FoundGear;
import rombix.core.sight.Pixels;
import rombix.core.time.Clock;
import rombix.core.touch.DeckPort;
import rombix.core.traffic.Traffic;
import rombix.core.traffic.WhyNot;
import rombix.core.twin.Order;
import rombix.core.value.Value;
import rombix.running.state.DeckFeed;

/** What plays a board: on its gear, or in rehearsal on twins. Safe to use from any thread. */
public interface Player {
    /** Plays a board from now on. */
    void load(Rig rig);

    /** Whether the board that is loaded next is a guest: none of its gear is reached or heard until that is over. */
    void guest(boolean on);

    /** Says to the deck that its board was opened, once its gear answers or is known not to. */
    void opened();

    /** The way to it of one source, that the log names so. */
    DeckPort port(String source);

    /** A gear is told something by hand, outside any chain. */
    void tell(String gear, String command, Map<String, Value> args);

    /** Runs a chain that belongs to no button's gesture, as when a step is tried. */
    void run(Event.Try chain);

    /** Runs the start chains, and what going live triggers. */
    void start();

    /** A page is shown now, by the window that has the board open. */
    void showing(String page);

    /**
     * Plays as a mode does: in Live and in Rehearse triggers press; in Rehearse all on twins only, and what runs on the gear
     * is stopped.
     *
     * @param starts whether the board's start chains run now, outside Build
     */
    void mode(Mode mode, boolean starts);

    /** Whether triggers press, until the mode changes: in Build they do not unless they are armed. */
    void arm(boolean on);

    /** How many times as fast as the wall's clock a rehearsal goes, from now on. */
    void pace(double factor);

    /** The clock of what plays now. */
    Clock clock();

    /** The moment on that clock, in nanoseconds. */
    default long nanos() {
        return clock().nanos();
    }

    /** The time of day on that clock. From any thread. */
    default ZonedDateTime wall() {
        return clock().wall();
    }

    /** Runs a chain on twins while the gear goes on as it does; null ends that, and shows the gear again. */
    void tryOnTwins(Event.@Nullable Try tried);

    /** What the screens of a gear show now; null where there is nothing to be seen. It may block. */
    @Nullable
    Pixels look(String gear);

    /** Why a gear cannot be worked: the whole way to it, tried now. It may take some seconds, on the caller's thread. */
    WhyNot why(String gear);

    /** Has all be heard that a gear says, not only what its card reads, until that is over. */
    void overhear(String gear, boolean all);

    /**
     * Shows some slots of lamps so that what stands there can be found, whatever else is set.
     *
     * @param slots levels from 0 to 255, by universe and slot; none ends it
     */
    void light(String gear, Map<Integer, Map<Integer, Integer>> slots);

    /**
     * Looks for gear that says by itself that it is here, until that is closed.
     *
     * @param found told of each, on any thread
     */
    Searching search(Consumer<FoundGear> found);

    /** Ends with its closing. */
    interface Searching extends AutoCloseable {
        @Override
        void close();
    }

    /** Sends what was made out by hand. */
    void say(Order order);

    /** What goes out to the gear and comes in. */
    Traffic traffic();

    /** What is known of the gear now. */
    Known known();

    /** What the deck looks like, and how to follow it. */
    DeckFeed feed();
}
