package rombix.running;

import java.util.SplittableRandom;
import java.util.function.BiConsumer;
import rombix.core.board.Rig;
import rombix.core.engine.Conductor;
import rombix.core.engine.TwinGears;
import rombix.core.event.Event;
import rombix.core.event.Happening;
import rombix.core.event.Status;
import rombix.core.time.Clock;
import rombix.core.time.FastClock;
import rombix.running.state.DeckState;

/** A board in play on twins, on a clock that may go faster; it begins as the deck is. Safe to use from any thread. */
final class Rehearsal implements AutoCloseable {
    private final FastClock clock;
    private final Conductor conductor;

    /**
     * Starts it; nothing happens on it before {@link #begin}.
     *
     * @param pace how many times as fast as that clock it goes
     * @param told of everything that happens on it, and on which clock, on its own thread
     */
    Rehearsal(Clock wall, double pace, BiConsumer<Happening, Clock> told) {
        clock = new FastClock(wall);
        clock.factor(pace);
        conductor = new Conductor(clock, new SplittableRandom(), post -> new TwinGears(clock, post), h -> told.accept(h,
                clock));
    }

    /** Plays a board from where a deck is, not from where the board once began. */
    void begin(Rig rig, DeckState from) {
        load(rig);
        from.known().readings().forEach((gear, of) -> of.forEach((reading, value) -> post(new Event.Came(gear, reading,
                value))));
        post(from.resume());
    }

    /** Plays another board, whose gear is all there. */
    void load(Rig rig) {
        post(new Event.Load(rig));
        rig.twins().keySet().forEach(gear -> post(new Event.Linked(gear, Status.TWIN)));
    }

    void post(Event event) {
        conductor.post(event);
    }

    void pace(double factor) {
        clock.factor(factor);
        post(new Event.Run(() -> {
            // It reckons anew how long to wait.
        }));
    }

    Clock clock() {
        return clock;
    }

    @Override
    public void close() {
        conductor.close();
    }
}
