package rombix.bench.measure;

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
import rombix.core.time.SimulatedClock;
import rombix.core.touch.DeckPort;
import rombix.core.traffic.Traffic;
import rombix.core.traffic.WhyNot;
import rombix.core.twin.Order;
import rombix.core.value.Value;
import rombix.running.Player;
import rombix.running.RunningDeck;
import rombix.running.state.DeckFeed;

/** Plays nothing: the interface alone is measured. */
public final class Still implements Player {
    private final DeckFeed feed = new DeckFeed();

    @Override
    public void opened() {
        // Nothing begins.
    }

    @Override
    public void guest(boolean on) {
        // Nothing is reached.
    }

    @Override
    public void load(Rig rig) {
    }

    @Override
    public DeckPort port(String source) {
        return new DeckPort(_ -> {
        }, source);
    }

    @Override
    public void tell(String gear, String command, Map<String, Value> args) {
        // Nobody is told.
    }

    @Override
    public void run(Event.Try chain) {
        // Nothing runs.
    }

    @Override
    public void start() {
        // Nothing starts.
    }

    @Override
    public void showing(String page) {
        // Nobody asks.
    }

    @Override
    public void mode(Mode mode, boolean starts) {
    }

    @Override
    public void arm(boolean on) {
        // Nothing presses.
    }

    @Override
    public void pace(double factor) {
    }

    @Override
    public Clock clock() {
        return RunningDeck.CLOCK;
    }

    @Override
    public void tryOnTwins(Event.@Nullable Try tried) {
    }

    @Override
    public WhyNot why(String gear) {
        return WhyNot.none("nothing is played", "");
    }

    @Override
    public void overhear(String gear, boolean all) {
        // Nothing is heard.
    }

    @Override
    public void light(String gear, Map<Integer, Map<Integer, Integer>> slots) {
        // There are no lamps.
    }

    @Override
    public Searching search(Consumer<FoundGear> found) {
        return () -> {
        };
    }

    @Override
    public void say(Order order) {
        // Nobody is told.
    }

    @Override
    public Traffic traffic() {
        return new Traffic(new SimulatedClock());
    }

    @Override
    public Known known() {
        return Known.NOTHING;
    }

    @Override
    public DeckFeed feed() {
        return feed;
    }

    @Override
    public @Nullable Pixels look(String gear) {
        return null;
    }
}
